using Rendal.Core.Dispatch;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Store.Rounds;

namespace Rendal.Store.Tests.Rounds;

public class RoundStoreTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_round_holds_its_parcels_what_is_left_out_and_a_proof_that_closes()
    {
        var book = await postgres.NewBookAsync();
        var intake = await book.LedgerOfAsync("AB01", "BE02");
        var prepared = await book.PreparedAsync("AB01", "BE02");
        var choice = new Choice { AsOf = new DateOnly(2026, 10, 31), Customers = new HashSet<string> { "AB01" } };
        var chosen = await book.ChosenAsync(intake, choice);
        Assert.True(await book.Rounds.PutPreparedAsync(prepared.Round, [TestBook.Parcel("AB01")], chosen, new RoundBasis(choice, ByHand.Nothing, StatementRules.Default), TestBook.Now, Cancel));

        Assert.Equal("AB01", Assert.Single(await book.Rounds.ParcelsAsync(prepared.Round, Cancel)).Customer);
        var left = Assert.Single(await book.Rounds.LeftOutAsync(prepared.Round, Cancel));
        Assert.Equal(("BE02", "not-chosen", 100m), (left.Customer, left.Reason, left.Amount));
        var proof = Assert.Single(await book.Rounds.ProofAsync(prepared.Round, Cancel));
        Assert.Equal((200m, 100m, 100m, 0m), (proof.Ledger, proof.Statements, proof.LeftOut, proof.Difference));
    }

    [Fact]
    public async Task A_choice_comes_back_as_it_was_stored()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01");
        var round = (await book.Rounds.FindAsync(prepared.Round, Cancel))!;
        var choice = new Choice
        {
            AsOf = new DateOnly(2026, 10, 31),
            Units = new HashSet<string> { "Northgate", "" },
            Customers = new HashSet<string> { "AB01" },
            LeastBalance = 10.05m,
            OverdueDays = 30,
            NotWithinDays = 7,
            WithCredits = false,
            LeaveOutHeld = true,
            DatedFrom = new DateOnly(2026, 1, 1),
            DatedTo = new DateOnly(2026, 12, 31),
        };
        Assert.True(await book.Rounds.UpdateAsync(round.Id, "Chosen", choice, round.WordingId, round.SenderId, null, Cancel));
        Assert.Equivalent(choice, (await book.Rounds.FindAsync(round.Id, Cancel))!.Choice, strict: true);
    }

    [Fact]
    public async Task Parcels_are_released_all_or_none()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02");
        var parcels = await book.Rounds.ParcelsAsync(prepared.Round, Cancel);
        Assert.False(await book.Rounds.ReleaseAsync(prepared.Round, [TestBook.Frozen(parcels[0].Id, "AB01"), TestBook.Frozen(parcels[1].Id + 1_000_000, "BE02")], ByHand.Nothing, StatementRules.Default, book.Person, TestBook.Now, TestBook.Now, Way.Mail, Cancel));

        Assert.All((await book.StatesAsync(prepared.Round)).Values, state => Assert.Equal(ParcelState.Prepared, state));
        Assert.Null((await book.Rounds.FindAsync(prepared.Round, Cancel))!.ReleasedAt);
    }

    [Fact]
    public async Task Once_released_a_round_is_neither_changed_nor_prepared_again()
    {
        var book = await postgres.NewBookAsync();
        var released = await book.ReleasedAsync("AB01");
        var round = (await book.Rounds.FindAsync(released.Round, Cancel))!;

        Assert.False(await book.Rounds.UpdateAsync(round.Id, "Other name", round.Choice, round.WordingId, round.SenderId, null, Cancel));
        Assert.False(await book.Rounds.PutPreparedAsync(round.Id, [TestBook.Parcel("ZZ99")], await book.ChosenAsync(round.IntakeId, round.Choice), new RoundBasis(round.Choice, ByHand.Nothing, StatementRules.Default), TestBook.Now, Cancel));
        Assert.Equal(ParcelState.Released, (await book.StatesAsync(round.Id))["AB01"]);
        Assert.Equal("Statement", (await book.Rounds.FrozenAsync((await book.Rounds.ParcelsAsync(round.Id, Cancel))[0].Id, Cancel))!.Subject);
    }

    [Fact]
    public async Task What_was_held_is_not_released_though_the_round_was_not_prepared_anew_yet()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02");
        Assert.True(await book.Decisions.DecideAsync(prepared.Round, new RoundDecision("AB01", "held", ""), book.Person, Cancel));
        Assert.False(await ReleaseAsync(book, prepared.Round));
        Assert.All((await book.StatesAsync(prepared.Round)).Values, state => Assert.Equal(ParcelState.Prepared, state));

        Assert.True(await book.Decisions.TakeBackAsync(prepared.Round, "AB01", Cancel));
        Assert.True(await ReleaseAsync(book, prepared.Round));
        Assert.False(await book.Decisions.DecideAsync(prepared.Round, new RoundDecision("BE02", "held", ""), book.Person, Cancel));
        Assert.Empty(await book.Decisions.OfCustomersAsync(prepared.Round, Cancel));
    }

    [Fact]
    public async Task Of_a_release_and_a_hold_at_the_same_moment_one_comes_too_late_and_is_told()
    {
        var book = await postgres.NewBookAsync();
        for (var time = 0; time < 20; time++)
        {
            var prepared = await book.PreparedAsync($"AB{time:00}");
            var (held, released) = (book.Decisions.DecideAsync(prepared.Round, new RoundDecision($"AB{time:00}", "held", ""), book.Person, Cancel), ReleaseAsync(book, prepared.Round));
            Assert.NotEqual(await held, await released);
            Assert.Equal(await released ? ParcelState.Released : ParcelState.Prepared, (await book.StatesAsync(prepared.Round)).Values.Single());
            Assert.Equal(await held ? 1 : 0, (await book.Decisions.OfCustomersAsync(prepared.Round, Cancel)).Count);
        }
    }

    private static async Task<bool> ReleaseAsync(TestBook book, long round)
    {
        var frozen = (await book.Rounds.ParcelsAsync(round, Cancel)).Select(p => TestBook.Frozen(p.Id, p.Customer));
        return await book.Rounds.ReleaseAsync(round, [.. frozen], ByHand.Nothing, StatementRules.Default, book.Person, TestBook.Now, TestBook.Now, Way.Mail, Cancel);
    }
}
