using CsCheck;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Html;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Sealing;

public class SealerTests
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);
    private static readonly Firm Letterhead = new("Tarnbrook Linen Hire", ["14 Tenter Lane"], [], ["By transfer to account 00000000"]);
    private static readonly SentAs SentAs = new("Tarnbrook accounts", "accounts@tarnbrook.example", "", CopyToSelf: false);
    private static readonly Choice Choice = new() { AsOf = AsOf };

    private static readonly SealedContent Content = new(
        new Customer
        {
            Key = "H014",
            Name = "Inn at Kell",
            Extra = new Dictionary<string, string> { ["Delivery round"] = "N7", ["Loading bay"] = "B2" },
        },
        [Of(Row("H014", 100m, "2026-08-31", "2026-09-30", "T-1"), Row("H014", 100m, "2026-08-31", "2026-09-30", "T-2"))],
        [KeyValuePair.Create("H014", "Inn at Kell")],
        ["a@kell.example"],
        OnPaper: false,
        ReminderLevel: null,
        new Wording("Plain", "en", "Statement", "<p>Your statement.</p>"),
        LayoutReader.BuiltIn.Layout,
        Change: null
    );

    private static readonly ParcelSeal Seal = Sealer().Seal(Content);

    [Fact]
    public void The_same_sources_have_the_same_seal_in_whatever_order_and_form_they_come()
    {
        var card = Content.Card with
        {
            Extra = new Dictionary<string, string> { ["Loading bay"] = "B2", ["Delivery round"] = "N7" },
        };
        var again = Sealer()
            .Seal(
                Content with
                {
                    Card = card,
                    Statements =
                    [
                        Of(
                            Row("H014", 100.00m, "2026-08-31", "2026-09-30", "T-1"),
                            Row("H014", 100.0m, "2026-08-31", "2026-09-30", "T-2")
                        ),
                    ],
                }
            );
        Assert.Equal(Seal.Value, again.Value);
        Assert.Empty(Seal.Differing(again));
    }

    [Fact]
    public void What_stands_nowhere_in_the_parcel_changes_nothing() =>
        Assert.Empty(
            Seal.Differing(Sealer().Seal(Content with { Card = Content.Card with { Notes = "rings on Fridays", FromLedger = true } }))
        );

    [Fact]
    public void A_payment_set_against_another_item_changes_the_figures_though_no_sum_does()
    {
        var one = Sealer()
            .Seal(
                Content with
                {
                    Statements =
                    [
                        Of(Row("H014", 60m, "2026-08-31", "2026-09-30", "T-1"), Row("H014", 40m, "2026-08-31", "2026-09-30", "T-2")),
                    ],
                }
            );
        var other = Sealer()
            .Seal(
                Content with
                {
                    Statements =
                    [
                        Of(Row("H014", 40m, "2026-08-31", "2026-09-30", "T-1"), Row("H014", 60m, "2026-08-31", "2026-09-30", "T-2")),
                    ],
                }
            );
        Assert.Equal([SealPart.Figures], one.Differing(other));
    }

    [Theory]
    [InlineData(SealPart.Recipients)]
    [InlineData(SealPart.Card)]
    [InlineData(SealPart.ReminderLevel)]
    [InlineData(SealPart.Wording)]
    [InlineData(SealPart.Layout)]
    [InlineData(SealPart.Letterhead)]
    [InlineData(SealPart.Sender)]
    [InlineData(SealPart.Round)]
    public void Each_source_changes_its_own_part_and_the_seal(SealPart part)
    {
        var changed = part switch
        {
            SealPart.Recipients => Sealer().Seal(Content with { Recipients = ["b@kell.example"] }),
            SealPart.Card => Sealer().Seal(Content with { Card = Content.Card with { Salutation = "Dear Ines" } }),
            SealPart.ReminderLevel => Sealer().Seal(Content with { ReminderLevel = 2 }),
            SealPart.Wording => Sealer().Seal(Content with { Wording = Content.Wording with { Body = "<p>Please pay.</p>" } }),
            SealPart.Layout => Sealer().Seal(Content with { Layout = Content.Layout with { Accent = "#112233" } }),
            SealPart.Letterhead => new Sealer(
                "October",
                Choice,
                StatementRules.Default,
                Letterhead with
                {
                    PaymentLines = ["By transfer to account 99999999"],
                },
                SentAs
            ).Seal(Content),
            SealPart.Sender => new Sealer(
                "October",
                Choice,
                StatementRules.Default,
                Letterhead,
                SentAs with
                {
                    ReplyTo = "owner@tarnbrook.example",
                }
            ).Seal(Content),
            _ => new Sealer("November", Choice, StatementRules.Default, Letterhead, SentAs).Seal(Content),
        };
        Assert.Equal([part], Seal.Differing(changed));
        Assert.NotEqual(Seal.Value, changed.Value);
    }

    [Fact]
    public void What_was_changed_on_one_parcel_alone_changes_its_seal()
    {
        var to = new ParcelRecipients(["a@kell.example"], [], []);
        var copied = Sealer().Seal(Content with { Change = new ParcelChange { Recipients = to with { Copies = ["b@kell.example"] } } });
        var blind = Sealer()
            .Seal(Content with { Change = new ParcelChange { Recipients = to with { BlindCopies = ["b@kell.example"] } } });
        Assert.Equal([SealPart.Recipients], Seal.Differing(copied));
        Assert.Equal([SealPart.Recipients], copied.Differing(blind));
        var noted = Sealer().Seal(Content with { Change = new ParcelChange { DocumentNote = "as agreed" } });
        Assert.Equal([SealPart.Wording], Seal.Differing(noted));
        Assert.Empty(Seal.Differing(Sealer().Seal(Content with { Change = new ParcelChange() })));
    }

    [Fact]
    public void A_statement_of_branches_with_interest_and_movements_is_sealed_whole()
    {
        var part = Of(Row("H015", 10m, "2026-08-31", "2026-09-30", "T-9")) with
        {
            Forward = BroughtForward.Of([Row("H015", 10m, "2026-10-02", "2026-10-31", "T-9")], Period.MonthOf(AsOf)),
        };
        var gathered = Statement.Gather("H014", [Content.Statements[0], part]);
        var other = Statement.Gather("H014", [Content.Statements[0], part with { Forward = null }]);
        Assert.Equal(
            [SealPart.Figures],
            Sealer().Seal(Content with { Statements = [gathered] }).Differing(Sealer().Seal(Content with { Statements = [other] }))
        );
    }

    /// <summary>
    /// What was released before an update is sent after it: what is added to rows and statements says nothing by itself.
    /// </summary>
    [Fact]
    public void Figures_that_an_earlier_version_sealed_have_the_same_seal_now() =>
        Assert.Equal(
            "b2f0f9a13b4b204c9a7998d88412bbe4ac076a308bf49e043abfa15232421567",
            Convert.ToHexStringLower(Core.Sealing.Sealer.Figures(Content.Statements))
        );

    [Fact]
    public void What_a_person_saw_is_the_same_in_any_order_and_another_with_one_parcel_more_or_less_or_changed() =>
        Gen.Select(Gen.Long[1, 1_000_000], Gen.Int[0, 3])
            .Array[1, 8]
            .Where(p => p.Select(x => x.Item1).Distinct().Count() == p.Length)
            .Sample(
                parcels =>
                {
                    var seals = Enumerable
                        .Range(0, 5)
                        .Select(i => Sealer().Seal(Content with { Recipients = [$"{i}@kell.example"] }))
                        .ToArray();
                    var seen = parcels.Select(p => (p.Item1, (ParcelSeal?)seals[p.Item2])).ToList();
                    var digest = ParcelSeal.Digest(seen);
                    Assert.Equal(digest, ParcelSeal.Digest(Enumerable.Reverse(seen)));
                    Assert.NotEqual(digest, ParcelSeal.Digest(seen.Skip(1)));
                    Assert.NotEqual(digest, ParcelSeal.Digest(seen.Append((2_000_000, seals[0]))));
                    Assert.NotEqual(digest, ParcelSeal.Digest([(seen[0].Item1, seals[4]), .. seen.Skip(1)]));
                    Assert.NotEqual(digest, ParcelSeal.Digest([(seen[0].Item1, null), .. seen.Skip(1)]));
                },
                iter: 200
            );

    private static Sealer Sealer() => new("October", Choice, StatementRules.Default, Letterhead, SentAs);

    private static Statement Of(params LedgerRow[] rows) =>
        Statement.Of("H014", Pounds, rows.Select(r => new OpenItem(r, r.Open)), AsOf, AgeingRule.Default);
}
