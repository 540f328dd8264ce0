using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Store.Corrections;
using Rendal.Store.Customers;
using Rendal.Store.Intake;

namespace Rendal.Store.Tests.Customers;

public class CustomerStoreTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_card_comes_back_as_it_was_written()
    {
        var book = await postgres.NewBookAsync();
        await KeepListAsync(
            book,
            "Code|Name|Title|Contact|E-mail|Cc|Bcc|Salutation|Delivery|Street|Town|Country|Language|Terms|Head office|Unit|"
                + "Minimum balance|On hold|Notes|Loading bay",
            "AB01|Abbot’s Table|Mr|Owen Farrow|a@abbot.example|c@abbot.example|b@abbot.example|Dear Owen|both|3 Tenter Lane|"
                + "Kelby|Wales|de|EOM + 14|AB00|North|25.50|yes|rings on Fridays|B2"
        );
        var card = (await Customers(book).FindAsync("AB01", Cancel))!;
        Assert.Equal(
            [
                ("Owen Farrow", "Mr", "a@abbot.example", ContactRole.To),
                ("", "", "c@abbot.example", ContactRole.Copy),
                ("", "", "b@abbot.example", ContactRole.BlindCopy),
            ],
            card.Contacts.Select(c => (c.Name, c.Title, c.Address, c.Role))
        );
        Assert.Equal(("Dear Owen", Delivery.Both, "Wales", "de"), (card.Salutation, card.Delivery, card.Country, card.Language));
        Assert.Equal(
            (new PaymentTerms(14, true), "AB00", "North", 25.50m, true),
            (card.Terms!.Value, card.HeadOffice, card.Unit, card.MinimumBalance, card.OnHold)
        );
        Assert.Equal(["3 Tenter Lane", "Kelby"], card.PostalLines);
        Assert.Equal(("rings on Fridays", "B2", false), (card.Notes, card.Extra["Loading bay"], card.FromLedger));
        Assert.Equal(new PaymentTerms(14, true), (await Customers(book).TermsAsync(Cancel))["AB01"]);
    }

    [Fact]
    public async Task A_card_that_was_put_right_survives_the_next_ledger_and_the_next_list()
    {
        var book = await postgres.NewBookAsync();
        await book.LedgerOfAsync("AB01");
        await KeepListAsync(book, "Code|Name|E-mail", "AB01|Abbot’s Table|wrong@abot.example");
        var card = (await Customers(book).FindAsync("AB01", Cancel))!;
        await PutAsync(book, CardText.With(card, CardField.Email, "right@abbot.example"));
        await book.LedgerOfAsync("AB01");
        await KeepListAsync(book, "Code|Name|E-mail", "AB01|Abbot’s Table|wrong@abot.example");
        Assert.Equal("right@abbot.example", (await Customers(book).FindAsync("AB01", Cancel))!.Email);

        await KeepListAsync(book, "Code|Name|E-mail", "AB01|Abbot’s Table|new@abbot.example");
        Assert.Equal("new@abbot.example", (await Customers(book).FindAsync("AB01", Cancel))!.Email);
    }

    [Fact]
    public async Task What_was_put_right_on_a_card_can_be_taken_back()
    {
        var book = await postgres.NewBookAsync();
        await KeepListAsync(book, "Code|Name|Notes", "AB01|Abbot’s Table|old");
        var card = (await Customers(book).FindAsync("AB01", Cancel))!;
        await PutAsync(book, card with { Notes = "between" });
        await PutAsync(book, card with { Notes = "new" });
        var corrections = new CorrectionStore(book.Source, book.Id);
        var correction = Assert.Single(await corrections.ListAsync(Cancel)).Correction;
        Assert.Equal(("AB01", "Notes", "old", "new"), (correction.Of, correction.Column, correction.Was, correction.Becomes));
        Assert.True(await corrections.TakeBackAsync(correction, book.Person, TestBook.Now, Cancel));
        Assert.Equal("old", (await Customers(book).FindAsync("AB01", Cancel))!.Notes);
        Assert.False(await corrections.TakeBackAsync(correction, book.Person, TestBook.Now, Cancel));
    }

    [Fact]
    public async Task A_customer_list_can_be_undone_as_a_whole()
    {
        var book = await postgres.NewBookAsync();
        await KeepListAsync(book, "Code|Name|Notes", "AB01|Abbot’s Table|old");
        var second = await KeepListAsync(book, "Code|Name|Notes", "AB01|Abbot’s Bar|new", "BE02|Beacon Lodge|");
        Assert.True(await book.Intakes.UndoCustomersAsync(second, [], book.Person, Cancel));
        var card = Assert.Single(await Customers(book).AllAsync(Cancel)).Value;
        Assert.Equal(("Abbot’s Table", "old"), (card.Name, card.Notes));
        Assert.False(await book.Intakes.UndoCustomersAsync(second, [], book.Person, Cancel));
    }

    [Fact]
    public async Task Wildcards_in_a_search_are_ordinary_characters()
    {
        var book = await postgres.NewBookAsync();
        await book.LedgerOfAsync("A_01", "AB01", "50%");
        Assert.Equal("A_01 of 1", await FoundAsync(book, "a_0"));
        Assert.Equal("50% of 1", await FoundAsync(book, "0%"));
        Assert.Equal("AB01 of 1", await FoundAsync(book, "AB01@INN"));
    }

    [Fact]
    public async Task The_list_is_given_in_parts_in_the_order_asked_for()
    {
        var book = await postgres.NewBookAsync();
        await KeepListAsync(book, "Code|Name|E-mail|Unit", "C|ant|z@a.example|North", "B|Bee|y@a.example|South", "A|cat|x@a.example|");
        async Task<IEnumerable<string>> By(CustomerOrder order, bool descending, int from, int most) =>
            (await Customers(book).SearchAsync("", order, descending, from, most, Cancel)).Customers.Select(c => c.Key);
        Assert.Equal(["C", "B", "A"], await By(CustomerOrder.Name, false, 0, 10));
        Assert.Equal(["C", "B"], await By(CustomerOrder.Key, true, 0, 2));
        Assert.Equal(["A"], await By(CustomerOrder.Key, true, 2, 2));
        Assert.Equal(["A", "B", "C"], await By(CustomerOrder.Address, false, 0, 10));
        Assert.Equal(["A", "C", "B"], await By(CustomerOrder.Unit, false, 0, 10));
    }

    [Fact]
    public async Task Only_an_address_that_can_be_written_to_makes_a_customer_reachable()
    {
        var book = await postgres.NewBookAsync();
        await KeepListAsync(book, "Code|Name|E-mail", "AB01|A|office@@abbot", "BE02|B|nonsense; b@beacon.example", "CA01|C|");
        Assert.Equal(["BE02"], await Customers(book).ReachableAsync(Cancel));
    }

    [Fact]
    public async Task Whether_a_round_reaches_a_customer_depends_on_what_the_contacts_get()
    {
        var book = await postgres.NewBookAsync();
        await KeepListAsync(book, "Code|Name|E-mail", "AB01|A|a@abbot.example", "BE02|B|b@beacon.example");
        var card = (await Customers(book).FindAsync("BE02", Cancel))!;
        await PutAsync(book, card with { Contacts = [card.Contacts[0] with { Rounds = [RoundKind.Reminders] }] });
        Assert.Equal(
            ["BE02"],
            (await Customers(book).TraitsAsync(0, RoundKind.Statements, Cancel)).Where(t => !t.Value.IsReachable).Select(t => t.Key)
        );
        Assert.DoesNotContain(await Customers(book).TraitsAsync(0, RoundKind.Reminders, Cancel), t => !t.Value.IsReachable);
    }

    [Fact]
    public async Task Of_two_who_change_a_card_the_second_is_told_and_loses_nothing_of_the_firsts()
    {
        var book = await postgres.NewBookAsync();
        await KeepListAsync(book, "Code|Name|Notes", "AB01|Abbot’s Table|old");
        var card = (await Customers(book).FindAsync("AB01", Cancel))!;
        var version = (await Customers(book).VersionAsync("AB01", Cancel))!.Value;
        Assert.Null(await Customers(book).ChangedByAsync("AB01", Cancel));
        Assert.Equal(
            Update.Done,
            await Customers(book).UpdateAsync(card with { Notes = "first" }, version, book.Person, TestBook.Now, Cancel)
        );
        Assert.Equal(
            Update.Stale,
            await Customers(book).UpdateAsync(card with { Country = "second" }, version, book.Person, TestBook.Now, Cancel)
        );
        Assert.Equal("first", (await Customers(book).FindAsync("AB01", Cancel))!.Notes);
        Assert.NotNull(await Customers(book).ChangedByAsync("AB01", Cancel));

        // A list that comes in between is a change as well.
        version = (await Customers(book).VersionAsync("AB01", Cancel))!.Value;
        await KeepListAsync(book, "Code|Name|Notes|Country", "AB01|Abbot’s Table|first|Wales");
        Assert.Equal(
            Update.Stale,
            await Customers(book).UpdateAsync(card with { Notes = "third" }, version, book.Person, TestBook.Now, Cancel)
        );
        Assert.Equal(
            Update.NotThere,
            await Customers(book).UpdateAsync(card with { Key = "ZZ" }, version, book.Person, TestBook.Now, Cancel)
        );
    }

    private static async Task PutAsync(TestBook book, Customer card) =>
        Assert.Equal(
            Update.Done,
            await Customers(book)
                .UpdateAsync(card, (await Customers(book).VersionAsync(card.Key, Cancel))!.Value, book.Person, TestBook.Now, Cancel)
        );

    private static CustomerStore Customers(TestBook book) => new(book.Source, book.Id);

    private static async Task<string> FoundAsync(TestBook book, string text)
    {
        var (found, count) = await Customers(book).SearchAsync(text, CustomerOrder.Name, false, 0, 10, Cancel);
        return $"{string.Join(' ', found.Select(c => c.Key))} of {count}";
    }

    private static async Task<long> KeepListAsync(TestBook book, params string[] lines)
    {
        var table = new LedgerTable("list.csv", null, TestBook.Rows(lines));
        var reading = CardReading.Of(table, ReadingChange.None)!;
        var file = await new Files.FileStore(book.Source, book.Id).StoreAsync("list.csv", new MemoryStream([1]), Cancel);
        var intake = await book.Intakes.BeginAsync(file, IntakeKind.Customers, ReadingChange.None, book.Person, Cancel);
        var corrections = await new CorrectionStore(book.Source, book.Id).HoldingAsync(Cancel);
        Assert.True(
            await book.Intakes.KeepCustomersAsync(
                intake,
                CustomerListReader.Read(table, reading),
                null,
                false,
                corrections,
                SavedReading.Of(reading, ReadingChange.None),
                TestBook.Now,
                Cancel
            )
        );
        return intake;
    }
}
