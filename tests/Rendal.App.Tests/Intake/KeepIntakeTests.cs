using System.Text;
using Rendal.App.Books;
using Rendal.App.Intake;
using Rendal.App.Progress;
using Rendal.Core.Intake;
using Rendal.Store.Books;
using Rendal.Store.Intake;
using Rendal.Store.Tests;

namespace Rendal.App.Tests.Intake;

public sealed class KeepIntakeTests(Postgres postgres)
{
    private const string Ledger =
        "Code;Kind;Number;Due;Outstanding\nAB01;Invoice;T-1;2026-10-01;100.00\nBE02;Invoice;T-2;2026-10-01;50.50\n";

    private readonly OpenedFiles files = new(TimeProvider.System);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_file_is_kept_once_though_two_people_keep_it_at_the_same_time()
    {
        var stores = await NewBookAsync();
        var begun = await BeginAsync(stores, Ledger);

        var kept = await Task.WhenAll(Enumerable.Range(0, 2).Select(_ => Task.Run(() => TriedAsync(() => KeepAsync(stores, begun.Id)))));

        Assert.Single(kept, "");
        Assert.Single(kept, "This file was kept or undone already.");
        Assert.Equal(2, (await stores.Ledger.RowsAsync(begun.Id, Cancel)).Count);
    }

    [Fact]
    public async Task A_file_like_one_that_was_kept_is_read_as_that_was()
    {
        var stores = await NewBookAsync();
        var first = await BeginAsync(stores, Ledger);
        Assert.False(first.KnownReading);
        await KeepWithReferenceAsync(stores, first.Id, column: 2);

        var next = await BeginAsync(stores, Ledger.Replace("T-2", "T-3", StringComparison.Ordinal));

        Assert.True(next.KnownReading);
        await KeepAsync(stores, next.Id);
        Assert.Equal(["T-1", "T-3"], (await stores.Ledger.RowsAsync(next.Id, Cancel)).Select(r => r.Reference));
    }

    [Fact]
    public async Task What_somebody_said_of_a_heading_is_known_in_a_file_with_others_beside_it()
    {
        var stores = await NewBookAsync();
        var first = await BeginAsync(stores, "Code;Kind;Zorb;Due;Outstanding\nAB01;Invoice;T-1;2026-10-01;100.00\n");
        await KeepWithReferenceAsync(stores, first.Id, column: 2);

        var next = await BeginAsync(stores, "Zorb;Debtor;Due;Open\nT-3;AB01;2026-10-01;100.00\nT-4;AB01;2026-10-02;50.00\n");
        Assert.False(next.KnownReading);

        // And whatever else is changed about the file, by whoever knows nothing of that.
        await new ChangeReading(stores, files).RunAsync(next.Id, ReadingChange.None with { CarriesDown = false }, Cancel);
        await KeepAsync(stores, next.Id);
        Assert.Equal(["T-3", "T-4"], (await stores.Ledger.RowsAsync(next.Id, Cancel)).Select(r => r.Reference));
    }

    [Fact]
    public async Task A_file_that_seems_to_be_no_ledger_is_kept_only_by_whoever_is_sure()
    {
        var stores = await NewBookAsync();
        var begun = await BeginAsync(
            stores,
            "Date;Payee;Client;Amount;Balance\n2026-10-01;Kell;H1;500.00;1500.00\n2026-10-02;Gas;H1;-210.40;1289.60\n"
        );

        var refusal = await TriedAsync(() => KeepAsync(stores, begun.Id, sure: false));

        Assert.StartsWith("This looks like a bank statement, not like a ledger:", refusal, StringComparison.Ordinal);
        await KeepAsync(stores, begun.Id);
    }

    [Fact]
    public async Task What_was_given_as_a_ledger_is_taken_in_as_the_customer_list_that_it_is()
    {
        var stores = await NewBookAsync();
        var begun = await BeginAsync(stores, "Customer no;Name;Town;E-mail\nH014;Inn at Kell;Kell;accounts@kell.example\n");

        var again = await new BeginIntake(stores, files, TimeProvider.System).AgainAsync(begun.Id, IntakeKind.Customers, Cancel);
        await KeepAsync(stores, again.Id);

        Assert.Equal("Inn at Kell", (await stores.Customers.AllAsync(Cancel))["H014"].Name);
    }

    [Fact]
    public async Task What_was_kept_is_not_read_in_another_way_any_more()
    {
        var stores = await NewBookAsync();
        var begun = await BeginAsync(stores, Ledger);
        await KeepAsync(stores, begun.Id);

        Assert.Equal(
            "This file was kept already; take it in again to read it in another way.",
            await TriedAsync(() => new ChangeReading(stores, files).RunAsync(begun.Id, ReadingChange.None, Cancel))
        );
        var again = await new BeginIntake(stores, files, TimeProvider.System).AgainAsync(begun.Id, null, Cancel);
        await new ChangeReading(stores, files).RunAsync(again.Id, ReadingChange.None, Cancel);
    }

    private async Task<BookStores> NewBookAsync()
    {
        var book = await postgres.NewBookAsync();
        return new BookStores((await new BookStore(book.Source).FindAsync(book.Id, Cancel))!, book.Person, book.Source);
    }

    private Task<BegunIntake> BeginAsync(BookStores stores, string text) =>
        new BeginIntake(stores, files, TimeProvider.System).RunAsync(
            "ledger.csv",
            () => new MemoryStream(Encoding.UTF8.GetBytes(text)),
            IntakeKind.Ledger,
            Cancel
        );

    /// <summary>Says that a column is the number that a row settles, and keeps the file.</summary>
    private async Task KeepWithReferenceAsync(BookStores stores, long id, int column)
    {
        await new ChangeReading(stores, files).RunAsync(
            id,
            ReadingChange.None with
            {
                Meanings = new Dictionary<int, ColumnMeaning> { [column] = ColumnMeaning.Reference },
            },
            Cancel
        );
        await KeepAsync(stores, id);
    }

    private Task<KeptIntake> KeepAsync(BookStores stores, long id, bool sure = true) =>
        new KeepIntake(stores, files, TimeProvider.System).RunAsync(id, sure, emptyClears: false, new ProgressMeter(), Cancel);

    /// <summary>What kept somebody from it; empty where nothing did.</summary>
    private static async Task<string> TriedAsync(Func<Task> act)
    {
        try
        {
            await act();
            return "";
        }
        catch (ProblemException e)
        {
            return e.Message;
        }
    }
}
