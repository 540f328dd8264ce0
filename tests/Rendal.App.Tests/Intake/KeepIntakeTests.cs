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
        await new ChangeReading(stores, files).RunAsync(
            first.Id,
            ReadingChange.None with
            {
                Meanings = new Dictionary<int, ColumnMeaning> { [2] = ColumnMeaning.Reference },
            },
            Cancel
        );
        await KeepAsync(stores, first.Id);

        var next = await BeginAsync(stores, Ledger.Replace("T-2", "T-3", StringComparison.Ordinal));

        Assert.True(next.KnownReading);
        await KeepAsync(stores, next.Id);
        Assert.Equal(["T-1", "T-3"], (await stores.Ledger.RowsAsync(next.Id, Cancel)).Select(r => r.Reference));
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

    private Task<KeptIntake> KeepAsync(BookStores stores, long id) =>
        new KeepIntake(stores, files, TimeProvider.System).RunAsync(id, sure: true, emptyClears: false, new ProgressMeter(), Cancel);

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
