using System.Diagnostics;
using System.Globalization;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Files.Pdf;
using Rendal.Html;
using Rendal.Mail;

namespace Rendal.Bench;

/// <summary>Statement documents of one page with 30 rows, against headless Chromium printing the same page to PDF.</summary>
internal static class DocumentsBench
{
    private const int Documents = 1_000;
    private const int ByChromium = 40;

    public static IReadOnlyList<Measurement> Run()
    {
        var documents = Enumerable.Range(0, Documents).Select(Document).ToList();
        var size = 0L;
        var (twoThreads, oneThread) = Rounds.InTurns(3, () => size = Print(documents, 2), () => Print(documents, 1));
        var rate = Documents / twoThreads;
        var chromium = ByChromiumASecond(documents[0]);
        return
        [
            new Measurement(
                "statement documents of 30 rows, two threads",
                $"{rate:0} a second",
                chromium is { } c ? $"Chromium {c:0.0} a second" : "Chromium is not installed",
                rate / chromium,
                "≥ 25, and ≥ 300 a second"
            ),
            new Measurement("the same, one thread", $"{Documents / oneThread:0} a second", "–", null, "–"),
            new Measurement("memory grown over 10,000 such documents of as many customers", $"{Grown():0} MB", "–", null, "flat"),
            new Measurement("size of such a document", $"{size / Documents / 1000.0:0.0} kB", "–", null, "≤ 40 kB"),
        ];
    }

    private static long Print(List<StatementDocument> documents, int threads)
    {
        long size = 0;
        Parallel.ForEach(Enumerable.Range(0, threads), new ParallelOptions { MaxDegreeOfParallelism = threads }, thread =>
        {
            using var press = new DocumentRenderer();
            for (var i = thread; i < documents.Count; i += threads)
            {
                Interlocked.Add(ref size, press.Print(documents[i], Layout.BuiltIn).Length);
            }
        });
        return size;
    }

    /// <summary>
    /// How many megabytes the process has grown between the first thousand documents of one press and ten thousand more.
    /// </summary>
    private static double Grown()
    {
        using var press = new DocumentRenderer();
        var before = After(Documents);
        return (After(Documents * 10) - before) / 1_000_000.0;

        long After(int documents)
        {
            for (var i = 0; i < documents; i++)
            {
                press.Print(Document(documents + i), Layout.BuiltIn);
            }

            GC.Collect();
            GC.WaitForPendingFinalizers();
            GC.Collect();
            using var process = Process.GetCurrentProcess();
            return process.WorkingSet64;
        }
    }

    /// <summary>Documents a second that one running Chromium prints, told to by Playwright; null where it is not installed.</summary>
    private static double? ByChromiumASecond(StatementDocument document)
    {
        var page = Path.GetTempFileName();
        try
        {
            File.WriteAllText(page, MessageBuilder.Page(StatementTable.Html(document), "en", document.Title));
            return Chromium.Run("print-pages.mjs", page, ByChromium.ToString(CultureInfo.InvariantCulture))?.Single();
        }
        finally
        {
            File.Delete(page);
        }
    }

    private static StatementDocument Document(int number)
    {
        var rows = BenchLedger
            .Rows(30, 1)
            .Select(
                (row, i) =>
                    row with
                    {
                        Number = $"T-{(number * 30) + i}",
                        Kind = ItemKind.Invoice,
                        Original = Math.Abs(row.Original),
                        Open = Math.Abs(row.Open),
                    }
            )
            .ToList();
        var statements = Choosing
            .Choose(rows, [], new Choice { AsOf = BenchLedger.AsOf }, SettlementRule.None, StatementRules.Default, _ => new Reachability(
                false,
                true,
                null
            ))
            .Statements;
        var customer = new Customer
        {
            Key = $"C{number}",
            Name = $"Hotel Łabędź {number}",
            Contacts = [new Contact { Name = "Marek Wójcik", Title = "Mr" }],
            PostalLines = ["83 Tenter Lane", "Saltness SN1 5HL"],
        };
        return StatementDocument.Of(
            customer,
            statements,
            AgeingRule.Default,
            new Firm(
                "Tarnbrook Linen Hire",
                ["14 Tenter Lane", "Kelby KB1 2LH"],
                ["accounts@tarnbrook.example"],
                ["By transfer to account 00000000."]
            ),
            LayoutReader.BuiltIn
        );
    }
}
