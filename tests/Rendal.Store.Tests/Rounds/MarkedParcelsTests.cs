using Rendal.Core.Money;
using Rendal.Store.Rounds;

namespace Rendal.Store.Tests.Rounds;

public sealed class MarkedParcelsTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Marked_parcels_are_counted_and_summed_and_those_of_another_round_are_not()
    {
        var book = await postgres.NewBookAsync();
        var round = (await book.PreparedAsync("AB01", "BE02", "CA01")).Round;
        var other = (await book.PreparedAsync("DU04")).Round;
        await book.HoldAsync(round, "CA01");
        var listing = new ParcelListing(book.Source, book.Id);
        var all = await listing.KeysAsync(round, "", 0, null, Cancel);
        Assert.Equal(["AB01", "BE02", "CA01"], all.Select(k => k.Customer));
        Assert.Equal(["BE02", "CA01"], (await listing.KeysAsync(round, "", 1, 2, Cancel)).Select(k => k.Customer));
        Assert.Equal(["CA01"], (await listing.KeysAsync(round, "ca0", 0, null, Cancel)).Select(k => k.Customer));

        var marked = all.Skip(1).Concat(await listing.KeysAsync(other, "", 0, null, Cancel)).Select(k => k.Id).ToList();
        var sum = await new MarkedParcels(book.Source, book.Id).SumAsync(round, marked, Cancel);
        Assert.Equal([("held", 1), ("prepared", 1)], sum.Groups.Select(g => (g.Status, g.Count)).Order());
        Assert.Equal([(Currency.Of("GBP"), 200m)], sum.Totals);
    }
}
