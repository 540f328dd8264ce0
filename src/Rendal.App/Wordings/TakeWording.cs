using System.Globalization;
using Rendal.App.Books;
using Rendal.Core.Wordings;
using Rendal.Html;

namespace Rendal.App.Wordings;

/// <summary>Takes a wording out of a file into the book.</summary>
public sealed class TakeWording(BookStores stores, TimeProvider clock)
{
    /// <summary>
    /// Adds the wording of a file with its pictures. Where the book has one of its name in its language, <c> (2)</c> is put behind the
    /// name.
    /// </summary>
    /// <param name="name">The file’s name, for messages.</param>
    /// <param name="file">A page as <see cref="WordingFile"/> writes it.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>The wording’s number.</returns>
    /// <exception cref="ProblemException">It is none, or as for <see cref="StoreWording.AddAsync"/> and
    /// <see cref="KeepPicture.RunAsync"/>; no wording is added then.</exception>
    public async Task<long> RunAsync(string name, byte[] file, CancellationToken cancel)
    {
        var (wording, pictures) = Read(name, file);
        var kept = new List<long>();
        foreach (var picture in pictures)
        {
            kept.Add(await new KeepPicture(stores).RunAsync(picture, cancel));
        }

        var taken = (await stores.Wordings.ListAsync(cancel))
            .Where(w => string.Equals(w.Wording.Language, wording.Language, StringComparison.OrdinalIgnoreCase))
            .Select(w => w.Wording.Name)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        return await new StoreWording(stores, clock).AddAsync(
            wording with
            {
                Name = Free(wording.Name.Trim(), taken),
                Body = PicturePlaces.Renumbered(wording.Body, number => kept[(int)number - 1]),
            },
            cancel
        );
    }

    private static string Free(string name, HashSet<string> taken)
    {
        var free = name;
        for (var n = 2; taken.Contains(free); n++)
        {
            free = string.Create(CultureInfo.InvariantCulture, $"{name} ({n})");
        }

        return free;
    }

    private static (Wording Wording, IReadOnlyList<byte[]> Pictures) Read(string name, byte[] file)
    {
        try
        {
            return WordingFile.Read(file);
        }
        catch (FormatException e)
        {
            throw ProblemException.Invalid($"“{name}” cannot be taken as a wording: {e.Message}.");
        }
    }
}
