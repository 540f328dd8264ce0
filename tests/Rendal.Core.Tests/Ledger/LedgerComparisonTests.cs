using CsCheck;
using Rendal.Core.Ledger;

namespace Rendal.Core.Tests.Ledger;

public class LedgerComparisonTests
{
    private static readonly DateOnly Day = new(2026, 10, 1);

    [Fact]
    public void What_is_new_altered_settled_and_the_same_is_told_apart()
    {
        var before = new[] { Row("A", "T-1", 10), Row("A", "T-2", 20), Row("B", "T-3", 30), Row("B", "T-4", 40) };
        var after = new[] { Row("A", "T-1", 10), Row("A", "T-2", 5), Row("B", "T-4", 0), Row("C", "T-5", 7) };
        var comparison = LedgerComparison.Of(before, after, afterHasOpenItems: true);
        Assert.Equal(
            [(ItemChange.Altered, "T-2"), (ItemChange.Settled, "T-4"), (ItemChange.New, "T-5"), (ItemChange.Settled, "T-3")],
            comparison.Items.Select(i => (i.Change, i.Row.Number))
        );
        Assert.Equal((20m, 5m), (comparison.Items[0].Before!.Open, comparison.Items[0].After!.Open));
        Assert.Equal((4, 1), (comparison.Count, comparison.Unchanged));
        Assert.Equal([("B", 70m, 0m), ("A", 30m, 15m), ("C", 0m, 7m)], comparison.Customers.Select(c => (c.Customer, c.Before, c.After)));
    }

    [Fact]
    public void What_a_file_of_movements_no_longer_has_is_gone() =>
        Assert.Equal(
            ItemChange.Gone,
            Assert.Single(LedgerComparison.Of([Row("A", "T-1", 10)], [], afterHasOpenItems: false).Items).Change
        );

    [Fact]
    public void A_date_that_changed_is_an_alteration_too()
    {
        var item = Assert.Single(
            LedgerComparison.Of([Row("A", "T-1", 10)], [Row("A", "T-1", 10) with { Due = Day.AddDays(60) }], true).Items
        );
        Assert.Equal((ItemChange.Altered, Day.AddDays(30), Day.AddDays(60)), (item.Change, item.Before!.Due, item.After!.Due));
    }

    /// <summary>A text that is added to rows is compared, or said here to be no matter of the item.</summary>
    [Fact]
    public void Whatever_text_of_an_item_changed_is_an_alteration()
    {
        string[] whose = [nameof(LedgerRow.Customer), nameof(LedgerRow.CustomerName), nameof(LedgerRow.Number), nameof(LedgerRow.Email)];
        var texts = typeof(LedgerRow).GetProperties().Where(p => p.PropertyType == typeof(string) && !whose.Contains(p.Name)).ToList();
        Assert.NotEmpty(texts);
        foreach (var text in texts)
        {
            var changed = Row("A", "T-1", 10) with { };
            text.SetValue(changed, "another");
            var item = LedgerComparison.Of([Row("A", "T-1", 10)], [changed], true).Items.SingleOrDefault();
            Assert.True(item is { Change: ItemChange.Altered }, $"{text.Name} is not compared");
        }
    }

    [Fact]
    public void Rows_without_a_number_and_rows_that_stand_twice_are_matched_one_to_one()
    {
        var row = Row("A", "", 10);
        Assert.Equal((1, 1), Counts([row, row], [row]));
        Assert.Equal((1, 2), Counts([row, row], [row, row, row]));
        Assert.Equal((2, 0), Counts([row], [Row("A", "", 11)]));

        static (int, int) Counts(LedgerRow[] before, LedgerRow[] after) =>
            LedgerComparison.Of(before, after, true) is var c ? (c.Count, c.Unchanged) : default;
    }

    [Fact]
    public void The_sums_lead_from_the_old_ledger_to_the_new_one() =>
        Gen.Select(Rows(), Rows(), Gen.Bool)
            .Sample(
                (before, after, open) =>
                {
                    var comparison = LedgerComparison.Of(before, after, open);
                    Assert.Equal(after.Sum(r => r.Open), before.Sum(r => r.Open) + comparison.Sums.Sum(s => s.After - s.Before));
                    Assert.Equal(comparison.Count, comparison.Sums.Sum(s => s.Items));
                    Assert.Equal(after.Length, comparison.Unchanged + comparison.Items.Count(i => i.After is not null));
                    Assert.Equal(before.Length, comparison.Unchanged + comparison.Items.Count(i => i.Before is not null));
                    Assert.Empty(LedgerComparison.Of(after, after, open).Items);
                }
            );

    [Fact]
    public void A_file_of_another_firm_another_period_or_half_the_size_is_doubted()
    {
        var ledger = Outline(100, 40, Day);
        Assert.Empty(ledger.DoubtsAbout(Outline(90, 41, Day.AddDays(31))));
        Assert.Contains(
            "another firm",
            Assert.Single(
                ledger.DoubtsAbout(
                    new LedgerOutline(
                        90,
                        new HashSet<string> { "X1", "X2", "C1" }
                            .Union(Enumerable.Range(0, 20).Select(i => $"Y{i}"))
                            .ToHashSet(),
                        Day
                    )
                )
            ),
            StringComparison.Ordinal
        );
        Assert.Contains("another period", Assert.Single(ledger.DoubtsAbout(Outline(90, 40, Day.AddDays(-1)))), StringComparison.Ordinal);
        Assert.Contains("another period", Assert.Single(ledger.DoubtsAbout(Outline(90, 40, Day.AddDays(93)))), StringComparison.Ordinal);
        Assert.Contains(
            "It has 49 rows, the ledger as it is has 100",
            Assert.Single(ledger.DoubtsAbout(Outline(49, 40, Day))),
            StringComparison.Ordinal
        );
        Assert.Empty(Outline(9, 3, Day).DoubtsAbout(Outline(1, 1, Day)));
    }

    private static LedgerOutline Outline(int rows, int customers, DateOnly newest) =>
        new(rows, Enumerable.Range(0, customers).Select(i => $"C{i}").ToHashSet(), newest);

    private static Gen<LedgerRow[]> Rows() =>
        Gen.Select(Gen.Int[0, 3], Gen.Int[0, 6], Gen.Int[-3, 3]).Select((c, n, a) => Row($"C{c}", n == 0 ? "" : $"T-{n}", a)).Array[0, 12];

    private static LedgerRow Row(string customer, string number, decimal open) =>
        new()
        {
            Customer = customer,
            CustomerName = "",
            Kind = ItemKind.Invoice,
            Number = number,
            Date = Day,
            Due = Day.AddDays(30),
            Currency = Ledgers.Pounds,
            Original = open,
            Open = open,
            Source = new SourceRef("ledger.csv", null, 2),
        };
}
