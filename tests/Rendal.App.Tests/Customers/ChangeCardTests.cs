using Rendal.App.Books;
using Rendal.App.Customers;
using Rendal.Core.Customers;
using Rendal.Store.Books;
using Rendal.Store.Tests;

namespace Rendal.App.Tests.Customers;

public sealed class ChangeCardTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Of_two_people_who_change_one_card_the_second_is_told_who_was_first_and_nothing_is_written_over()
    {
        var stores = await BookAsync("AB01");
        var card = (await stores.Customers.FindAsync("AB01", Cancel))!;
        var version = (await stores.Customers.VersionAsync("AB01", Cancel))!.Value;
        await new ChangeCard(stores, TimeProvider.System).RunAsync(
            card with
            {
                Name = " Abbot’s Table ",
                PostalLines = ["1 Quay", " "],
            },
            version,
            Cancel
        );

        var refused = await Assert.ThrowsAsync<ProblemException>(() =>
            new ChangeCard(stores, TimeProvider.System).RunAsync(card with { Name = "Abbots" }, version, Cancel)
        );

        Assert.Equal(ProblemReason.Conflict, refused.Reason);
        Assert.EndsWith(
            "changed this card since you opened it. What they changed is in the fields now, beside what you entered: look, "
                + "and save again.",
            refused.Message,
            StringComparison.Ordinal
        );
        var kept = (await stores.Customers.FindAsync("AB01", Cancel))!;
        Assert.Equal(("Abbot’s Table", "1 Quay"), (kept.Name, Assert.Single(kept.PostalLines)));
    }

    [Theory]
    [InlineData("BE02", "A customer cannot be its own head office.")]
    [InlineData("CA03", "There is no customer CA03 that could be the head office.")]
    [InlineData("AB01", "AB01 is under BE02 is under AB01: then none of them is at the top.")]
    public async Task A_head_office_that_leads_nowhere_is_refused(string office, string refusal)
    {
        var stores = await BookAsync("AB01", "BE02");
        await ChangeAsync(stores, "AB01", c => c with { HeadOffice = "BE02" });

        var refused = await Assert.ThrowsAsync<ProblemException>(() => ChangeAsync(stores, "BE02", c => c with { HeadOffice = office }));

        Assert.Equal(refusal, refused.Message);
        Assert.Equal("", (await stores.Customers.FindAsync("BE02", Cancel))!.HeadOffice);
    }

    private static async Task ChangeAsync(BookStores stores, string key, Func<Customer, Customer> change)
    {
        var version = (await stores.Customers.VersionAsync(key, Cancel))!.Value;
        await new ChangeCard(stores, TimeProvider.System).RunAsync(
            change((await stores.Customers.FindAsync(key, Cancel))!),
            version,
            Cancel
        );
    }

    private async Task<BookStores> BookAsync(params string[] customers)
    {
        var book = await postgres.NewBookAsync();
        await book.LedgerOfAsync(customers);
        return new BookStores((await new BookStore(book.Source).FindAsync(book.Id, Cancel))!, book.Person, book.Source);
    }
}
