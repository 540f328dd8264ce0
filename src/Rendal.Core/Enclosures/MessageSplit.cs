namespace Rendal.Core.Enclosures;

/// <summary>Spreads the files of a parcel over several messages where one would be too large.</summary>
public static class MessageSplit
{
    /// <summary>The most messages that a parcel becomes.</summary>
    public const int MostMessages = 20;

    /// <summary>
    /// The files in their order, as many in each message as have room. Null where a file has room in none, or there would be too many
    /// messages.
    /// </summary>
    /// <param name="files">The files.</param>
    /// <param name="room">The bytes that there is room for in each message.</param>
    /// <param name="size">The bytes that a file takes in a message.</param>
    public static IReadOnlyList<ParcelEnclosure>? Of(IReadOnlyList<ParcelEnclosure> files, long room, Func<ParcelEnclosure, long> size)
    {
        var (message, left) = (0, room);
        var spread = new List<ParcelEnclosure>();
        foreach (var file in files)
        {
            var takes = size(file);
            if (takes > room)
            {
                return null;
            }

            if (takes > left)
            {
                (message, left) = (message + 1, room);
            }

            left -= takes;
            spread.Add(file with { Message = message });
        }

        return message < MostMessages ? spread : null;
    }
}
