using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Store.Customers;

namespace Rendal.Store.Tests.Customers;

public class CustomerStoreTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task An_empty_field_of_a_list_leaves_what_the_card_says()
    {
        var book = await postgres.NewBookAsync();
        var customers = new CustomerStore(postgres.Source, book.Id);
        await customers.TakeInAsync([new ListedCustomer(new Customer { Key = "AB01", Name = "Abbot’s Table", Contact = "Owen Farrow", Email = "a@abbot.example", PostalLines = ["3 Tenter Lane"] }, 45)], Cancel);
        await customers.TakeInAsync([new ListedCustomer(new Customer { Key = "AB01", Name = "Abbot’s Table & Bar" }, null)], Cancel);

        var card = (await customers.FindAsync("AB01", Cancel))!;
        Assert.Equal(("Abbot’s Table & Bar", "Owen Farrow", "a@abbot.example"), (card.Name, card.Contact, card.Email));
        Assert.Equal(["3 Tenter Lane"], card.PostalLines);
        Assert.Equal(45, (await customers.TermsAsync(Cancel))["AB01"]);
    }

    [Fact]
    public async Task A_card_that_was_put_right_survives_the_next_ledger()
    {
        var book = await postgres.NewBookAsync();
        var customers = new CustomerStore(postgres.Source, book.Id);
        await book.LedgerOfAsync("AB01");
        var card = (await customers.FindAsync("AB01", Cancel))!;
        Assert.True(card.FromLedger);
        Assert.True(await customers.UpdateAsync(card with { Name = "Abbot’s Table", Email = "right@abbot.example" }, Cancel));
        await book.LedgerOfAsync("AB01");

        var after = (await customers.FindAsync("AB01", Cancel))!;
        Assert.Equal(("Abbot’s Table", "right@abbot.example", false), (after.Name, after.Email, after.FromLedger));
    }

    [Fact]
    public async Task Wildcards_in_a_search_are_ordinary_characters()
    {
        var book = await postgres.NewBookAsync();
        await book.LedgerOfAsync("A_01", "AB01", "50%");
        var customers = new CustomerStore(postgres.Source, book.Id);
        Assert.Equal(["A_01"], (await customers.SearchAsync("a_0", 10, Cancel)).Select(c => c.Key));
        Assert.Equal(["50%"], (await customers.SearchAsync("0%", 10, Cancel)).Select(c => c.Key));
    }

    [Fact]
    public async Task Only_an_address_that_can_be_written_to_makes_a_customer_reachable()
    {
        var book = await postgres.NewBookAsync();
        var customers = new CustomerStore(postgres.Source, book.Id);
        await customers.TakeInAsync(
            [new ListedCustomer(new Customer { Key = "AB01", Name = "A", Email = "office@@abbot" }, null), new ListedCustomer(new Customer { Key = "BE02", Name = "B", Email = "nonsense; b@beacon.example" }, null), new ListedCustomer(new Customer { Key = "CA01", Name = "C" }, null)], Cancel);
        Assert.Equal(["BE02"], await customers.ReachableAsync(Cancel));
    }
}
