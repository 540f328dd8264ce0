using Rendal.Core.Rounds;
using Rendal.Store.People;
using Rendal.Store.Rounds;

namespace Rendal.Store.Tests.Rounds;

/// <summary>Two people on one round: the test book's own, and a colleague who was quicker.</summary>
public class RoundChangesTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_two_change_of_the_settings_stands_side_by_side_unless_it_is_the_same()
    {
        var (book, round, colleague) = await OpenAsync();
        Assert.Equal(RoundUpdate.Done, await ChangeAsync(book, round, round.Settings.Choice with { LeastBalance = 10m }, colleague));
        Assert.Equal(RoundUpdate.Done, await ChangeAsync(book, round, round.Settings.Choice with { OverdueDays = 30 }, book.Person));
        var both = (await book.Rounds.FindAsync(round.Id, Cancel))!;
        Assert.Equal((10m, 30, 3L), (both.Choice.LeastBalance, both.Choice.OverdueDays, both.Revision));

        var update = await ChangeAsync(book, round, round.Settings.Choice with { LeastBalance = 20m }, book.Person);
        Assert.Equal(
            (RoundUpdateResult.Contested, "colleague", 2L),
            (update.Result, update.Other!.By[.."colleague".Length], update.Other.Revision)
        );
        Assert.Equal([nameof(Choice.LeastBalance)], update.Settings);
        Assert.Equal(both, await book.Rounds.FindAsync(round.Id, Cancel), SameRound);

        // Once it was seen, it can be changed again; and who wants the same as the other has it.
        Assert.Equal(RoundUpdate.Done, await ChangeAsync(book, both, both.Settings.Choice with { LeastBalance = 20m }, book.Person));
        Assert.Equal(RoundUpdate.Done, await ChangeAsync(book, both, both.Settings.Choice with { LeastBalance = 20m }, colleague));
        Assert.Equal(4, (await book.Rounds.FindAsync(round.Id, Cancel))!.Revision);
    }

    [Fact]
    public async Task What_two_decide_about_different_customers_stands_and_about_the_same_the_second_is_told()
    {
        var (book, round, colleague) = await OpenAsync();
        Assert.Equal(RoundUpdate.Done, (await DecideAsync(book, round, "AB01", "held", "", colleague)).Update);
        Assert.Equal(RoundUpdate.Done, (await DecideAsync(book, round, "BE02", "held", "", book.Person)).Update);
        Assert.Equal(new DecisionUpdate(RoundUpdate.Done, false), await DecideAsync(book, round, "AB01", "held", "", book.Person));
        var update = (await DecideAsync(book, round, "AB01", "removed", "paid", book.Person)).Update;
        Assert.Equal((RoundUpdateResult.Contested, "customer", "AB01"), (update.Result, update.Other!.About, update.Other.Subject));
        Assert.Equal(
            ["AB01 held", "BE02 held"],
            (await book.Decisions.OfCustomersAsync(round.Id, Cancel))
                .Select(d => $"{d.Customer} {d.Decision}")
                .Order(StringComparer.Ordinal)
        );
        Assert.Equal(
            [(2L, "AB01"), (3L, "BE02")],
            (await book.Changes.SinceAsync(round.Id, round.Revision, Cancel)).Select(c => (c.Revision, c.Subject))
        );

        var seen = round with { Revision = 3 };
        Assert.Equal(
            new DecisionUpdate(RoundUpdate.Done, PrepareAnew: true),
            await DecideAsync(book, seen, "AB01", "removed", "paid", book.Person)
        );
    }

    [Fact]
    public async Task What_two_decide_about_one_item_is_told_to_the_second()
    {
        var (book, round, colleague) = await OpenAsync();
        var (taken, left) = (new ItemByHand("item 1", false, "paid on site"), new ItemByHand("item 2", false, "torn"));
        Assert.Equal(
            RoundUpdate.Done,
            await book.Decisions.DecideItemAsync(round.Id, round.Revision, "AB01", taken.Item, taken, colleague, Cancel)
        );
        Assert.Equal(
            RoundUpdate.Done,
            await book.Decisions.DecideItemAsync(round.Id, round.Revision, "BE02", left.Item, left, book.Person, Cancel)
        );
        Assert.Equal(
            RoundUpdateResult.Contested,
            (
                await book.Decisions.DecideItemAsync(
                    round.Id,
                    round.Revision,
                    "AB01",
                    taken.Item,
                    taken with
                    {
                        IsIn = true,
                    },
                    book.Person,
                    Cancel
                )
            ).Result
        );
        Assert.Equal([taken, left], await book.Decisions.OfItemsAsync(round.Id, Cancel));
        Assert.Equal(RoundUpdate.Done, await book.Decisions.DecideItemAsync(round.Id, 3, "AB01", taken.Item, null, book.Person, Cancel));
        Assert.Equal([left], await book.Decisions.OfItemsAsync(round.Id, Cancel));
    }

    [Fact]
    public async Task Many_at_once_raise_the_revision_one_by_one_and_lose_nothing()
    {
        var customers = Enumerable.Range(0, 24).Select(i => $"C{i:00}").ToArray();
        var book = await postgres.NewBookAsync();
        var round = (await book.Rounds.FindAsync((await book.PreparedAsync(customers)).Round, Cancel))!;
        await Task.WhenAll(customers.Select(c => DecideAsync(book, round, c, "held", "", book.Person)));
        Assert.All((await book.StatesAsync(round.Id)).Values, state => Assert.Equal(Core.Dispatch.ParcelState.Held, state));
        Assert.Equal(
            Enumerable.Range(2, 24).Select(r => (long)r),
            (await book.Changes.SinceAsync(round.Id, 1, Cancel)).Select(c => c.Revision)
        );
    }

    [Fact]
    public async Task What_is_decided_about_several_holds_for_all_or_where_somebody_else_was_at_one_of_them_for_none()
    {
        var (book, round, colleague) = await OpenAsync();
        await DecideAsync(book, round, "AB01", "removed", "disputed", colleague);
        var second = await book.Decisions.DecideAsync(round.Id, round.Revision, ["AB01", "BE02"], "held", "", book.Person, Cancel);
        Assert.Equal((RoundUpdateResult.Contested, "AB01"), (second.Update.Result, second.Update.Other!.Subject));
        Assert.Equal(["AB01"], (await book.Decisions.OfCustomersAsync(round.Id, Cancel)).Select(d => d.Customer));

        var now = (await book.Rounds.FindAsync(round.Id, Cancel))!;
        Assert.True(
            (
                await book.Decisions.DecideAsync(round.Id, now.Revision, ["AB01", "BE02"], "held", "ask first", book.Person, Cancel)
            ).PrepareAnew
        );
        Assert.Equal(
            [("AB01", "held", "ask first"), ("BE02", "held", "ask first")],
            (await book.Decisions.OfCustomersAsync(round.Id, Cancel)).Select(d => (d.Customer, d.Decision, d.Reason))
        );
        Assert.Equal(
            [(now.Revision + 1, "AB01"), (now.Revision + 2, "BE02")],
            (await book.Changes.SinceAsync(round.Id, now.Revision, Cancel)).Select(c => (c.Revision, c.Subject))
        );
        Assert.Equal(["ask first", "ask first"], (await book.Rounds.ParcelsAsync(round.Id, Cancel)).Select(p => p.HoldNote));
    }

    private static bool SameRound(RoundRecord? a, RoundRecord? b) =>
        a!.Revision == b!.Revision && SettingsMerge.Differing(a.Settings, b.Settings).Count == 0;

    private async Task<(TestBook Book, RoundRecord Round, long Colleague)> OpenAsync()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02");
        var colleague = await new PersonStore(book.Source).AddAsync($"colleague-{Guid.NewGuid():N}", "hash", Cancel);
        return (book, (await book.Rounds.FindAsync(prepared.Round, Cancel))!, colleague);
    }

    private static Task<RoundUpdate> ChangeAsync(TestBook book, RoundRecord seen, Choice choice, long person) =>
        book.Changes.ChangeSettingsAsync(seen.Id, seen.Revision, seen.Settings with { Choice = choice }, person, Cancel);

    private static Task<DecisionUpdate> DecideAsync(
        TestBook book,
        RoundRecord seen,
        string customer,
        string decision,
        string reason,
        long person
    ) => book.Decisions.DecideAsync(seen.Id, seen.Revision, [customer], decision, reason, person, Cancel);
}
