using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Store.Dispatch;
using Rendal.Store.Rounds;

namespace Rendal.Store.Tests.Dispatch;

public class DispatchQueueTests(Postgres postgres) : QueueTest(postgres)
{
    [Fact]
    public async Task Workers_that_claim_at_once_never_get_the_same_parcel()
    {
        var customers = Enumerable.Range(0, 40).Select(i => $"C{i:00}").ToArray();
        var released = await Book.ReleasedAsync(customers);
        var claims = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(async _ =>
                {
                    await using var worker = await Queue.RegisterAsync(Cancel);
                    var mine = new List<string>();
                    while (await ClaimAsync(worker, TestBook.Now) is { } parcel)
                    {
                        mine.Add(parcel.Card.Key);
                        await SendAsync(parcel, worker.Number, Accepted);
                    }

                    return mine;
                })
        );

        Assert.Equal(customers, claims.SelectMany(c => c).Order());
        Assert.All((await Book.StatesAsync(released.Round)).Values, state => Assert.Equal(ParcelState.Sent, state));
    }

    [Fact]
    public async Task What_a_worker_claimed_and_had_not_begun_goes_to_another_when_it_dies()
    {
        var released = await Book.ReleasedAsync("AB01");
        await using (var dying = await Queue.RegisterAsync(Cancel))
        {
            Assert.NotNull(await ClaimAsync(dying, TestBook.Now));
            Assert.Equal(0, await Queue.RecoverAsync(Given, TestBook.Now, Cancel));
            await KillAsync(dying);
        }

        await RecoverAsync(1);
        Assert.Equal(ParcelState.Released, (await Book.StatesAsync(released.Round))["AB01"]);
        await DrainAsync();
        Assert.Equal(ParcelState.Sent, (await Book.StatesAsync(released.Round))["AB01"]);
    }

    [Fact]
    public async Task A_parcel_whose_making_was_cut_off_twice_is_set_aside_with_the_reason_and_can_be_tried_again()
    {
        var released = await Book.ReleasedAsync("AB01", "BE02");
        for (var time = 1; time <= 2; time++)
        {
            await using var dying = await Queue.RegisterAsync(Cancel);
            var parcels = await Queue.ClaimAsync(dying.Number, 2, [], TestBook.Now, Cancel);
            EndOfDataJournalTests.Kill(Given, Folder, dying.Number, notes =>
                _ = notes.Making(parcels.Single(p => p.Card.Key == "AB01").Parcel)
            );
            await KillAsync(dying);
            await RecoverAsync(2);
            Assert.Equal(
                (time == 1 ? ParcelState.Released : ParcelState.Held, ParcelState.Released),
                (await StateAsync("AB01"), await StateAsync("BE02"))
            );
        }

        var aside = (await Book.Rounds.ParcelsAsync(released.Round, Cancel)).Single(p => p.Customer == "AB01");
        Assert.Contains("twice", aside.Problem, StringComparison.Ordinal);
        Assert.True(await Book.Dispatch.RetryAsync(aside.Id, Book.Person, TestBook.Now, Cancel));
        await DrainAsync();
        Assert.Equal((ParcelState.Sent, ParcelState.Sent), (await StateAsync("AB01"), await StateAsync("BE02")));

        async Task<ParcelState> StateAsync(string customer) => (await Book.StatesAsync(released.Round))[customer];
    }

    [Fact]
    public async Task A_book_that_is_busy_enough_is_passed_over_and_the_next_has_its_turn()
    {
        var other = await Postgres.NewBookAsync(Source);
        await Book.ReleasedAsync("AB01", "BE02");
        await other.ReleasedAsync("CO03");
        await using var worker = await Queue.RegisterAsync(Cancel);
        Assert.Equal(["CO03"], (await Queue.ClaimAsync(worker.Number, 5, [Book.Id], TestBook.Now, Cancel)).Select(p => p.Card.Key));
        Assert.Empty(await Queue.ClaimAsync(worker.Number, 5, [Book.Id, other.Id], TestBook.Now, Cancel));
        Assert.Equal(
            ["AB01", "BE02"],
            (await Queue.ClaimAsync(worker.Number, 5, [other.Id], TestBook.Now, Cancel)).Select(p => p.Card.Key).Order()
        );
    }

    [Fact]
    public async Task A_parcel_that_is_being_made_is_stopped_and_its_message_does_not_begin()
    {
        var released = await Book.ReleasedAsync("AB01");
        await using var worker = await Queue.RegisterAsync(Cancel);
        var parcel = (await ClaimAsync(worker, TestBook.Now))!;
        Assert.Equal((1, true), await Book.Release.StopAsync(released.Round, Book.Person, TestBook.Now, Cancel));
        Assert.Equal(ParcelState.Prepared, (await Book.StatesAsync(released.Round))["AB01"]);
        Assert.Null(await Queue.BeginAttemptAsync(parcel, worker.Number, Message(parcel), null, TestBook.Now));
    }

    [Fact]
    public async Task A_message_that_was_begun_before_its_parcel_was_stopped_changed_and_released_again_is_not_written_down()
    {
        var released = await Book.ReleasedAsync("AB01");
        await using var worker = await Queue.RegisterAsync(Cancel);
        var before = (await ClaimAsync(worker, TestBook.Now))!;
        await Book.Release.StopAsync(released.Round, Book.Person, TestBook.Now, Cancel);

        // Released again in other words, and claimed by the same worker while it makes the first message.
        await using (
            var again = Source.CreateCommand(
                "update parcel set state = 'released', subject = 'Other', body = '<p>Other</p>', card = "
                    + $"'{StoreJson.Write(before.Card)}', letterhead = '{{}}', sent_as = '{{}}', next_attempt_at = '{TestBook.Now:O}', seal "
                    + $"= decode(repeat('00', 288), 'hex') where round_id = {released.Round}; update round set released_at = "
                    + $"'{TestBook.Now:O}', released_by = {Book.Person} where id = {released.Round}"
            )
        )
        {
            await again.ExecuteNonQueryAsync(Cancel);
        }

        var now = (await ClaimAsync(worker, TestBook.Now))!;
        Assert.Equal("Other", now.Subject);
        Assert.Null(
            await Queue.BeginAttemptAsync(before, worker.Number, Message(before), new OutgoingLetter("old.pdf", [1], [2]), TestBook.Now)
        );
        var log = new DispatchLog(Source, Book.Id);
        Assert.Null(await log.MessageAsync(before.Parcel, 0, Cancel));
        Assert.Null(await log.LetterAsync(before.Parcel, Cancel));
        Assert.NotNull(await Queue.BeginAttemptAsync(now, worker.Number, Message(now), null, TestBook.Now));
    }

    [Theory]
    [InlineData(false, ParcelState.Released, OutcomeKind.Stopped)]
    [InlineData(true, ParcelState.Unsure, OutcomeKind.Unanswered)]
    public async Task A_try_that_was_cut_off_is_unsure_only_once_the_server_was_given_the_end(
        bool givenTheEnd,
        ParcelState state,
        OutcomeKind outcome
    )
    {
        var released = await Book.ReleasedAsync("AB01");
        await using (var dying = await Queue.RegisterAsync(Cancel))
        {
            var parcel = (await ClaimAsync(dying, TestBook.Now))!;
            var dispatchTry = (await Queue.BeginAttemptAsync(parcel, dying.Number, Message(parcel), null, TestBook.Now))!.Value;
            if (givenTheEnd)
            {
                Assert.True(await Queue.MarkEndingAsync(parcel, dying.Number, dispatchTry, TestBook.Now));
            }

            await KillAsync(dying);
            await RecoverAsync(1);

            // The dead one was only slow after all: it must not give the server the end of a parcel that is no longer its own.
            Assert.False(await Queue.MarkEndingAsync(parcel, dying.Number, dispatchTry, TestBook.Now));
        }

        Assert.Equal(state, (await Book.StatesAsync(released.Round))["AB01"]);
        Assert.Equal(outcome, Assert.Single(await new DispatchLog(Source, Book.Id).SearchAsync(new LogSearch(), 10, Cancel)).Outcome);
        if (state == ParcelState.Unsure)
        {
            Assert.Null(await ClaimAsync());
            Assert.True(
                await Book.Dispatch.DecideUnsureAsync(
                    (await Book.Rounds.ParcelsAsync(released.Round, Cancel))[0].Id,
                    went: false,
                    Book.Person,
                    TestBook.Now,
                    Cancel
                )
            );
            Assert.Equal(
                "Decided to send it again.",
                Assert
                    .Single(
                        await new DispatchLog(Source, Book.Id).NotesAsync(
                            (await Book.Rounds.ParcelsAsync(released.Round, Cancel))[0].Id,
                            Cancel
                        )
                    )
                    .Text
            );
        }

        await DrainAsync();
        Assert.Equal(ParcelState.Sent, (await Book.StatesAsync(released.Round))["AB01"]);
    }

    [Theory]
    [InlineData(false, ParcelState.Released, OutcomeKind.Stopped)]
    [InlineData(true, ParcelState.Unsure, OutcomeKind.Unanswered)]
    public async Task Who_was_killed_between_writing_down_that_the_end_goes_out_and_its_going_out_leaves_nothing_unsure(
        bool wasNoted,
        ParcelState state,
        OutcomeKind outcome
    )
    {
        var released = await Book.ReleasedAsync("AB01");
        await using (var dying = await Queue.RegisterAsync(Cancel))
        {
            var parcel = (await ClaimAsync(dying, TestBook.Now))!;
            var dispatchTry = (await Queue.BeginAttemptAsync(parcel, dying.Number, Message(parcel), null, TestBook.Now))!.Value;
            Assert.True(await Queue.MarkEndingAsync(parcel, dying.Number, dispatchTry, TestBook.Now));
            EndOfDataJournalTests.Kill(Given, Folder, dying.Number, wasNoted ? [dispatchTry] : [dispatchTry + 1]);
            await KillAsync(dying);
            await RecoverAsync(1);
        }

        Assert.Equal(state, (await Book.StatesAsync(released.Round))["AB01"]);
        Assert.Equal(outcome, Assert.Single(await new DispatchLog(Source, Book.Id).SearchAsync(new LogSearch(), 10, Cancel)).Outcome);
        Assert.Empty(Directory.GetFiles(Folder));
    }

    [Fact]
    public async Task A_database_is_told_from_every_other_and_stays_the_same()
    {
        await using var other = await Postgres.NewDatabaseAsync();
        var known = await Queue.DatabaseAsync(CancellationToken.None);
        Assert.NotEqual(known, await new DispatchQueue(other).DatabaseAsync(CancellationToken.None));
        Assert.Equal(known, await new DispatchQueue(Source).DatabaseAsync(CancellationToken.None));
    }

    [Fact]
    public async Task Several_are_claimed_at_once_in_their_order_and_what_is_held_to_an_allowance_one_at_a_time()
    {
        var released = await Book.ReleasedAsync("AB01", "BE02", "CO03", "DU04", "EL05", "FE06");
        await using var worker = await Queue.RegisterAsync(Cancel);
        Assert.Equal(
            ["AB01", "BE02", "CO03"],
            (await Queue.ClaimAsync(worker.Number, 3, [], TestBook.Now, Cancel)).Select(p => p.Card.Key)
        );
        await AllowAsync(released, 60, null);
        await Book.ReleasedAsync("GA07");
        Assert.Equal(["DU04", "GA07"], (await Queue.ClaimAsync(worker.Number, 5, [], TestBook.Now, Cancel)).Select(p => p.Card.Key));
        Assert.Equal(["EL05"], (await Queue.ClaimAsync(worker.Number, 5, [], TestBook.Now, Cancel)).Select(p => p.Card.Key));
    }

    [Fact]
    public async Task The_steps_of_many_tries_at_once_are_each_their_own()
    {
        var released = await Book.ReleasedAsync([.. Enumerable.Range(0, 30).Select(i => $"C{i:00}")]);
        await using var worker = await Queue.RegisterAsync(Cancel);
        var claimed = await Queue.ClaimAsync(worker.Number, 30, [], TestBook.Now, Cancel);
        var outcomes = await Task.WhenAll(
            claimed.Select(
                async (parcel, i) =>
                {
                    // Every third is no longer this worker's, as it believes.
                    if (i % 3 == 0)
                    {
                        return await Queue.BeginAttemptAsync(parcel, worker.Number + 1, Message(parcel), null, TestBook.Now) is null;
                    }

                    await SendAsync(
                        parcel,
                        worker.Number,
                        i % 3 == 1 ? Accepted : new Outcome(OutcomeKind.Refused, $"550 no such address {i}", [])
                    );
                    return true;
                }
            )
        );
        Assert.All(outcomes, Assert.True);
        var states = await Book.StatesAsync(released.Round);
        Assert.Equal([ParcelState.Sending, ParcelState.Sent, ParcelState.Refused], claimed.Take(3).Select(p => states[p.Card.Key]));
        Assert.Equal((10, 10, 10), ((int)await CountAsync("sending"), (int)await CountAsync("sent"), (int)await CountAsync("refused")));
        Assert.Equal(20L, await Source.CreateCommand("select count(*) from message").ExecuteScalarAsync(Cancel));
        Assert.Equal(
            10L,
            await Source
                .CreateCommand("select count(distinct answer) from delivery_attempt where outcome = 'refused'")
                .ExecuteScalarAsync(Cancel)
        );

        async Task<long> CountAsync(string state) =>
            (await new RoundDispatch(Source, Book.Id).CountsAsync(released.Round, Cancel)).GetValueOrDefault(state);
    }

    [Fact]
    public async Task What_cannot_be_written_down_of_one_try_does_not_keep_others_begun_at_once_from_it()
    {
        await Book.ReleasedAsync([.. Enumerable.Range(0, 6).Select(i => $"C{i}")]);
        await using var worker = await Queue.RegisterAsync(Cancel);
        var claimed = await Queue.ClaimAsync(worker.Number, 6, [], TestBook.Now, Cancel);
        var twice = Message(claimed[0]);
        var begun = claimed
            .Select((parcel, i) => Queue.BeginAttemptAsync(parcel, worker.Number, i < 2 ? twice : Message(parcel), null, TestBook.Now))
            .ToList();
        await Assert.ThrowsAsync<PostgresException>(() => Task.WhenAll(begun));
        Assert.Equal(1, begun.Count(b => b.IsFaulted));
        Assert.Equal(5, (await Task.WhenAll(begun.Where(b => !b.IsFaulted))).Count(id => id is not null));
    }

    [Theory]
    [InlineData("update message set subject = 'another'")]
    [InlineData("delete from message")]
    [InlineData("update delivery_attempt set answer = 'another'")]
    [InlineData("delete from delivery_attempt")]
    public async Task What_stands_in_the_log_is_neither_altered_nor_removed(string sql)
    {
        await Book.ReleasedAsync("AB01");
        await DrainAsync();
        await using var owner = Postgres.OwnerOf(Source);
        var refused = await Assert.ThrowsAsync<PostgresException>(() => RunAsync(owner, sql));
        Assert.Equal("The record of what went out cannot be altered or removed.", refused.MessageText);
    }
}
