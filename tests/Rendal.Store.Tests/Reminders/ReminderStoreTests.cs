using Rendal.Core.Dispatch;
using Rendal.Core.Ledger;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Store.Reminders;
using Rendal.Store.Rounds;

namespace Rendal.Store.Tests.Reminders;

public class ReminderStoreTests(Postgres postgres)
{
    private static readonly DateOnly Released = DateOnly.FromDateTime(TestBook.Now.UtcDateTime);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData("released", true)]
    [InlineData("to-be-retried", true)]
    [InlineData("unsure", true)]
    [InlineData("sent", true)]
    [InlineData("refused", false)]
    [InlineData("returned", false)]
    public async Task A_reminder_counts_from_its_release_unless_it_did_not_arrive(string state, bool counts)
    {
        var book = await postgres.NewBookAsync();
        var round = await ReleaseAsync(book, ("AB01", 1));
        await SetStateAsync(book, round, state);
        var reminded = await new ReminderStore(book.Source, book.Id).AllAsync(null, null, null, Cancel);
        Assert.Equal(counts ? [(Item("AB01"), new Reminded(1, Released))] : [], reminded.Select(r => (r.Key, r.Value)));
    }

    [Fact]
    public async Task The_highest_level_of_an_item_counts_and_one_round_can_be_left_out_of_it()
    {
        var book = await postgres.NewBookAsync();
        await ReleaseAsync(book, ("AB01", 1), ("BE02", 1));
        var second = await ReleaseAsync(book, ("AB01", 2));
        await ReleaseAsync(await postgres.NewBookAsync(), ("AB01", 3));
        var store = new ReminderStore(book.Source, book.Id);
        Assert.Equal(
            [(Item("AB01"), 2), (Item("BE02"), 1)],
            (await store.AllAsync(null, null, null, Cancel)).OrderBy(r => r.Key).Select(r => (r.Key, r.Value.Level))
        );
        Assert.Equal(
            [(Item("AB01"), 1), (Item("BE02"), 1)],
            (await store.AllAsync(second, null, null, Cancel)).OrderBy(r => r.Key).Select(r => (r.Key, r.Value.Level))
        );
    }

    [Fact]
    public async Task Of_one_customer_only_its_own_items_are_told_whatever_its_code_is()
    {
        var book = await postgres.NewBookAsync();
        await ReleaseAsync(book, ("A%", 1), ("A%_", 2), ("AB", 3));
        var store = new ReminderStore(book.Source, book.Id);
        foreach (var (customer, level) in new[] { ("A%", 1), ("A%_", 2), ("AB", 3) })
        {
            Assert.Equal(
                [(Item(customer), level)],
                (await store.AllAsync(null, null, customer, Cancel)).Select(r => (r.Key, r.Value.Level))
            );
        }

        Assert.Empty(await store.AllAsync(null, null, "A", Cancel));
    }

    [Fact]
    public async Task What_is_not_released_was_not_sent()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02");
        var parcels = await book.Rounds.ParcelsAsync(prepared.Round, Cancel);
        FrozenParcel[] one = [Frozen(parcels[0], 1), Frozen(parcels[1] with { Id = parcels[1].Id + 1_000_000 }, 1)];
        Assert.False(
            await book.Release.ReleaseAsync(
                prepared.Round,
                1,
                [one],
                ByHand.Nothing,
                StatementRules.Default,
                book.Person,
                TestBook.Now,
                TestBook.Now,
                Channel.Mail,
                Cancel
            )
        );
        Assert.Empty(await new ReminderStore(book.Source, book.Id).AllAsync(null, null, null, Cancel));
    }

    private static async Task<long> ReleaseAsync(TestBook book, params (string Customer, int Level)[] reminders)
    {
        var prepared = await book.PreparedAsync([.. reminders.Select(r => r.Customer)]);
        var parcels = await book.Rounds.ParcelsAsync(prepared.Round, Cancel);
        var levels = reminders.ToDictionary(r => r.Customer, r => r.Level);
        Assert.True(
            await book.Release.ReleaseAsync(
                prepared.Round,
                1,
                [
                    [.. parcels.Select(p => Frozen(p, levels[p.Customer]))],
                ],
                ByHand.Nothing,
                StatementRules.Default,
                book.Person,
                TestBook.Now,
                TestBook.Now,
                Channel.Mail,
                Cancel
            )
        );
        return prepared.Round;
    }

    private static string Item(string customer) => ItemKey.BeginningOf(customer) + "GBP\u001Finvoice\u001FT-1";

    private static FrozenParcel Frozen(ParcelRecord parcel, int level) =>
        TestBook.Frozen(parcel.Id, parcel.Customer) with
        {
            Reminded = [new ItemReminded(Item(parcel.Customer), level)],
        };

    private static async Task SetStateAsync(TestBook book, long round, string state)
    {
        await using var command = book.Source.CreateCommand("update parcel set state = $3 where book_id = $1 and round_id = $2");
        command.Parameters.Add(new() { Value = book.Id });
        command.Parameters.Add(new() { Value = round });
        command.Parameters.Add(new() { Value = state });
        await command.ExecuteNonQueryAsync(Cancel);
    }
}
