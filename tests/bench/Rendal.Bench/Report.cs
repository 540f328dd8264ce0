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

    private const string OfRecognition = "## Ledgers read at sight";
    private const string OfHistory = "## With two years of history";

    /// <summary>The page with another part on what is read at sight in place of the one before.</summary>
    public static string WithRecognition(string page, string table)
    {
        var history = page.IndexOf(OfHistory, StringComparison.Ordinal);
        var rest = history < 0 ? "" : page[history..];
        var before = history < 0 ? page : page[..history];
        var at = before.IndexOf(OfRecognition, StringComparison.Ordinal);
        return $"""
            {(at < 0 ? before : before[..at]).TrimEnd()}

            {OfRecognition}

            Written by `./rendal bench recognition` on {DateTime.UtcNow:d MMMM yyyy}. Ledgers made at random, with columns in any order,
            columns beside them that nothing depends on, headings in one line or two, total lines and lines that name a customer, under
            headings of the trade in thirteen languages (`tests/Rendal.Trials/Ledgers`). Wholly right is each customer's total and each
            item's number, date and due date, without a setting.

            {table}
            {rest}
            """;
    }

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
