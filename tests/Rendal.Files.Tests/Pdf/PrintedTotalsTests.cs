using System.Globalization;
using System.Text.RegularExpressions;
using CsCheck;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Tests;
using Rendal.Files.Pdf;
using Rendal.Html;
using UglyToad.PdfPig;
using UglyToad.PdfPig.DocumentLayoutAnalysis.TextExtractor;

namespace Rendal.Files.Tests.Pdf;

public partial class PrintedTotalsTests
{
    private static readonly Firm Tarnbrook = new("Tarnbrook Linen Hire", ["1 Mill Lane"], [], ["By transfer"]);

    [Fact]
    public void The_totals_on_the_documents_of_any_ledger_come_to_what_the_proof_says()
    {
        var choice = new Choice { AsOf = new DateOnly(2026, 10, 31) };
        RandomLedger
            .OfCustomers(6)
            .Sample(
                rows =>
                {
                    var round = Choosing.Choose(rows, [], choice, SettlementRule.None, StatementRules.Default, _ => new Reachability(
                        false,
                        true,
                        null
                    ));
                    using var renderer = new DocumentRenderer();
                    var printed = round.Statements.GroupBy(s => s.Customer).SelectMany(of => Totals(renderer, of.Key, [.. of])).ToList();
                    foreach (var proof in round.Proof)
                    {
                        Assert.Equal(0m, proof.Difference);
                        Assert.Equal(proof.Statements, printed.Where(t => t.Sign == proof.Currency.Sign).Sum(t => t.Total));
                        Assert.Equal(proof.Ledger, printed.Where(t => t.Sign == proof.Currency.Sign).Sum(t => t.Total) + proof.LeftOut);
                    }
                },
                iter: 150,
                threads: 1
            );
    }

    private static IEnumerable<(string Sign, decimal Total)> Totals(
        DocumentRenderer renderer,
        string customer,
        IReadOnlyList<Statement> statements
    )
    {
        var document = StatementDocument.Of(
            new Customer { Key = customer, Name = customer },
            statements,
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.BuiltIn
        );
        using var pdf = PdfDocument.Open(renderer.Print(document, Layout.BuiltIn));
        var text = string.Join('\n', pdf.GetPages().Select(page => ContentOrderTextExtractor.GetText(page)));
        var totals = Total()
            .Matches(text)
            .Select(m =>
                (
                    m.Groups[1].Value,
                    decimal.Parse(
                        m.Groups[2].Value,
                        NumberStyles.AllowThousands | NumberStyles.AllowDecimalPoint,
                        CultureInfo.InvariantCulture
                    )
                )
            )
            .ToList();
        Assert.Equal(statements.Count, totals.Count);
        return totals;
    }

    [GeneratedRegex(@"Total outstanding\s*([£€])([\d,]+\.\d\d)")]
    private static partial Regex Total();
}
