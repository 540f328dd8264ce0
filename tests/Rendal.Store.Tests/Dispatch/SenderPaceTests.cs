using Rendal.Core.Dispatch;
using Rendal.Store.Dispatch;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;

namespace Rendal.Store.Tests.Dispatch;

public class SenderPaceTests(Postgres postgres) : QueueTest(postgres)
{
    [Fact]
    public async Task A_refused_sign_in_stops_the_sender_once_and_the_parcels_wait()
    {
        var released = await Book.ReleasedAsync("AB01", "BE02");
        await using var worker = await Queue.RegisterAsync(Cancel);
        await SendAsync(
            (await ClaimAsync(worker, TestBook.Now))!,
            worker.Number,
            new Outcome(OutcomeKind.SignInRefused, "535 5.7.8 no", [])
        );
        Assert.Null(await ClaimAsync(worker, TestBook.Now.AddDays(1)));

        var senders = new SenderStore(Source, Book.Id);
        var sender = (await senders.FindAsync(released.Sender, Cancel))!;
        Assert.Equal("The mail server refused the sign-in: 535 5.7.8 no", sender.Paused);
        Assert.True(await senders.UpdateAsync(sender, Book.Person, Today, Cancel));
        await DrainAsync();
        Assert.All((await Book.StatesAsync(released.Round)).Values, state => Assert.Equal(ParcelState.Sent, state));
    }

    [Fact]
    public async Task A_paused_round_waits_and_goes_on()
    {
        var released = await Book.ReleasedAsync("AB01");
        await Book.Release.PauseAsync(released.Round, true, Cancel);
        Assert.Null(await ClaimAsync());
        await Book.Release.PauseAsync(released.Round, false, Cancel);
        await DrainAsync();
        Assert.Equal(ParcelState.Sent, (await Book.StatesAsync(released.Round))["AB01"]);
    }

    [Fact]
    public async Task A_server_that_is_away_keeps_the_sender_waiting_with_growing_pauses_and_uses_up_no_tries()
    {
        var released = await Book.ReleasedAsync("AB01", "BE02", "CO03");
        var away = new Outcome(OutcomeKind.Unreachable, "127.0.0.1:2525 – Connection refused", []);
        await using var worker = await Queue.RegisterAsync(Cancel);

        // Two that find it out at once count as one.
        var first = (await ClaimAsync(worker, TestBook.Now))!;
        var second = (await ClaimAsync(worker, TestBook.Now))!;
        await SendAsync(first, worker.Number, away);
        await SendAsync(second, worker.Number, away);
        var senders = new SenderStore(Source, Book.Id);
        Assert.Equal(
            new ServerUnreachable(1, TestBook.Now, away.Answer, TestBook.Now.AddSeconds(10)),
            (await senders.FindAsync(released.Sender, Cancel))!.Unreachable
        );
        Assert.Null(await ClaimAsync(worker, TestBook.Now.AddSeconds(9)));
        Assert.Equal(TestBook.Now.AddSeconds(10), await Queue.NextTurnAsync(TestBook.Now, Cancel));

        var again = (await ClaimAsync(worker, TestBook.Now.AddSeconds(10)))!;
        await SendAsync(again, worker.Number, away);
        Assert.Equal(2, (await senders.FindAsync(released.Sender, Cancel))!.Unreachable!.Times);

        // Back again: everything goes, at its first try.
        while (await ClaimAsync(worker, TestBook.Now.AddMinutes(1)) is { } parcel)
        {
            Assert.Equal(1, parcel.Attempts);
            await SendAsync(parcel, worker.Number, Accepted);
        }

        Assert.Null((await senders.FindAsync(released.Sender, Cancel))!.Unreachable);
        Assert.All((await Book.StatesAsync(released.Round)).Values, state => Assert.Equal(ParcelState.Sent, state));
    }

    [Fact]
    public async Task The_allowance_a_minute_is_held_by_all_workers_together()
    {
        const int aMinute = 120;
        var released = await Book.ReleasedAsync([.. Enumerable.Range(0, 400).Select(i => $"C{i:000}")]);
        await AllowAsync(released, aMinute, null);
        await using var one = await Queue.RegisterAsync(Cancel);
        await using var two = await Queue.RegisterAsync(Cancel);
        await using var three = await Queue.RegisterAsync(Cancel);

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
        Assert.NotNull(await Queue.NextTurnAsync(begun[^1], Cancel));
    }

    [Fact]
    public async Task What_the_allowance_of_a_day_leaves_over_goes_on_the_next_day_of_the_book()
    {
        var released = await Book.ReleasedAsync([.. Enumerable.Range(0, 8).Select(i => $"C{i}")]);
        await AllowAsync(released, null, 5);
        await using var worker = await Queue.RegisterAsync(Cancel);
        Assert.Equal(5, await DrainUntilAsync(TestBook.Now));
        Assert.Equal(5, (await new SenderStore(Source, Book.Id).BegunAsync(Today, Cancel))[released.Sender]);
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
        var released = await Book.ReleasedAsync("AB01", "BE02", "CO03");
        await using var worker = await Queue.RegisterAsync(Cancel);
        await SendAsync((await ClaimAsync(worker, TestBook.Now))!, worker.Number, Accepted);
        await AllowAsync(released, null, 2);
        Assert.NotNull(await ClaimAsync(worker, TestBook.Now));
        Assert.Null(await ClaimAsync(worker, TestBook.Now));
    }

    [Fact]
    public async Task A_parcel_whose_round_is_paused_after_it_was_claimed_is_not_begun_and_comes_again_when_it_goes_on()
    {
        var released = await Book.ReleasedAsync("AB01");
        await using var worker = await Queue.RegisterAsync(Cancel);
        var parcel = (await ClaimAsync(worker, TestBook.Now))!;
        var release = new RoundRelease(Source, Book.Id);
        await release.PauseAsync(released.Round, true, Cancel);
        Assert.Null(await Queue.BeginAttemptAsync(parcel, worker.Number, Message(parcel), null, TestBook.Now));
        await Queue.GiveBackAsync(parcel, worker.Number, Cancel);
        Assert.Equal(ParcelState.Released, (await Book.StatesAsync(released.Round))["AB01"]);
        Assert.Null(await ClaimAsync(worker, TestBook.Now));

        await release.PauseAsync(released.Round, false, Cancel);
        var again = (await ClaimAsync(worker, TestBook.Now))!;
        Assert.Equal(1, again.Attempts);
        await SendAsync(again, worker.Number, Accepted);
        Assert.Equal(ParcelState.Sent, (await Book.StatesAsync(released.Round))["AB01"]);
    }
}
