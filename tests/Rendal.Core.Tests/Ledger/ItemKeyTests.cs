using Rendal.Core.Ledger;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Ledger;

public class ItemKeyTests
{
    [Fact]
    public void An_item_with_a_number_is_known_by_it_whatever_else_changed()
    {
        var before = Row("AB01", 100m, "2026-09-01", "2026-10-01", "T-1");
        Assert.Equal(
            ItemKey.Of(before).Text,
            ItemKey
                .Of(
                    before with
                    {
                        Open = 40m,
                        Due = new(2026, 10, 8),
                        Held = "short delivery",
                        Source = new SourceRef("next.csv", null, 9),
                    }
                )
                .Text
        );
        Assert.NotEqual(ItemKey.Of(before).Text, ItemKey.Of(before with { Customer = "BE02" }).Text);
        Assert.NotEqual(ItemKey.Of(before).Text, ItemKey.Of(before with { Kind = ItemKind.Payment }).Text);
        Assert.NotEqual(ItemKey.Of(before).Text, ItemKey.Of(before with { Currency = Euro }).Text);
    }

    [Fact]
    public void Without_a_number_it_is_known_by_its_date_and_amount()
    {
        var payment = Row("AB01", -100m, "2026-09-01");
        Assert.Equal(ItemKey.Of(payment).Text, ItemKey.Of(payment with { Open = -30m, Original = -100.00m }).Text);
        Assert.NotEqual(ItemKey.Of(payment).Text, ItemKey.Of(payment with { Original = -90m }).Text);
        Assert.NotEqual(ItemKey.Of(payment).Text, ItemKey.Of(payment with { Date = new(2026, 9, 2) }).Text);
    }
}
