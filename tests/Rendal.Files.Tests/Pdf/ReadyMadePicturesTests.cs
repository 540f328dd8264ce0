using System.Text;
using System.Text.RegularExpressions;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Core.Tests;
using Rendal.Core.Wordings;
using Rendal.Files.Pdf;
using Rendal.Html;
using SkiaSharp;

namespace Rendal.Files.Tests.Pdf;

/// <summary>
/// The first page of each ready-made layout, as another program draws the PDF, against the picture that a person has looked at and kept.
/// Run with <c>RENDAL_KEEP_PICTURES=1</c> to keep new ones after a change that is meant; a picture that differs is left in
/// artifacts/ready-made, to be compared.
/// </summary>
public sealed partial class ReadyMadePicturesTests(ReadyMadePages pages) : IClassFixture<ReadyMadePages>
{
    private const string Moved = "moved";

    // Where edges are smoothed, machines differ a little.
    private const int MostAway = 48;
    private const double MostPoints = 0.0004;

    private static readonly string Folder = Path.Combine(Repository.Root, "tests", "ready-made");

    private static readonly Firm Tarnbrook = new(
        "Tarnbrook Linen Hire",
        ["Northgate Laundry, 14 Tenter Lane", "Kelby KB1 2LH"],
        ["accounts@tarnbrook.example"],
        ["Bank of Kelby, DE89 3704 0044 0532 0130 00", "Please quote your account."]
    );

    public static TheoryData<string, string> Layouts() =>
        [
            .. ReadyMade
                .All.Select(r => (r.Language, r.Layout.Name))
                .Concat(Language.All.SelectMany(l => new[] { (l.Code, "Statement"), (l.Code, "Brought forward") })),
        ];

    [Theory]
    [MemberData(nameof(Layouts))]
    public void It_looks_as_it_did_when_somebody_looked_at_it(string language, string name)
    {
        var drawn = pages.Drawn(FileOf(language, name));
        var kept = Path.Combine(Folder, $"{FileOf(language, name)}.png");
        if (Environment.GetEnvironmentVariable("RENDAL_KEEP_PICTURES") == "1")
        {
            Directory.CreateDirectory(Folder);
            File.WriteAllBytes(kept, drawn);
        }

        var share = Share(File.ReadAllBytes(kept), drawn);
        if (share > MostPoints)
        {
            var differing = Directory.CreateDirectory(Path.Combine(Repository.Root, "artifacts", "ready-made")).FullName;
            File.WriteAllBytes(Path.Combine(differing, Path.GetFileName(kept)), drawn);
        }

        Assert.True(share <= MostPoints, $"{share:P2} of its points differ from {Path.GetFileName(kept)}");
    }

    [Fact]
    public void A_word_in_another_place_is_noticed() =>
        Assert.True(Share(pages.Drawn(FileOf("en", "Statement")), pages.Drawn(Moved)) > MostPoints);

    /// <summary>The documents that are compared, and one on which the address has moved, by the name of their file.</summary>
    internal static IEnumerable<(string File, byte[] Pdf)> Documents()
    {
        using var renderer = new DocumentRenderer();
        foreach (var (language, name) in Layouts().Select(row => row.Data))
        {
            var layout = ReadyMade.All.FirstOrDefault(r => r.Language == language && r.Layout.Name == name)?.Layout ?? Layout.BuiltIn;
            yield return (FileOf(language, name), renderer.Print(Document(layout, language, name == "Brought forward"), layout));
        }

        var moved = Layout.BuiltIn with
        {
            Parts = [.. Layout.BuiltIn.Parts.Select(p => p is AddressPart ? new AddressPart { Left = 20 } : p)],
        };
        yield return (Moved, renderer.Print(Document(moved, "en", false), moved));
    }

    private static string FileOf(string language, string name) =>
        $"{language}-{NotAscii().Replace(name.ToLowerInvariant().Normalize(NormalizationForm.FormD), "")}";

    /// <summary>The share of points that differ by more than smoothing can.</summary>
    private static double Share(byte[] a, byte[] b)
    {
        using var first = SKBitmap.Decode(a);
        using var second = SKBitmap.Decode(b);
        Assert.Equal((first.Width, first.Height), (second.Width, second.Height));
        var differing = first
            .Pixels.Zip(second.Pixels)
            .Count(p =>
                Math.Abs(p.First.Red - p.Second.Red) > MostAway
                || Math.Abs(p.First.Green - p.Second.Green) > MostAway
                || Math.Abs(p.First.Blue - p.Second.Blue) > MostAway
            );
        return (double)differing / (first.Width * first.Height);
    }

    private static StatementDocument Document(Layout layout, string language, bool isForward)
    {
        var euro = Currency.Of("EUR");
        LedgerRow[] rows =
        [
            Row(1, 812.4m, "2026-07-14"),
            Row(2, 304.94m, "2026-08-15"),
            Row(3, -36m, "2026-08-20"),
            Row(4, 1291.68m, "2026-09-29"),
            Row(5, 87.61m, "2026-10-05"),
        ];
        var asOf = new DateOnly(2026, 10, 31);
        var statement = Statement.Of("KR04", euro, rows.Select(r => new OpenItem(r, r.Open)), asOf, AgeingRule.Default);
        Statement[] statements =
        [
            isForward ? statement with { Forward = BroughtForward.Of(rows, new Period(new DateOnly(2026, 9, 1), asOf)) } : statement,
        ];
        int? level = layout.Name.FirstOrDefault(char.IsAsciiDigit) is var digit and not '\0' ? digit - '0' : null;
        var customer = new Customer
        {
            Key = "KR04",
            Name = "Gasthof zur Krone",
            Contacts = [new Contact { Name = "Łucja Brandt", Title = "Ms" }],
            PostalLines = ["Am Kai 5", "24937 Flensburg"],
            Language = language,
        };
        return StatementDocument.Of(
            customer,
            statements,
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.Read(layout),
            ParcelSlots.Of(customer, statements, Tarnbrook, "Credit control", new RoundIdentity("October"), level),
            level
        );

        LedgerRow Row(int n, decimal amount, string date) =>
            new()
            {
                Customer = "KR04",
                CustomerName = "Gasthof zur Krone",
                Kind = amount < 0 ? ItemKind.CreditNote : ItemKind.Invoice,
                Number = $"T-{20_180 + n}",
                Date = DateOnly.Parse(date, System.Globalization.CultureInfo.InvariantCulture),
                Due = DateOnly.Parse(date, System.Globalization.CultureInfo.InvariantCulture).AddDays(30),
                Currency = euro,
                Original = amount,
                Open = amount,
                Reference = $"PO {4400 + n}",
                Source = new SourceRef("f", null, n),
            };
    }

    [GeneratedRegex("[^a-z0-9]")]
    private static partial Regex NotAscii();
}
