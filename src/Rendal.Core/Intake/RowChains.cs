namespace Rendal.Core.Intake;

/// <summary>
/// Lists of row numbers, many of them, all in one place. A list of its own for each of fifty thousand customers would be made larger five
/// times over in the course of a file, and to clear away what those leave takes as long as to read the rows.
/// </summary>
internal sealed class RowChains
{
    private readonly List<(int Row, int Before)> links = [];

    /// <summary>Adds a row to the end of one of the lists, or begins one.</summary>
    /// <param name="row">Its number.</param>
    /// <param name="last">What adding the row before it to the same list gave; 0 for the first one.</param>
    /// <returns>Where the list ends now.</returns>
    public int Add(int row, int last)
    {
        links.Add((row, last));
        return links.Count;
    }

    /// <summary>The rows of a list, in the order they were added.</summary>
    /// <param name="last">Where it ends.</param>
    /// <param name="count">How many there are.</param>
    public int[] Of(int last, int count)
    {
        var rows = new int[count];
        for (var i = count - 1; i >= 0; i--)
        {
            (rows[i], last) = links[last - 1];
        }

        return rows;
    }
}
