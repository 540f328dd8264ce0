using System.Security.Cryptography;
using System.Text;
using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Store.Dispatch;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;

namespace Rendal.Store.Tests.Dispatch;

/// <summary>The queue is one for all books, so each of these tests has a database of its own.</summary>
public class DispatchQueueTests(Postgres postgres) : IAsyncLifetime
{
    private static readonly Outcome Accepted = new(Ending.Accepted, "250 2.0.0 kept", [new RecipientAnswer("AB01@inn.example", true, "250 2.1.5 ok")]);

    private NpgsqlDataSource source = null!;
    private readonly string folder = Directory.CreateTempSubdirectory("rendal-given-").FullName;
    private DispatchQueue queue = null!;
    private GivenEnds given = null!;
    private TestBook book = null!;

    private static DateOnly Today => DateOnly.FromDateTime(TestBook.Now.UtcDateTime);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        source = await postgres.NewDatabaseAsync();
        queue = new DispatchQueue(source);
        given = new GivenEnds(folder, await queue.DatabaseAsync(CancellationToken.None));
        book = await Postgres.NewBookAsync(source);
    }

    public async ValueTask DisposeAsync()
    {
        await source.DisposeAsync();
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task Workers_that_claim_at_once_never_get_the_same_parcel()
    {
        var customers = Enumerable.Range(0, 40).Select(i => $"C{i:00}").ToArray();
        var released = await book.ReleasedAsync(customers);
        var claims = await Task.WhenAll(Enumerable.Range(0, 6).Select(async _ =>
        {
            await using var worker = await queue.RegisterAsync(Cancel);
            var mine = new List<string>();
            while (await ClaimAsync(worker, TestBook.Now) is { } parcel)
            {
                mine.Add(parcel.Card.Key);
                await SendAsync(parcel, worker.Number, Accepted);
            }

            return mine;
        }));

        Assert.Equal(customers, claims.SelectMany(c => c).Order());
        Assert.All((await book.StatesAsync(released.Round)).Values, state => Assert.Equal(ParcelState.Sent, state));
    }

    [Fact]
    public async Task What_a_worker_claimed_and_had_not_begun_goes_to_another_when_it_dies()
    {
        var released = await book.ReleasedAsync("AB01");
        await using (var dying = await queue.RegisterAsync(Cancel))
        {
            Assert.NotNull(await ClaimAsync(dying, TestBook.Now));
            Assert.Equal(0, await queue.RecoverAsync(given, TestBook.Now, Cancel));
            await KillAsync(dying);
        }

        await RecoverAsync(1);
        Assert.Equal(ParcelState.Released, (await book.StatesAsync(released.Round))["AB01"]);
        await DrainAsync();
        Assert.Equal(ParcelState.Sent, (await book.StatesAsync(released.Round))["AB01"]);
    }

    [Fact]
    public async Task A_parcel_whose_making_was_cut_off_twice_is_set_aside_with_the_reason_and_can_be_tried_again()
    {
        var released = await book.ReleasedAsync("AB01", "BE02");
        for (var time = 1; time <= 2; time++)
        {
            await using var dying = await queue.RegisterAsync(Cancel);
            var parcels = await queue.ClaimAsync(dying.Number, 2, [], TestBook.Now, Cancel);
            GivenEndsTests.Kill(given, folder, dying.Number, notes => _ = notes.Making(parcels.Single(p => p.Card.Key == "AB01").Parcel));
            await KillAsync(dying);
            await RecoverAsync(2);
            Assert.Equal((time == 1 ? ParcelState.Released : ParcelState.Held, ParcelState.Released), (await StateAsync("AB01"), await StateAsync("BE02")));
        }

        var aside = (await book.Rounds.ParcelsAsync(released.Round, Cancel)).Single(p => p.Customer == "AB01");
        Assert.Contains("twice", aside.Problem, StringComparison.Ordinal);
        Assert.True(await book.Rounds.RetryAsync(aside.Id, book.Person, TestBook.Now, Cancel));
        await DrainAsync();
        Assert.Equal((ParcelState.Sent, ParcelState.Sent), (await StateAsync("AB01"), await StateAsync("BE02")));

        async Task<ParcelState> StateAsync(string customer) => (await book.StatesAsync(released.Round))[customer];
    }

    [Fact]
    public async Task A_book_that_is_busy_enough_is_passed_over_and_the_next_has_its_turn()
    {
        var other = await Postgres.NewBookAsync(source);
        await book.ReleasedAsync("AB01", "BE02");
        await other.ReleasedAsync("CO03");
        await using var worker = await queue.RegisterAsync(Cancel);
        Assert.Equal(["CO03"], (await queue.ClaimAsync(worker.Number, 5, [book.Id], TestBook.Now, Cancel)).Select(p => p.Card.Key));
        Assert.Empty(await queue.ClaimAsync(worker.Number, 5, [book.Id, other.Id], TestBook.Now, Cancel));
        Assert.Equal(["AB01", "BE02"], (await queue.ClaimAsync(worker.Number, 5, [other.Id], TestBook.Now, Cancel)).Select(p => p.Card.Key).Order());
    }

    [Fact]
    public async Task A_parcel_that_is_being_made_is_stopped_and_its_message_does_not_begin()
    {
        var released = await book.ReleasedAsync("AB01");
        await using var worker = await queue.RegisterAsync(Cancel);
        var parcel = (await ClaimAsync(worker, TestBook.Now))!;
        Assert.Equal(1, await book.Rounds.StopAsync(released.Round, Cancel));
        Assert.Equal(ParcelState.Prepared, (await book.StatesAsync(released.Round))["AB01"]);
        Assert.Null(await queue.BeginTryAsync(parcel, worker.Number, Message(parcel), null, TestBook.Now));
    }

    [Theory]
    [InlineData(false, ParcelState.Released, "stopped")]
    [InlineData(true, ParcelState.Unsure, "unanswered")]
    public async Task A_try_that_was_cut_off_is_unsure_only_once_the_server_was_given_the_end(bool givenTheEnd, ParcelState state, string ending)
    {
        var released = await book.ReleasedAsync("AB01");
        await using (var dying = await queue.RegisterAsync(Cancel))
        {
            var parcel = (await ClaimAsync(dying, TestBook.Now))!;
            var dispatchTry = (await queue.BeginTryAsync(parcel, dying.Number, Message(parcel), null, TestBook.Now))!.Value;
            if (givenTheEnd)
            {
                Assert.True(await queue.MarkEndingAsync(parcel, dying.Number, dispatchTry, TestBook.Now));
            }

            await KillAsync(dying);
            await RecoverAsync(1);

            // The dead one was only slow after all: it must not give the server the end of a parcel that is no longer its own.
            Assert.False(await queue.MarkEndingAsync(parcel, dying.Number, dispatchTry, TestBook.Now));
        }

        Assert.Equal(state, (await book.StatesAsync(released.Round))["AB01"]);
        Assert.Equal(ending, Assert.Single(await new DispatchLog(source, book.Id).SearchAsync(new LogSearch(), 10, Cancel)).Ending);
        if (state == ParcelState.Unsure)
        {
            Assert.Null(await ClaimAsync());
            Assert.True(await book.Rounds.DecideUnsureAsync((await book.Rounds.ParcelsAsync(released.Round, Cancel))[0].Id, went: false, book.Person, TestBook.Now, Cancel));
            Assert.Equal("Decided to send it again.", Assert.Single(await new DispatchLog(source, book.Id).NotesAsync((await book.Rounds.ParcelsAsync(released.Round, Cancel))[0].Id, Cancel)).Text);
        }

        await DrainAsync();
        Assert.Equal(ParcelState.Sent, (await book.StatesAsync(released.Round))["AB01"]);
    }

    [Theory]
    [InlineData(false, ParcelState.Released, "stopped")]
    [InlineData(true, ParcelState.Unsure, "unanswered")]
    public async Task Who_was_killed_between_writing_down_that_the_end_goes_out_and_its_going_out_leaves_nothing_unsure(bool wasNoted, ParcelState state, string ending)
    {
        var released = await book.ReleasedAsync("AB01");
        await using (var dying = await queue.RegisterAsync(Cancel))
        {
            var parcel = (await ClaimAsync(dying, TestBook.Now))!;
            var dispatchTry = (await queue.BeginTryAsync(parcel, dying.Number, Message(parcel), null, TestBook.Now))!.Value;
            Assert.True(await queue.MarkEndingAsync(parcel, dying.Number, dispatchTry, TestBook.Now));
            GivenEndsTests.Kill(given, folder, dying.Number, wasNoted ? [dispatchTry] : [dispatchTry + 1]);
            await KillAsync(dying);
            await RecoverAsync(1);
        }

        Assert.Equal(state, (await book.StatesAsync(released.Round))["AB01"]);
        Assert.Equal(ending, Assert.Single(await new DispatchLog(source, book.Id).SearchAsync(new LogSearch(), 10, Cancel)).Ending);
        Assert.Empty(Directory.GetFiles(folder));
    }

    [Fact]
    public async Task A_database_is_told_from_every_other_and_stays_the_same()
    {
        await using var other = await postgres.NewDatabaseAsync();
        var known = await queue.DatabaseAsync(CancellationToken.None);
        Assert.NotEqual(known, await new DispatchQueue(other).DatabaseAsync(CancellationToken.None));
        Assert.Equal(known, await new DispatchQueue(source).DatabaseAsync(CancellationToken.None));
    }

    [Fact]
    public async Task Every_try_of_a_parcel_carries_the_same_message()
    {
        var released = await book.ReleasedAsync("AB01");
        await using var worker = await queue.RegisterAsync(Cancel);
        var first = (await ClaimAsync(worker, TestBook.Now))!;
        await SendAsync(first, worker.Number, new Outcome(Ending.TryLater, "451 4.3.0 later", []));
        Assert.Equal(ParcelState.ToBeRetried, (await book.StatesAsync(released.Round))["AB01"]);
        Assert.Null(await ClaimAsync(worker, TestBook.Now.AddSeconds(59)));

        var second = (await ClaimAsync(worker, TestBook.Now.AddMinutes(1)))!;
        Assert.Equal(2, second.Tries);
        Assert.Equal(Message(first).Bytes, second.Message);
        await SendAsync(second, worker.Number, Accepted);

        var log = await new DispatchLog(source, book.Id).SearchAsync(new LogSearch("AB01"), 10, Cancel);
        Assert.Equal(["accepted", "try-later"], log.Select(e => e.Ending));
        Assert.Single(log.Select(e => e.MessageId).Distinct());
        Assert.Equal("451 4.3.0 later", log[1].Answer);
    }

    [Fact]
    public async Task A_refused_sign_in_stops_the_sender_once_and_the_parcels_wait()
    {
        var released = await book.ReleasedAsync("AB01", "BE02");
        await using var worker = await queue.RegisterAsync(Cancel);
        await SendAsync((await ClaimAsync(worker, TestBook.Now))!, worker.Number, new Outcome(Ending.SignInRefused, "535 5.7.8 no", []));
        Assert.Null(await ClaimAsync(worker, TestBook.Now.AddDays(1)));

        var senders = new SenderStore(source, book.Id);
        var sender = (await senders.FindAsync(released.Sender, Cancel))!;
        Assert.Equal("The mail server refused the sign-in: 535 5.7.8 no", sender.Paused);
        Assert.True(await senders.UpdateAsync(sender, Today, Cancel));
        await DrainAsync();
        Assert.All((await book.StatesAsync(released.Round)).Values, state => Assert.Equal(ParcelState.Sent, state));
    }

    [Fact]
    public async Task A_paused_round_waits_and_goes_on()
    {
        var released = await book.ReleasedAsync("AB01");
        await book.Rounds.PauseAsync(released.Round, true, Cancel);
        Assert.Null(await ClaimAsync());
        await book.Rounds.PauseAsync(released.Round, false, Cancel);
        await DrainAsync();
        Assert.Equal(ParcelState.Sent, (await book.StatesAsync(released.Round))["AB01"]);
    }

    [Fact]
    public async Task A_server_that_is_away_keeps_the_sender_waiting_with_growing_pauses_and_uses_up_no_tries()
    {
        var released = await book.ReleasedAsync("AB01", "BE02", "CO03");
        var away = new Outcome(Ending.Unreachable, "127.0.0.1:2525 – Connection refused", []);
        await using var worker = await queue.RegisterAsync(Cancel);

        // Two that find it out at once count as one.
        var first = (await ClaimAsync(worker, TestBook.Now))!;
        var second = (await ClaimAsync(worker, TestBook.Now))!;
        await SendAsync(first, worker.Number, away);
        await SendAsync(second, worker.Number, away);
        var senders = new SenderStore(source, book.Id);
        Assert.Equal(new SenderAway(1, TestBook.Now, away.Answer, TestBook.Now.AddSeconds(10)), (await senders.FindAsync(released.Sender, Cancel))!.Away);
        Assert.Null(await ClaimAsync(worker, TestBook.Now.AddSeconds(9)));
        Assert.Equal(TestBook.Now.AddSeconds(10), await queue.NextTurnAsync(TestBook.Now, Cancel));

        var again = (await ClaimAsync(worker, TestBook.Now.AddSeconds(10)))!;
        await SendAsync(again, worker.Number, away);
        Assert.Equal(2, (await senders.FindAsync(released.Sender, Cancel))!.Away!.Times);

        // Back again: everything goes, at its first try.
        while (await ClaimAsync(worker, TestBook.Now.AddMinutes(1)) is { } parcel)
        {
            Assert.Equal(1, parcel.Tries);
            await SendAsync(parcel, worker.Number, Accepted);
        }

        Assert.Null((await senders.FindAsync(released.Sender, Cancel))!.Away);
        Assert.All((await book.StatesAsync(released.Round)).Values, state => Assert.Equal(ParcelState.Sent, state));
    }

    [Fact]
    public async Task The_allowance_a_minute_is_held_by_all_workers_together()
    {
        const int aMinute = 120;
        var released = await book.ReleasedAsync([.. Enumerable.Range(0, 400).Select(i => $"C{i:000}")]);
        await AllowAsync(released, aMinute, null);
        await using var one = await queue.RegisterAsync(Cancel);
        await using var two = await queue.RegisterAsync(Cancel);
        await using var three = await queue.RegisterAsync(Cancel);

        // Workers that look at uneven moments, all three at once each time.
        var uneven = new Random(11);
        var begun = new List<DateTimeOffset>();
        for (var now = TestBook.Now; now < TestBook.Now.AddMinutes(2); now = now.AddMilliseconds(uneven.Next(20, 700)))
        {
            var claims = await Task.WhenAll(new[] { one, two, three }.Select(w => ClaimAsync(w, now)));
            begun.AddRange(claims.OfType<ClaimedParcel>().Select(_ => now));
        }

        Assert.InRange(begun.Count, 2 * aMinute * 0.95, 2 * aMinute * 1.05);
        Assert.All(begun, from => Assert.InRange(begun.Count(b => b >= from && b < from.AddMinutes(1)), 0, aMinute * 1.05));
        Assert.NotNull(await queue.NextTurnAsync(begun[^1], Cancel));
    }

    [Fact]
    public async Task What_the_allowance_of_a_day_leaves_over_goes_on_the_next_day_of_the_book()
    {
        var released = await book.ReleasedAsync([.. Enumerable.Range(0, 8).Select(i => $"C{i}")]);
        await AllowAsync(released, null, 5);
        await using var worker = await queue.RegisterAsync(Cancel);
        Assert.Equal(5, await DrainUntilAsync(TestBook.Now));
        Assert.Equal(5, (await new SenderStore(source, book.Id).BegunAsync(Today, Cancel))[released.Sender]);
        Assert.Equal(0, await DrainUntilAsync(TestBook.Now.Date.AddHours(23)));
        Assert.Equal(3, await DrainUntilAsync(TestBook.Now.Date.AddHours(24)));

        async Task<int> DrainUntilAsync(DateTimeOffset now)
        {
            var count = 0;
            for (; await ClaimAsync(worker, now) is { } parcel; count++)
            {
                await SendAsync(parcel, worker.Number, Accepted);
            }

            return count;
        }
    }

    [Fact]
    public async Task An_allowance_given_in_the_middle_of_a_day_counts_what_was_begun_before()
    {
        var released = await book.ReleasedAsync("AB01", "BE02", "CO03");
        await using var worker = await queue.RegisterAsync(Cancel);
        await SendAsync((await ClaimAsync(worker, TestBook.Now))!, worker.Number, Accepted);
        await AllowAsync(released, null, 2);
        Assert.NotNull(await ClaimAsync(worker, TestBook.Now));
        Assert.Null(await ClaimAsync(worker, TestBook.Now));
    }

    [Fact]
    public async Task Who_had_the_message_at_an_earlier_try_is_known()
    {
        await book.ReleasedAsync("AB01");
        await using var worker = await queue.RegisterAsync(Cancel);
        var parcel = (await ClaimAsync(worker, TestBook.Now))!;
        Assert.Empty(parcel.Taken);
        var outcome = Accepted with { Recipients = [new("a@inn.example", true, "250 ok"), new("b@inn.example", false, "450 busy")] };
        await SendAsync(parcel, worker.Number, outcome);
        Assert.Equal(["a@inn.example"], (await ClaimAsync(worker, TestBook.Now.AddDays(1)))!.Taken);
    }

    [Fact]
    public async Task Several_are_claimed_at_once_in_their_order_and_what_is_held_to_an_allowance_one_at_a_time()
    {
        var released = await book.ReleasedAsync("AB01", "BE02", "CO03", "DU04", "EL05", "FE06");
        await using var worker = await queue.RegisterAsync(Cancel);
        Assert.Equal(["AB01", "BE02", "CO03"], (await queue.ClaimAsync(worker.Number, 3, [], TestBook.Now, Cancel)).Select(p => p.Card.Key));
        await AllowAsync(released, 60, null);
        await book.ReleasedAsync("GA07");
        Assert.Equal(["DU04", "GA07"], (await queue.ClaimAsync(worker.Number, 5, [], TestBook.Now, Cancel)).Select(p => p.Card.Key));
        Assert.Equal(["EL05"], (await queue.ClaimAsync(worker.Number, 5, [], TestBook.Now, Cancel)).Select(p => p.Card.Key));
    }

    [Fact]
    public async Task A_parcel_whose_round_is_paused_after_it_was_claimed_is_not_begun_and_comes_again_when_it_goes_on()
    {
        var released = await book.ReleasedAsync("AB01");
        await using var worker = await queue.RegisterAsync(Cancel);
        var parcel = (await ClaimAsync(worker, TestBook.Now))!;
        var rounds = new RoundStore(source, book.Id);
        await rounds.PauseAsync(released.Round, true, Cancel);
        Assert.Null(await queue.BeginTryAsync(parcel, worker.Number, Message(parcel), null, TestBook.Now));
        await queue.GiveBackAsync(parcel, worker.Number, Cancel);
        Assert.Equal(ParcelState.Released, (await book.StatesAsync(released.Round))["AB01"]);
        Assert.Null(await ClaimAsync(worker, TestBook.Now));

        await rounds.PauseAsync(released.Round, false, Cancel);
        var again = (await ClaimAsync(worker, TestBook.Now))!;
        Assert.Equal(1, again.Tries);
        await SendAsync(again, worker.Number, Accepted);
        Assert.Equal(ParcelState.Sent, (await book.StatesAsync(released.Round))["AB01"]);
    }

    [Fact]
    public async Task The_steps_of_many_tries_at_once_are_each_their_own()
    {
        var released = await book.ReleasedAsync([.. Enumerable.Range(0, 30).Select(i => $"C{i:00}")]);
        await using var worker = await queue.RegisterAsync(Cancel);
        var claimed = await queue.ClaimAsync(worker.Number, 30, [], TestBook.Now, Cancel);
        var outcomes = await Task.WhenAll(claimed.Select(async (parcel, i) =>
        {
            // Every third is no longer this worker's, as it believes.
            if (i % 3 == 0)
            {
                return await queue.BeginTryAsync(parcel, worker.Number + 1, Message(parcel), null, TestBook.Now) is null;
            }

            await SendAsync(parcel, worker.Number, i % 3 == 1 ? Accepted : new Outcome(Ending.Refused, $"550 no such address {i}", []));
            return true;
        }));
        Assert.All(outcomes, Assert.True);
        var states = await book.StatesAsync(released.Round);
        Assert.Equal([ParcelState.Sending, ParcelState.Sent, ParcelState.Refused], claimed.Take(3).Select(p => states[p.Card.Key]));
        Assert.Equal((10, 10, 10), ((int)await CountAsync("sending"), (int)await CountAsync("sent"), (int)await CountAsync("refused")));
        Assert.Equal(20L, await source.CreateCommand("select count(*) from message").ExecuteScalarAsync(Cancel));
        Assert.Equal(10L, await source.CreateCommand("select count(distinct answer) from dispatch_try where ending = 'refused'").ExecuteScalarAsync(Cancel));

        async Task<long> CountAsync(string state) => (await new RoundStore(source, book.Id).CountsAsync(released.Round, Cancel)).GetValueOrDefault(state);
    }

    [Fact]
    public async Task What_cannot_be_written_down_of_one_try_does_not_keep_others_begun_at_once_from_it()
    {
        await book.ReleasedAsync([.. Enumerable.Range(0, 6).Select(i => $"C{i}")]);
        await using var worker = await queue.RegisterAsync(Cancel);
        var claimed = await queue.ClaimAsync(worker.Number, 6, [], TestBook.Now, Cancel);
        var twice = Message(claimed[0]);
        var begun = claimed.Select((parcel, i) => queue.BeginTryAsync(parcel, worker.Number, i < 2 ? twice : Message(parcel), null, TestBook.Now)).ToList();
        await Assert.ThrowsAsync<PostgresException>(() => Task.WhenAll(begun));
        Assert.Equal(1, begun.Count(b => b.IsFaulted));
        Assert.Equal(5, (await Task.WhenAll(begun.Where(b => !b.IsFaulted))).Count(id => id is not null));
    }

    private async Task AllowAsync(ReleasedRound released, int? aMinute, int? aDay)
    {
        var senders = new SenderStore(source, book.Id);
        Assert.True(await senders.UpdateAsync((await senders.FindAsync(released.Sender, Cancel))! with { AMinute = aMinute, ADay = aDay }, Today, Cancel));
    }

    [Fact]
    public async Task The_end_of_a_round_is_noted_once_when_nothing_of_it_is_on_its_way_however_many_look()
    {
        var released = await book.ReleasedAsync("AB01", "BE02");
        var ends = new RoundEnds(source);
        await using (var worker = await queue.RegisterAsync(Cancel))
        {
            var first = (await ClaimAsync(worker, TestBook.Now))!;
            var second = (await ClaimAsync(worker, TestBook.Now))!;
            await SendAsync(first, worker.Number, Accepted);
            Assert.Empty(await ends.NoteAsync(TestBook.Now, Cancel));
            await SendAsync(second, worker.Number, new Outcome(Ending.Refused, "550 no", []));
        }

        var noted = (await Task.WhenAll(Enumerable.Range(0, 5).Select(_ => ends.NoteAsync(TestBook.Now, Cancel)))).SelectMany(n => n);
        var (end, _, address) = Assert.Single(noted);
        Assert.Equal((released.Round, ""), (end.Round, address));
        Assert.Equal([("refused", 1), ("sent", 1)], end.Counts.OrderBy(c => c.Key).Select(c => (c.Key, c.Value)));
        Assert.Equal(new WentAmiss("BE02", "refused", "550 no"), (await ends.AmissAsync(end, 10, Cancel)).Single() with { Name = "BE02" });
        Assert.Equal(end.Id, Assert.Single(await ends.UnseenAsync(book.Id, book.Person, Cancel)).Id);
        Assert.Empty(await ends.UnseenAsync(book.Id, book.Person + 1, Cancel));
        await ends.SeenAsync(book.Id, released.Round, book.Person, TestBook.Now, Cancel);
        Assert.Empty(await ends.UnseenAsync(book.Id, book.Person, Cancel));
    }

    [Theory]
    [InlineData("update message set subject = 'another'")]
    [InlineData("delete from message")]
    [InlineData("update dispatch_try set answer = 'another'")]
    [InlineData("delete from dispatch_try")]
    public async Task What_stands_in_the_log_is_neither_altered_nor_removed(string sql)
    {
        await book.ReleasedAsync("AB01");
        await DrainAsync();
        await using var owner = postgres.OwnerOf(source);
        var refused = await Assert.ThrowsAsync<PostgresException>(() => RunAsync(owner, sql));
        Assert.Equal("The record of what went out cannot be altered or removed.", refused.MessageText);
    }

    private static async Task RunAsync(NpgsqlDataSource source, string sql)
    {
        await using var command = source.CreateCommand(sql);
        await command.ExecuteNonQueryAsync(Cancel);
    }

    [Fact]
    public async Task A_stored_message_that_was_tampered_with_is_not_shown_as_what_was_sent()
    {
        var released = await book.ReleasedAsync("AB01");
        await DrainAsync();
        var log = new DispatchLog(source, book.Id);
        var parcel = (await book.Rounds.ParcelsAsync(released.Round, Cancel))[0].Id;
        Assert.Equal("message to AB01@inn.example", Encoding.UTF8.GetString((await log.MessageAsync(parcel, Cancel))!));

        // Only who owns the database can do this at all.
        await using var owner = postgres.OwnerOf(source);
        await RunAsync(owner, "alter table message disable trigger message_stays");
        await RunAsync(owner, "update message set bytes = 'other'");
        await Assert.ThrowsAsync<InvalidDataException>(() => log.MessageAsync(parcel, Cancel));
    }

    private static OutgoingMessage Message(ClaimedParcel parcel)
    {
        var bytes = Encoding.UTF8.GetBytes($"message to {parcel.Recipients[0]}");
        return new OutgoingMessage($"{parcel.Book}.{parcel.Parcel}@tarnbrook.example", bytes, SHA256.HashData(bytes));
    }

    private async Task SendAsync(ClaimedParcel parcel, long worker, Outcome outcome)
    {
        var dispatchTry = (await queue.BeginTryAsync(parcel, worker, parcel.Message is null ? Message(parcel) : null, null, TestBook.Now))!.Value;
        Assert.True(await queue.MarkEndingAsync(parcel, worker, dispatchTry, TestBook.Now));
        await queue.EndTryAsync(parcel, worker, dispatchTry, outcome, NextStep.Following(outcome, parcel.Tries, NextStep.DefaultPauses), TestBook.Now);
    }

    private async Task<ClaimedParcel?> ClaimAsync(WorkerConnection worker, DateTimeOffset now) => (await queue.ClaimAsync(worker.Number, 1, [], now, Cancel)).SingleOrDefault();

    private async Task<ClaimedParcel?> ClaimAsync()
    {
        await using var worker = await queue.RegisterAsync(Cancel);
        return await ClaimAsync(worker, TestBook.Now);
    }

    private async Task DrainAsync()
    {
        await using var worker = await queue.RegisterAsync(Cancel);
        while (await ClaimAsync(worker, TestBook.Now.AddDays(1)) is { } parcel)
        {
            await SendAsync(parcel, worker.Number, Accepted);
        }
    }

    /// <summary>Ends the server's side of a worker's connection, as a crash of the worker's machine would.</summary>
    private async Task KillAsync(WorkerConnection worker)
    {
        await using var command = source.CreateCommand("select count(pg_terminate_backend(pid)) from pg_locks where locktype = 'advisory' and objid = $1 and objsubid = 2");
        command.Parameters.Add(new() { Value = worker.Number });
        Assert.Equal(1L, await command.ExecuteScalarAsync(Cancel));
        await Assert.ThrowsAnyAsync<NpgsqlException>(() => worker.WaitAsync(TimeSpan.FromMinutes(1), Cancel));
    }

    /// <summary>Recovers until as many parcels were seen to: the server needs a moment to end a connection.</summary>
    private async Task RecoverAsync(int parcels)
    {
        var seenTo = 0;
        while (seenTo < parcels)
        {
            seenTo += await queue.RecoverAsync(given, TestBook.Now, Cancel);
        }

        Assert.Equal(parcels, seenTo);
    }
}
