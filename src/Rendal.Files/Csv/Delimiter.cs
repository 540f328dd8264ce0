namespace Rendal.Files.Csv;

/// <summary>Finds out what separates the cells of a text file.</summary>
public static class Delimiter
{
    private static readonly char[] Candidates = [',', ';', '\t', '|'];

    /// <summary>The delimiters that are known.</summary>
    public static IReadOnlyList<char> All => Candidates;

    /// <summary>
    /// The delimiter that stands equally often, and most often, in the most lines of <paramref name="sample"/>; what is in quotes does not
    /// count. A comma where none stands anywhere: the file has one column.
    /// </summary>
    public static (char Delimiter, string Reason) Of(string sample)
    {
        var best = ',';
        var bestScore = 0;
        var reason = "none stands anywhere";
        foreach (var candidate in Candidates)
        {
            var counts = CountsPerRecord(sample, candidate);
            var most = counts.Where(n => n > 0).GroupBy(n => n).MaxBy(Score);
            if (most is not null && Score(most) > bestScore)
            {
                (best, bestScore) = (candidate, Score(most));
                reason = $"{(most.Key == 1 ? "once" : $"{most.Key} times")} in {most.Count()} of {counts.Count} lines";
            }
        }

        return (best, reason);
    }

    private static int Score(IGrouping<int, int> lines) => lines.Count() * lines.Count() * Math.Min(lines.Key, 20);

    private static List<int> CountsPerRecord(string sample, char candidate)
    {
        var counts = new List<int>();
        var count = 0;
        var quoted = false;
        var before = '\0';
        foreach (var c in sample)
        {
            var endsLine = c == '\n' ? before != '\r' : c == '\r';
            before = c;
            if (c == '"')
            {
                quoted = !quoted;
            }
            else if (endsLine && !quoted)
            {
                counts.Add(count);
                count = 0;
            }
            else if (c == candidate && !quoted)
            {
                count++;
            }
        }

        return counts.Count == 0 ? [count] : counts;
    }
}
