using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Store.Items;

namespace Rendal.Store.Tests.Items;

public class SettlementStoreTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Of_several_people_who_set_the_same_payment_at_once_one_counts_and_none_is_turned_away()
    {
        var book = await postgres.NewBookAsync();
        var store = new SettlementStore(book.Source, book.Id);
        await Task.WhenAll(
            Enumerable.Range(1, 12).Select(amount => store.SayAsync(Said("T-1", amount), book.Person, TestBook.Now, Cancel))
        );
        Assert.InRange(Assert.Single(await store.ListAsync("AB01", Cancel)).Settlement.Said.Amount!.Value, 1m, 12m);

        await store.SayAsync(Said("T-2", 5m), book.Person, TestBook.Now, Cancel);
        Assert.Equal(["T-1", "T-2"], (await store.ListAsync("AB01", Cancel)).Select(s => s.Settlement.Said.Charge));
        await store.SayAsync(Said(null, null), book.Person, TestBook.Now, Cancel);
        Assert.Null(Assert.Single(await store.ListAsync(null, Cancel)).Settlement.Said.Charge);
    }

    private static CustomerSettlement Said(string? charge, decimal? amount) => new("AB01", new SettledByHand("P-1", charge, amount));
}
