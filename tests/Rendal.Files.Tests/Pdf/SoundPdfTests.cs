using System.Diagnostics;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Files.Pdf;
using Rendal.Files.Post;
using Rendal.Html;

namespace Rendal.Files.Tests.Pdf;

/// <summary>Every kind of PDF that is made, looked through by a program that knows the format: Debian's qpdf.</summary>
public class SoundPdfTests
{
    private static readonly Firm Tarnbrook = new(
        "Tarnbrook Linen Hire",
        ["1 Mill Lane", "Kelby KB1 2LH"],
        ["accounts@tarnbrook.example"],
        ["Bank of Kelby, 12345678"]
    );

    [Theory]
    [InlineData(1)]
    [InlineData(95)]
    public void A_statement_is_sound_by_every_ready_made_layout(int items)
    {
        using var renderer = new DocumentRenderer();
        foreach (var layout in ReadyMade.All.Select(l => l.Layout).Append(Layout.BuiltIn))
        {
            Demand(renderer.Print(Document(layout, items), layout, TestContext.Current.CancellationToken));
        }
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void A_bundle_for_the_post_is_sound_with_its_empty_pages(bool bothSides)
    {
        using var renderer = new DocumentRenderer();
        var pieces = new[] { 1, 40, 3 }
            .Select(
                (items, i) =>
                    new PostPiece(
                        $"K{i}",
                        "The Inn",
                        ["1 Mill Lane", "Kelby KB1 2LH"],
                        "",
                        renderer.Print(Document(Layout.BuiltIn, items), Layout.BuiltIn, TestContext.Current.CancellationToken)
                    )
            )
            .ToList();
        using var stream = new MemoryStream();
        PostBundle.Write(stream, "October", pieces, bothSides);
        Demand(stream.ToArray());
    }

    private static StatementDocument Document(Layout layout, int items)
    {
        var customer = new Customer { Key = "H014", Name = "Łabędź & Sons" };
        Statement[] statements =
        [
            Statement.Of(
                "H014",
                Currency.Of("GBP"),
                Enumerable.Range(1, items).Select(n => Row(n)).Select(r => new OpenItem(r, r.Open)),
                new DateOnly(2026, 10, 31),
                AgeingRule.Default
            ),
        ];
        return StatementDocument.Of(
            customer,
            statements,
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.Read(layout),
            ParcelSlots.Of(customer, statements, Tarnbrook, "Marta", new RoundIdentity("October"), null)
        );
    }

    private static LedgerRow Row(int n) =>
        new()
        {
            Customer = "H014",
            CustomerName = "The Inn",
            Kind = ItemKind.Invoice,
            Number = $"T-{n:0000}",
            Date = new DateOnly(2026, 8, 1),
            Due = new DateOnly(2026, 9, 1),
            Currency = Currency.Of("GBP"),
            Original = n,
            Open = n,
            Reference = "",
            Held = "",
            Unit = "",
            Email = "",
            Extra = ExtraColumns.None,
            Source = new SourceRef("ledger.csv", null, n),
        };

    private static void Demand(byte[] pdf)
    {
        var program = new[] { "/usr/bin/qpdf", "/usr/local/bin/qpdf" }.FirstOrDefault(File.Exists);
        Assert.SkipWhen(program is null, "qpdf is not installed: apt-get install qpdf");
        var path = Path.GetTempFileName();
        try
        {
            File.WriteAllBytes(path, pdf);
            using var check = Process.Start(
                new ProcessStartInfo(program!, ["--check", path]) { RedirectStandardOutput = true, RedirectStandardError = true }
            )!;
            var (said, complained) = (check.StandardOutput.ReadToEnd(), check.StandardError.ReadToEnd());
            check.WaitForExit();
            Assert.True(check.ExitCode == 0, said + complained);
        }
        finally
        {
            File.Delete(path);
        }
    }
}
