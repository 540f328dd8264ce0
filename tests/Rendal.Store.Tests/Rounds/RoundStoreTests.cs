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
        var choice = new Choice
        {
            AsOf = new DateOnly(2026, 10, 31),
            Customers = new HashSet<string> { "AB01" },
        };
        var chosen = await book.ChosenAsync(intake, choice);
        Assert.True(
            await book.Rounds.PutPreparedAsync(
                prepared.Round,
                new PreparedState(1, 0, TestBook.Now),
                [TestBook.Parcel("AB01")],
                [],
                chosen,
                new RoundBasis(choice, ByHand.Nothing, StatementRules.Default),
                Cancel
            )
        );

        Assert.Equal("AB01", Assert.Single(await book.Rounds.ParcelsAsync(prepared.Round, Cancel)).Customer);
        var left = Assert.Single(await new ParcelListing(postgres.Source, book.Id).LeftOutAsync(prepared.Round, 0, 10, Cancel));
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
        Assert.Equal(
            RoundUpdate.Done,
            await book.Changes.ChangeSettingsAsync(
                round.Id,
                round.Revision,
                round.Settings with
                {
                    Name = "Chosen",
                    Choice = choice,
                },
                book.Person,
                Cancel
            )
        );
        Assert.Equivalent(choice, (await book.Rounds.FindAsync(round.Id, Cancel))!.Choice, strict: true);
    }

    [Fact]
    public async Task Parcels_are_released_all_or_none()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02");
        var parcels = await book.Rounds.ParcelsAsync(prepared.Round, Cancel);
        Assert.False(
            await book.Release.ReleaseAsync(
                prepared.Round,
                1,
                [
                    [TestBook.Frozen(parcels[0].Id, "AB01")],
                    [TestBook.Frozen(parcels[1].Id + 1_000_000, "BE02")],
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

        Assert.All((await book.StatesAsync(prepared.Round)).Values, state => Assert.Equal(ParcelState.Prepared, state));
        Assert.Null((await book.Rounds.FindAsync(prepared.Round, Cancel))!.ReleasedAt);
    }

    [Fact]
    public async Task Nothing_is_released_where_making_a_later_one_breaks_off()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02");
        var parcels = await book.Rounds.ParcelsAsync(prepared.Round, Cancel);

        var error = await Assert.ThrowsAsync<IOException>(() =>
            book.Release.ReleaseAsync(
                prepared.Round,
                1,
                Breaking(),
                ByHand.Nothing,
                StatementRules.Default,
                book.Person,
                TestBook.Now,
                TestBook.Now,
                Channel.Mail,
                Cancel
            )
        );

        Assert.Equal("the picture is gone", error.Message);
        Assert.All((await book.StatesAsync(prepared.Round)).Values, state => Assert.Equal(ParcelState.Prepared, state));
        Assert.Null((await book.Rounds.FindAsync(prepared.Round, Cancel))!.ReleasedAt);

        IEnumerable<IReadOnlyList<FrozenParcel>> Breaking()
        {
            yield return [TestBook.Frozen(parcels[0].Id, "AB01")];
            throw new IOException("the picture is gone");
        }
    }

    [Fact]
    public async Task Once_released_a_round_is_neither_changed_nor_prepared_again()
    {
        var book = await postgres.NewBookAsync();
        var released = await book.ReleasedAsync("AB01");
        var round = (await book.Rounds.FindAsync(released.Round, Cancel))!;

        Assert.Equal(
            RoundUpdate.TooLate,
            await book.Changes.ChangeSettingsAsync(
                round.Id,
                round.Revision,
                round.Settings with
                {
                    Name = "Other name",
                },
                book.Person,
                Cancel
            )
        );
        Assert.Null(
            await book.Rounds.PutPreparedAsync(
                round.Id,
                new PreparedState(round.Revision, 0, TestBook.Now),
                [TestBook.Parcel("ZZ99")],
                [],
                await book.ChosenAsync(round.IntakeId, round.Choice),
                new RoundBasis(round.Choice, ByHand.Nothing, StatementRules.Default),
                Cancel
            )
        );
        Assert.Equal(ParcelState.Released, (await book.StatesAsync(round.Id))["AB01"]);
        Assert.Equal(
            "Statement",
            (await book.Dispatch.FrozenAsync((await book.Rounds.ParcelsAsync(round.Id, Cancel))[0].Id, Cancel))!.Subject
        );
    }

    [Fact]
    public async Task A_parcel_that_is_prepared_anew_keeps_its_number()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02", "CA01");
        var before = (await book.Rounds.ParcelsAsync(prepared.Round, Cancel)).ToDictionary(p => p.Customer);
        var round = (await book.Rounds.FindAsync(prepared.Round, Cancel))!;
        ParcelRecord[] anew =
        [
            TestBook.Parcel("BE02") with
            {
                Name = "Beacon Lodge",
                Recipients = ["desk@beacon.example"],
                ReminderLevel = 2,
            },
            TestBook.Parcel("AB01"),
            TestBook.Parcel("EA01"),
        ];
        Assert.True(
            await book.Rounds.PutPreparedAsync(
                round.Id,
                new PreparedState(round.Revision, 0, TestBook.Now),
                anew,
                [],
                await book.ChosenAsync(round.IntakeId, round.Choice),
                new RoundBasis(round.Choice, ByHand.Nothing, StatementRules.Default),
                Cancel
            )
        );

        var after = await book.Rounds.ParcelsAsync(prepared.Round, Cancel);
        Assert.Equal(["BE02", "AB01", "EA01"], after.Select(p => p.Customer));
        Assert.Equal([before["BE02"].Id, before["AB01"].Id], after.Take(2).Select(p => p.Id));
        Assert.Equal(("Beacon Lodge", "desk@beacon.example", 2), (after[0].Name, after[0].Recipients.Single(), after[0].ReminderLevel));
        Assert.DoesNotContain(after[2].Id, before.Values.Select(p => p.Id));
    }

    [Fact]
    public async Task What_was_made_up_from_an_earlier_revision_is_not_put_in_place()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01");
        var round = (await book.Rounds.FindAsync(prepared.Round, Cancel))!;
        Assert.True((await book.HoldAsync(round.Id, "AB01")).Update == RoundUpdate.Done);
        Assert.False(
            await book.Rounds.PutPreparedAsync(
                round.Id,
                new PreparedState(round.Revision, 0, TestBook.Now),
                [TestBook.Parcel("AB01")],
                [],
                await book.ChosenAsync(round.IntakeId, round.Choice),
                new RoundBasis(round.Choice, ByHand.Nothing, StatementRules.Default),
                Cancel
            )
        );
        Assert.Equal(ParcelState.Held, (await book.StatesAsync(round.Id))["AB01"]);
    }

    [Fact]
    public async Task A_round_that_was_prepared_once_more_and_came_out_the_same_keeps_the_moment_that_people_say_they_have_looked_at()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02");
        Assert.Equal(TestBook.Now, await AgainAsync(["AB01", "BE02"], 1));
        Assert.Equal(TestBook.Now.AddMinutes(2), await AgainAsync(["AB01"], 2));
        Assert.Equal(TestBook.Now.AddMinutes(2), await AgainAsync(["AB01"], 3));
        Assert.Equal(TestBook.Now.AddMinutes(4), await AgainAsync(["AB01", "CA01"], 4));

        async Task<DateTimeOffset?> AgainAsync(string[] customers, int minutes)
        {
            var round = (await book.Rounds.FindAsync(prepared.Round, Cancel))!;
            Assert.True(
                await book.Rounds.PutPreparedAsync(
                    round.Id,
                    new PreparedState(round.Revision, 0, TestBook.Now.AddMinutes(minutes)),
                    [.. customers.Select(TestBook.Parcel)],
                    [],
                    await book.ChosenAsync(round.IntakeId, round.Choice),
                    new RoundBasis(round.Choice, ByHand.Nothing, StatementRules.Default),
                    Cancel
                )
            );
            return (await book.Rounds.FindAsync(round.Id, Cancel))!.PreparedAt;
        }
    }

    [Fact]
    public async Task What_is_held_is_so_at_once_and_is_not_released()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02");
        Assert.Equal(new DecisionUpdate(RoundUpdate.Done, PrepareAnew: false), await book.HoldAsync(prepared.Round, "AB01"));
        Assert.Equal(
            [ParcelState.Held, ParcelState.Prepared],
            (await book.StatesAsync(prepared.Round)).OrderBy(s => s.Key).Select(s => s.Value)
        );
        Assert.False(await ReleaseAsync(book, prepared.Round));

        Assert.Equal(
            new DecisionUpdate(RoundUpdate.Done, PrepareAnew: false),
            await book.Decisions.DecideAsync(prepared.Round, 2, ["AB01"], null, "", book.Person, Cancel)
        );
        Assert.All((await book.StatesAsync(prepared.Round)).Values, state => Assert.Equal(ParcelState.Prepared, state));
        Assert.True(await ReleaseAsync(book, prepared.Round));
        Assert.Equal(RoundUpdate.TooLate, (await book.HoldAsync(prepared.Round, "BE02")).Update);
        Assert.Empty(await book.Decisions.OfCustomersAsync(prepared.Round, Cancel));
    }

    [Fact]
    public async Task Of_a_release_and_a_hold_at_the_same_moment_one_comes_too_late_and_is_told()
    {
        var book = await postgres.NewBookAsync();
        for (var time = 0; time < 20; time++)
        {
            var customer = $"AB{time:00}";
            var prepared = await book.PreparedAsync(customer);
            var (holding, releasing) = (book.HoldAsync(prepared.Round, customer), ReleaseAsync(book, prepared.Round));
            var (held, released) = ((await holding).Update == RoundUpdate.Done, await releasing);
            Assert.NotEqual(held, released);
            Assert.Equal(released ? ParcelState.Released : ParcelState.Held, (await book.StatesAsync(prepared.Round)).Values.Single());
            Assert.Equal(held ? 1 : 0, (await book.Decisions.OfCustomersAsync(prepared.Round, Cancel)).Count);
        }
    }

    private static async Task<bool> ReleaseAsync(TestBook book, long round)
    {
        var revision = (await book.Rounds.FindAsync(round, Cancel))!.Revision;
        var frozen = (await book.Rounds.ParcelsAsync(round, Cancel)).Select(p => TestBook.Frozen(p.Id, p.Customer));
        return await book.Release.ReleaseAsync(
            round,
            revision,
            [
                [.. frozen],
            ],
            ByHand.Nothing,
            StatementRules.Default,
            book.Person,
            TestBook.Now,
            TestBook.Now,
            Channel.Mail,
            Cancel
        );
    }
}
