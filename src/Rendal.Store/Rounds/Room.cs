namespace Rendal.Store.Rounds;

/// <summary>
/// Where there is room in a list that stands in order: after the last row that comes before something, and before the first that does
/// not. It is found by halving, as no index can be in the order of names that may have thousands of letters.
/// </summary>
internal static class Room
{
    // So many positions are read at once, in which about sixty rows stand.
    private const int AtOnce = 64 * ParcelTable.Spacing;

    /// <summary>The positions between which a row belongs in a list that is in order.</summary>
    /// <param name="between">Gives the first rows between two positions, both left out, at most as many as its third number says, in their
    /// order.</param>
    /// <param name="comesBefore">Whether a row comes before what there is to be room for.</param>
    /// <returns>The positions, both taken or at the list’s end: 5,120 and 6,144 where two follow each other as they were made.</returns>
    public static async Task<(int From, int To)> OfAsync<T>(
        Func<int, int, int, Task<List<(int Position, T Row)>>> between,
        Func<T, bool> comesBefore
    )
    {
        var (from, end, to) = (-ParcelTable.Spacing, int.MaxValue, (int?)null);
        while ((long)end - from > AtOnce)
        {
            var middle = (int)(((long)from + end) / 2);
            var found = await between(middle - 1, end, 1);
            if (found is [var first] && comesBefore(first.Row))
            {
                from = first.Position;
            }
            else
            {
                (end, to) = (middle, found is [var after] ? after.Position : to);
            }
        }

        foreach (var (position, row) in await between(from, end, AtOnce))
        {
            if (!comesBefore(row))
            {
                to = position;
                break;
            }

            from = position;
        }

        return (from, to ?? from + ParcelTable.Spacing);
    }
}
