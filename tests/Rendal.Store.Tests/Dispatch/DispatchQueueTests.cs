using System.Security.Cryptography;
using System.Text;
using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Store.Dispatch;
using Rendal.Store.Senders;

namespace Rendal.Store.Tests.Dispatch;

/// <summary>The queue is one for all books, so each of these tests has a database of its own.</summary>
public class DispatchQueueTests(Postgres postgres) : IAsyncLifetime
{
    private static readonly Outcome Accepted = new(Ending.Accepted, "250 2.0.0 kept", [new RecipientAnswer("AB01@inn.example", true, "250 2.1.5 ok")]);

    private NpgsqlDataSource source = null!;
    private DispatchQueue queue = null!;
    private TestBook book = null!;

    private static DateOnly Today => DateOnly.FromDateTime(TestBook.Now.UtcDateTime);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        source = await postgres.NewDatabaseAsync();
        queue = new DispatchQueue(source);
        book = await Postgres.NewBookAsync(source);
    }

    public ValueTask DisposeAsync() => source.DisposeAsync();

    [Fact]
    public async Task Workers_that_claim_at_once_never_get_the_same_parcel()
    {
        var customers = Enumerable.Range(0, 40).Select(i => $"C{i:00}").ToArray();
        var released = await book.ReleasedAsync(customers);
        var claims = await Task.WhenAll(Enumerable.Range(0, 6).Select(async _ =>
        {
            await using var worker = await queue.RegisterAsync(Cancel);
            var mine = new List<string>();
            while (await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel) is { } parcel)
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
            Assert.NotNull(await queue.ClaimAsync(dying.Number, TestBook.Now, Cancel));
            Assert.Equal(0, await queue.RecoverAsync(TestBook.Now, Cancel));
            await KillAsync(dying);
        }

        await RecoverAsync(1);
        Assert.Equal(ParcelState.Released, (await book.StatesAsync(released.Round))["AB01"]);
        await DrainAsync();
        Assert.Equal(ParcelState.Sent, (await book.StatesAsync(released.Round))["AB01"]);
    }

    [Theory]
    [InlineData(false, ParcelState.Released, "stopped")]
    [InlineData(true, ParcelState.Unsure, "unanswered")]
    public async Task A_try_that_was_cut_off_is_unsure_only_once_the_server_was_given_the_end(bool givenTheEnd, ParcelState state, string ending)
    {
        var released = await book.ReleasedAsync("AB01");
        await using (var dying = await queue.RegisterAsync(Cancel))
        {
            var parcel = (await queue.ClaimAsync(dying.Number, TestBook.Now, Cancel))!;
            var dispatchTry = (await queue.BeginTryAsync(parcel, dying.Number, Message(parcel), null, TestBook.Now, Cancel))!.Value;
            if (givenTheEnd)
            {
                Assert.True(await queue.MarkEndingAsync(parcel, dying.Number, dispatchTry, TestBook.Now, Cancel));
            }

            await KillAsync(dying);
            await RecoverAsync(1);

            // The dead one was only slow after all: it must not give the server the end of a parcel that is no longer its own.
            Assert.False(await queue.MarkEndingAsync(parcel, dying.Number, dispatchTry, TestBook.Now, Cancel));
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

    [Fact]
    public async Task Every_try_of_a_parcel_carries_the_same_message()
    {
        var released = await book.ReleasedAsync("AB01");
        await using var worker = await queue.RegisterAsync(Cancel);
        var first = (await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel))!;
        await SendAsync(first, worker.Number, new Outcome(Ending.TryLater, "451 4.3.0 later", []));
        Assert.Equal(ParcelState.ToBeRetried, (await book.StatesAsync(released.Round))["AB01"]);
        Assert.Null(await queue.ClaimAsync(worker.Number, TestBook.Now.AddSeconds(59), Cancel));

        var second = (await queue.ClaimAsync(worker.Number, TestBook.Now.AddMinutes(1), Cancel))!;
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
        await SendAsync((await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel))!, worker.Number, new Outcome(Ending.SignInRefused, "535 5.7.8 no", []));
        Assert.Null(await queue.ClaimAsync(worker.Number, TestBook.Now.AddDays(1), Cancel));

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
        var first = (await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel))!;
        var second = (await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel))!;
        await SendAsync(first, worker.Number, away);
        await SendAsync(second, worker.Number, away);
        var senders = new SenderStore(source, book.Id);
        Assert.Equal(new SenderAway(1, TestBook.Now, away.Answer, TestBook.Now.AddSeconds(10)), (await senders.FindAsync(released.Sender, Cancel))!.Away);
        Assert.Null(await queue.ClaimAsync(worker.Number, TestBook.Now.AddSeconds(9), Cancel));
        Assert.Equal(TestBook.Now.AddSeconds(10), await queue.NextTurnAsync(TestBook.Now, Cancel));

        var again = (await queue.ClaimAsync(worker.Number, TestBook.Now.AddSeconds(10), Cancel))!;
        await SendAsync(again, worker.Number, away);
        Assert.Equal(2, (await senders.FindAsync(released.Sender, Cancel))!.Away!.Times);

        // Back again: everything goes, at its first try.
        while (await queue.ClaimAsync(worker.Number, TestBook.Now.AddMinutes(1), Cancel) is { } parcel)
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
            var claims = await Task.WhenAll(new[] { one, two, three }.Select(w => queue.ClaimAsync(w.Number, now, Cancel)));
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
            for (; await queue.ClaimAsync(worker.Number, now, Cancel) is { } parcel; count++)
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
        await SendAsync((await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel))!, worker.Number, Accepted);
        await AllowAsync(released, null, 2);
        Assert.NotNull(await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel));
        Assert.Null(await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel));
    }

    [Fact]
    public async Task Who_had_the_message_at_an_earlier_try_is_known()
    {
        await book.ReleasedAsync("AB01");
        await using var worker = await queue.RegisterAsync(Cancel);
        var parcel = (await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel))!;
        await SendAsync(parcel, worker.Number, Accepted with { Recipients = [new("a@inn.example", true, "250 ok"), new("b@inn.example", false, "450 busy")] });
        Assert.Equal(["a@inn.example"], await queue.TakenAsync(parcel, Cancel));
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
            var first = (await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel))!;
            var second = (await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel))!;
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
        var refused = await Assert.ThrowsAsync<PostgresException>(() => RunAsync(sql));
        Assert.Equal("The record of what went out cannot be altered or removed.", refused.MessageText);
    }

    private async Task RunAsync(string sql)
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
        await RunAsync("alter table message disable trigger message_stays");
        await RunAsync("update message set bytes = 'other'");
        await Assert.ThrowsAsync<InvalidDataException>(() => log.MessageAsync(parcel, Cancel));
    }

    private static OutgoingMessage Message(ClaimedParcel parcel)
    {
        var bytes = Encoding.UTF8.GetBytes($"message to {parcel.Recipients[0]}");
        return new OutgoingMessage($"{parcel.Book}.{parcel.Parcel}@tarnbrook.example", bytes, SHA256.HashData(bytes));
    }

    private async Task SendAsync(ClaimedParcel parcel, long worker, Outcome outcome)
    {
        var dispatchTry = (await queue.BeginTryAsync(parcel, worker, parcel.Message is null ? Message(parcel) : null, null, TestBook.Now, Cancel))!.Value;
        Assert.True(await queue.MarkEndingAsync(parcel, worker, dispatchTry, TestBook.Now, Cancel));
        await queue.EndTryAsync(parcel, worker, dispatchTry, outcome, NextStep.Following(outcome, parcel.Tries, NextStep.DefaultPauses), TestBook.Now, Cancel);
    }

    private async Task<ClaimedParcel?> ClaimAsync()
    {
        await using var worker = await queue.RegisterAsync(Cancel);
        return await queue.ClaimAsync(worker.Number, TestBook.Now, Cancel);
    }

    private async Task DrainAsync()
    {
        await using var worker = await queue.RegisterAsync(Cancel);
        while (await queue.ClaimAsync(worker.Number, TestBook.Now.AddDays(1), Cancel) is { } parcel)
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
            seenTo += await queue.RecoverAsync(TestBook.Now, Cancel);
        }

        Assert.Equal(parcels, seenTo);
    }
}
