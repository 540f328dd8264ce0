using System.Diagnostics;
using System.Globalization;
using Rendal.Core.Intake;
using Rendal.Trials.Ledgers;

namespace Rendal.Bench;

/// <summary>How many ledgers under headings of the trade are read wholly right without a setting, and what that costs.</summary>
internal static class RecognitionBench
{
    private const int Files = 10_000;

    public static IReadOnlyList<Measurement> Run()
    {
        var trials = Enumerable.Range(1, Files).AsParallel().Select(seed => LedgerTrial.Of(seed, TradeHeadings.All)).ToList();
        var unlisted = trials.Where(t => t.IsUnknown).ToList();
        var listed = Enumerable.Range(1, Files / 5).AsParallel().Select(seed => LedgerTrial.Of(seed, TradeHeadings.Listed)).ToList();
        return
        [
            Share("under headings that no list contains", unlisted, "≥ 95 of 100"),
            .. unlisted
                .GroupBy(t => t.Ledger.Language)
                .OrderBy(g => g.Key, StringComparer.Ordinal)
                .Select(g => Share($"the same, in {CultureInfo.GetCultureInfo(g.Key).EnglishName}", [.. g], "–")),
            Share("under headings that the lists contain", listed, "≥ 99 of 100"),
            new(
                $"of {trials.Count:N0}, a wrong total taken as sure",
                trials.Count(t => t.IsWrongAndSure).ToString(CultureInfo.InvariantCulture),
                "–",
                null,
                "0"
            ),
            new("finding out what the columns of 100,000 rows are", $"{Took():0} ms", "–", null, "≤ 200 ms"),
        ];
    }

    private static Measurement Share(string what, List<LedgerTrial> trials, string aim) =>
        new(
            $"{what}: read wholly right",
            string.Create(
                CultureInfo.InvariantCulture,
                $"{trials.Count(t => t.IsRight) * 100.0 / trials.Count:0.0} of 100 ({trials.Count:N0} files, {trials.Count(t => t.IsAsked)} asked)"
            ),
            "–",
            null,
            aim
        );

    private static double Took()
    {
        var rows = Enumerable
            .Range(0, 100_000)
            .Select(i => new FileRow(
                i + 2,
                [
                    Cell.Of($"C{i / 10:00000}"),
                    Cell.Of($"Inn number {i / 10}"),
                    Cell.Of($"T-{i:000000}"),
                    Cell.Of($"{(i % 28) + 1:00}/09/2026"),
                    Cell.Of($"{(i % 28) + 1:00}/10/2026"),
                    Cell.Of($"{i % 3_000}.{i % 100:00}"),
                    Cell.Of($"{i % 3_000}.{i % 100:00}"),
                ]
            ))
            .Prepend(new FileRow(1, [.. "Acct ID|Purchaser|Trx|Posted|Due by|Amt|Amt outstanding".Split('|').Select(Cell.Of)]))
            .ToList();
        var table = new LedgerTable("ledger.csv", null, rows);
        var times = new List<double>();
        for (var i = 0; i < 7; i++)
        {
            var watch = Stopwatch.StartNew();
            if (Recognition.Outline(table, ReadingChange.None)?.Of(ColumnMeaning.Outstanding)?.Heading != "Amt outstanding")
            {
                throw new InvalidOperationException("What was measured did not come out right.");
            }

            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        return times.Order().ElementAt(times.Count / 2);
    }
}
