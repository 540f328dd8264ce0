using System.Diagnostics;
using System.Globalization;
using Rendal.Core.Enclosures;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Files.Enclosures;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Fonts.Standard14Fonts;
using UglyToad.PdfPig.Writer;

namespace Rendal.Bench;

/// <summary>Finding thirty thousand copies for ten thousand parcels, and parting one PDF of three thousand pages.</summary>
internal static class EnclosuresBench
{
    private const int Parcels = 10_000;
    private const int CopiesOfEach = 3;
    private const int Pages = 3_000;

    public static IReadOnlyList<Measurement> Run() => [Matching(), Parting()];

    private static Measurement Matching()
    {
        var statements = Enumerable.Range(0, Parcels).Select(StatementOf).ToList();
        var watch = Stopwatch.StartNew();
        var numbers = new DocumentNumbers(LedgerDocument.Of(statements.SelectMany(s => s.Items).Select(i => i.Row)));
        var names = Enumerable.Range(0, Parcels * CopiesOfEach).Select(i => $"Tarnbrook {NumberOf(i)} inn {i / CopiesOfEach}").ToList();
        var recognition = new CopyRecognition(numbers, NamePattern.Propose([.. names.Take(2_000)], numbers));
        var files = names
            .AsParallel()
            .AsOrdered()
            .Select(
                (name, i) =>
                    new EnclosureFile(
                        i + 1,
                        $"{name}.pdf",
                        i.ToString("x64", CultureInfo.InvariantCulture),
                        30_000,
                        "application/pdf",
                        EnclosureUse.Copy
                    )
                    {
                        Recognised = recognition.Of(name, TextOf(i)),
                    }
            )
            .ToList();
        var finder = new EnclosureFinder(new Enclosing { Copies = CopyForm.Single }, CopyMatching.Of(files, numbers), []);
        Check(statements.AsParallel().All(s => finder.Of(s.Customer, [s], [], []).Files.Count == CopiesOfEach));
        return new Measurement(
            $"{Parcels * CopiesOfEach:N0} copies found by name and text for {Parcels:N0} parcels",
            $"{watch.Elapsed.TotalSeconds:0.0} s",
            "–",
            null,
            "≤ 20 s"
        );
    }

    private static Measurement Parting()
    {
        var ledger = Enumerable.Range(0, Pages / 2).Select(i => new LedgerDocument(NumberOf(i), $"I{i}", $"Inn {i}"));
        var pdf = PdfOf(Pages);
        GC.Collect();
        using var process = Process.GetCurrentProcess();
        var before = process.WorkingSet64;
        var watch = Stopwatch.StartNew();
        using var pages = PdfPages.Open("invoices.pdf", pdf);
        var texts = Enumerable.Range(1, pages.Count).Select(pages.Text).ToList();
        var parts = PagePart.Of(texts, new CopyRecognition(new DocumentNumbers(ledger), null));
        var size = parts.Sum(p => (long)pages.Part("invoices.pdf", p.From, p.To).Length);
        Check(parts.Count == Pages / 2 && parts.All(p => p.Recognised.Number.Length > 0) && size > 0);
        process.Refresh();
        return new Measurement(
            $"a PDF of {Pages:N0} pages and {pdf.Length / 1e6:0.0} MB parted in {parts.Count:N0}",
            $"{watch.Elapsed.TotalSeconds:0.0} s, {(process.WorkingSet64 - before) / 1e6:0} MB more",
            "–",
            null,
            "≤ 60 s"
        );
    }

    private static string NumberOf(int i) => string.Create(CultureInfo.InvariantCulture, $"TL-{100_000 + i}");

    private static string TextOf(int i) =>
        $"Tarnbrook Linen Hire\n14 Tenter Lane\nInvoice {NumberOf(i)}\nInn {i / CopiesOfEach}\n"
        + string.Join('\n', Enumerable.Range(0, 30).Select(line => $"{line + 1} table linen, hire of a week 4,{line:000}.50 GBP"));

    private static Statement StatementOf(int customer) =>
        Statement.Of(
            $"I{customer}",
            Currency.Of("GBP"),
            Enumerable
                .Range(customer * CopiesOfEach, CopiesOfEach)
                .Select(i => new OpenItem(
                    new LedgerRow
                    {
                        Customer = $"I{customer}",
                        CustomerName = $"Inn {customer}",
                        Kind = ItemKind.Invoice,
                        Number = NumberOf(i),
                        Date = BenchLedger.AsOf,
                        Due = BenchLedger.AsOf,
                        Currency = Currency.Of("GBP"),
                        Original = 10,
                        Open = 10,
                        Source = new SourceRef("ledger.csv", null, i + 2),
                    },
                    10
                )),
            BenchLedger.AsOf,
            AgeingRule.Default
        );

    private static byte[] PdfOf(int count)
    {
        using var builder = new PdfDocumentBuilder();
        var font = builder.AddStandard14Font(Standard14Font.Helvetica);
        for (var i = 0; i < count; i++)
        {
            var page = builder.AddPage(PageSize.A4);
            var lines = i % 2 == 0 ? TextOf(i / 2) : "terms of hire";
            foreach (var (line, at) in lines.Split('\n').Select((line, at) => (line, at)))
            {
                page.AddText(line, 9, new PdfPoint(60, 800 - (14 * at)), font);
            }
        }

        return builder.Build();
    }

    private static void Check(bool holds)
    {
        if (!holds)
        {
            throw new InvalidOperationException("What was measured did not come out right.");
        }
    }
}
