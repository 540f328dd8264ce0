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
            table.Append(CultureInfo.InvariantCulture, $"| {m.What} | {m.Rendal} | {m.Yardstick} | {(m.Ratio is { } ratio ? ratio.ToString("0.00", CultureInfo.InvariantCulture) : "–")} | {m.Aim} |\n");
        }

        return table.ToString();
    }

    public static string Page(string table) =>
        $"""
        # Benchmarks

        Written by `./rendal bench` on {DateTime.UtcNow:d MMMM yyyy}, {Environment.ProcessorCount} cores, {RuntimeInformation.FrameworkDescription}.
        Each yardstick is measured in the same run as Rendal's figure beside it, so the ratios can be compared between
        machines and the figures themselves cannot. Each figure is the median of several rounds.

        {table}
        """;
}
