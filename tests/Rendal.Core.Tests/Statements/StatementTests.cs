using System.Globalization;
using CsCheck;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Statements;

public class StatementTests
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);

    [Fact]
    public void Items_are_aged_and_credits_stand_apart()
    {
        var statement = Of(
            Row("H014", 400m, "2026-10-15", "2026-11-14", "T-3"),
            Row("H014", 500m, "2026-08-31", "2026-09-30", "T-1"),
            Row("H014", 400m, "2026-05-01", "2026-05-31", "T-2"),
            Row("H014", -60m, "2026-09-09", "2026-09-09", "C-1")
        );
        Assert.Equal([400m, 0m, 500m, 0m, 400m], statement.Ageing.Bands);
        Assert.Equal(-60m, statement.Ageing.Credits);
        Assert.Equal(1240m, statement.Total);
        Assert.Equal(900m, statement.Overdue);
        Assert.Equal(153, statement.OldestDaysPastDue);
    }

    [Fact]
    public void Credits_can_stand_in_the_band_of_their_own_age_without_making_less_overdue()
    {
        var rule = new AgeingRule([30, 60, 90], AgeBy.Due, creditsByDate: true);
        var rows = new[]
        {
            Row("H014", 500m, "2026-08-31", "2026-09-30"),
            Row("H014", 400m, "2026-10-15", "2026-11-14"),
            Row("H014", -60m, "2026-09-09", "2026-12-01"),
            Row("H014", -25m, "2026-10-31"),
        };
        var statement = Statement.Of("H014", Pounds, rows.Select(r => new OpenItem(r, r.Open)), AsOf, rule);
        Assert.Equal([375m, 0m, 440m, 0m, 0m], statement.Ageing.Bands);
        Assert.Equal((0m, 815m, 500m), (statement.Ageing.Credits, statement.Total, statement.Overdue));
    }

    [Fact]
    public void Items_are_in_order_of_due_date_date_and_number()
    {
        var statement = Of(
            Row("A", 1m, "2026-09-02", "2026-09-30", "b"),
            Row("A", 1m, "2026-09-01", "2026-09-30", "z"),
            Row("A", 1m, "2026-09-02", "2026-09-30", "B"),
            Row("A", 1m, "2026-09-05", "2026-09-10", "c")
        );
        Assert.Equal(["c", "z", "B", "b"], statement.Items.Select(i => i.Row.Number));
    }

    [Fact]
    public void By_document_date_the_band_is_older_and_nothing_is_overdue_before_it_is_due()
    {
        var open = new OpenItem(Row("A", 10m, "2026-10-01", "2026-11-30"), 10m);
        var statement = Statement.Of("A", Pounds, [open], AsOf, ByDocument);
        Assert.Equal((-30, 1), (statement.Items[0].DaysPastDue, statement.Items[0].Band));
        Assert.Equal((0m, 0), (statement.Overdue, statement.OldestDaysPastDue));
        Assert.Equal([0m, 10m, 0m, 0m, 0m], statement.Ageing.Bands);
        Assert.Equal(0, Statement.Of("A", Pounds, [open], AsOf, AgeingRule.Default).Items[0].Band);
    }

    /// <summary>Over random items: the ageing rule moves sums between bands, and changes no day, no total and no interest.</summary>
    [Fact]
    public void How_a_book_ages_changes_no_more_than_the_bands()
    {
        var item = Gen.Select(Gen.Int[-50, 200], Gen.Int[-200, 100], Gen.Int[0, 90], Gen.Bool, (amount, date, terms, hasDate) =>
        {
            var day = AsOf.AddDays(date);
            var row = Row(
                "A",
                amount,
                day.ToString("O", CultureInfo.InvariantCulture),
                day.AddDays(terms).ToString("O", CultureInfo.InvariantCulture)
            );
            return new OpenItem(hasDate ? row : row with { Date = null }, amount);
        });
        item.Array[0, 8]
            .Sample(open =>
            {
                var byDue = Statement.Of("A", Pounds, open, AsOf, AgeingRule.Default);
                var byDocument = Statement.Of("A", Pounds, open, AsOf, ByDocument);
                Assert.Equal(
                    byDue.Items.Select(i => (i.Row, i.Open, i.DaysPastDue)),
                    byDocument.Items.Select(i => (i.Row, i.Open, i.DaysPastDue))
                );
                Assert.Equal(
                    (byDue.Total, byDue.Overdue, byDue.OldestDaysPastDue),
                    (byDocument.Total, byDocument.Overdue, byDocument.OldestDaysPastDue)
                );
                Assert.Equal(
                    InterestLine.On(byDue, 8).Select(i => (i.Days, i.Amount)),
                    InterestLine.On(byDocument, 8).Select(i => (i.Days, i.Amount))
                );
            });
    }

    [Fact]
    public void What_is_settled_is_not_listed()
    {
        Assert.Empty(Statement.Of("A", Pounds, [new OpenItem(Row("A", 10m, "2026-10-01"), 0m)], AsOf, AgeingRule.Default).Items);
    }

    private static AgeingRule ByDocument => new([30, 60, 90], AgeBy.Document);

    private static Statement Of(params Rendal.Core.Ledger.LedgerRow[] rows) =>
        Statement.Of(rows[0].Customer, Pounds, rows.Select(r => new OpenItem(r, r.Open)), AsOf, AgeingRule.Default);
}
