using System.Globalization;
using System.Runtime.InteropServices;
using System.Text;

namespace Rendal.Bench;

/// <summary>Writes what was measured as a table.</summary>
internal static class Report
{
    public static string Table(IEnumerable<Measurement> measured)
    {
        var table = new StringBuilder("| what | Rendal | yardstick | ratio | aim |\n| --- | --- | --- | --- | --- |\n");
        foreach (var m in measured)
        {
            table.Append(
                CultureInfo.InvariantCulture,
                $"| {m.What} | {m.Rendal} | {m.Yardstick} |"
                    + $" {(m.Ratio is { } ratio ? ratio.ToString("0.00", CultureInfo.InvariantCulture) : "–")} | {m.Aim} |\n"
            );
        }

        return table.ToString();
    }

    private const string OfHistory = "## With two years of history";

    /// <summary>The page with another part on history in place of the one before.</summary>
    public static string WithHistory(string page, string table)
    {
        var at = page.IndexOf(OfHistory, StringComparison.Ordinal);
        return $"""
            {(at < 0 ? page : page[..at]).TrimEnd()}

            {OfHistory}

            Written by `./rendal bench history` on {DateTime.UtcNow:d MMMM yyyy}, {Environment.ProcessorCount} cores,
            {RuntimeInformation.FrameworkDescription}. A book with 24 ledgers of 100,000 rows and 24 rounds of 10,000 parcels with their
            log and reminders; then a book with a round of 50,000. Each figure is what 95 of 100 requests take at the most, over HTTP on
            this machine.

            {table}
            """;
    }

    public static string Page(string table) =>
        $"""
            # Benchmarks

            Written by `./rendal bench` on {DateTime.UtcNow:d MMMM yyyy}, {Environment.ProcessorCount} cores,
            {RuntimeInformation.FrameworkDescription}. Each yardstick is measured in the same run as Rendal's figure beside it, so
            the ratios can be compared between machines and the figures themselves cannot. Each figure is the median of several rounds.

            {table}
            """;
}
