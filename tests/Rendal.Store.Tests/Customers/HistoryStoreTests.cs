using Rendal.Store.Customers;

namespace Rendal.Store.Tests.Customers;

public class HistoryStoreTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_a_customer_owed_is_told_of_each_ledger_and_currency_the_newest_first_and_without_those_that_were_undone()
    {
        var book = await postgres.NewBookAsync();
        var september = await KeptAsync(
            book,
            0,
            "AB01|Invoice|T-1|2026-08-01|100.10|GBP",
            "AB01|Credit note|T-2|2026-08-02|-40.05|GBP",
            "AB01|Invoice|T-3|2026-08-03|7.50|EUR",
            "BE02|Invoice|T-4|2026-08-03|1.00|GBP"
        );
        var october = await KeptAsync(book, 30, "AB01|Invoice|T-1|2026-08-01|100.10|GBP");
        await KeptAsync(book, 60, "BE02|Invoice|T-4|2026-08-03|1.00|GBP");
        var undone = await KeptAsync(book, 61, "AB01|Invoice|T-9|2026-08-03|9.00|GBP");
        Assert.True(await book.Intakes.UndoAsync(undone, Cancel));

        var owed = await new HistoryStore(book.Source, book.Id).BalancesAsync("AB01", Cancel);

        Assert.Equal(
            [(october, "GBP", 100.10m, 1), (september, "EUR", 7.50m, 1), (september, "GBP", 60.05m, 2)],
            owed.Select(b => (b.Intake, b.Currency, b.Balance, b.Items))
        );
        Assert.Empty(await new HistoryStore(book.Source, book.Id).BalancesAsync("nobody", Cancel));
    }

    private static async Task<long> KeptAsync(TestBook book, int day, params string[] rows)
    {
        var intake = await book.UploadAsync($"ledger of day {day}");
        Assert.True(await book.KeepAsync(intake, TestBook.Now.AddDays(day), ["Code|Kind|Number|Due|Outstanding|Currency", .. rows]));
        return intake;
    }
}
