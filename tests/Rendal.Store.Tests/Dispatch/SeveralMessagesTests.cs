using Rendal.Core.Dispatch;
using Rendal.Store.Dispatch;

namespace Rendal.Store.Tests.Dispatch;

/// <summary>What is too large for one message goes as several, one after the other, and each is in the record.</summary>
public class SeveralMessagesTests(Postgres postgres) : QueueTest(postgres)
{
    [Fact]
    public async Task The_messages_of_a_parcel_follow_each_other_and_it_is_sent_with_the_last()
    {
        var released = await ReleasedAsync(messages: 3);
        await using var worker = await Queue.RegisterAsync(Cancel);
        for (var index = 0; index < 3; index++)
        {
            Assert.NotEqual(ParcelState.Sent, await StateAsync(released));
            var parcel = (await ClaimAsync(worker, TestBook.Now))!;
            Assert.Equal((index, 3, 1, true), (parcel.MessageIndex, parcel.Messages, parcel.Attempts, parcel.Message is null));
            await SendAsync(parcel, worker.Number, Accepted);
        }

        Assert.Equal(ParcelState.Sent, await StateAsync(released));
        Assert.Null(await ClaimAsync(worker, TestBook.Now.AddDays(1)));
        var log = new DispatchLog(Source, Book.Id);
        var entries = await log.SearchAsync(new LogSearch(), 10, Cancel);
        Assert.Equal([2, 1, 0], entries.Select(e => e.Message));
        Assert.Equal(3, entries.Select(e => e.MessageId).Distinct().Count());
        Assert.All(entries, e => Assert.Equal(OutcomeKind.Accepted, e.Outcome));
        Assert.NotNull(await log.MessageAsync(entries[0].Parcel, 2, Cancel));
        Assert.Null(await log.MessageAsync(entries[0].Parcel, 3, Cancel));
    }

    [Fact]
    public async Task What_went_does_not_go_again_when_a_later_message_is_put_off()
    {
        var released = await ReleasedAsync(messages: 2);
        await using var worker = await Queue.RegisterAsync(Cancel);
        await SendAsync((await ClaimAsync(worker, TestBook.Now))!, worker.Number, Accepted);
        var second = (await ClaimAsync(worker, TestBook.Now))!;
        await SendAsync(second, worker.Number, new Outcome(OutcomeKind.TryLater, "450 not now", []));
        Assert.Equal(ParcelState.ToBeRetried, await StateAsync(released));
        var again = (await ClaimAsync(worker, TestBook.Now.AddHours(1)))!;
        Assert.Equal((1, 2, false), (again.MessageIndex, again.Attempts, again.Message is null));
        await SendAsync(again, worker.Number, Accepted);
        Assert.Equal(ParcelState.Sent, await StateAsync(released));
        Assert.Equal(
            [(0, OutcomeKind.Accepted), (1, OutcomeKind.TryLater), (1, OutcomeKind.Accepted)],
            (await new DispatchLog(Source, Book.Id).SearchAsync(new LogSearch(), 10, Cancel))
                .OrderBy(e => e.Id)
                .Select(e => (e.Message, e.Outcome!.Value))
        );
    }

    [Fact]
    public async Task Whoever_had_the_first_message_is_asked_for_nothing_at_the_second()
    {
        await ReleasedAsync(messages: 2);
        await using var worker = await Queue.RegisterAsync(Cancel);
        var first = (await ClaimAsync(worker, TestBook.Now))!;
        await SendAsync(first, worker.Number, Accepted with { Recipients = [new RecipientAnswer(first.Recipients[0], true, "250 ok")] });
        Assert.Empty((await ClaimAsync(worker, TestBook.Now))!.Taken);
    }

    [Theory]
    [InlineData(true, 1, ParcelState.ToBeRetried)]
    [InlineData(false, 0, ParcelState.Released)]
    public async Task An_unsure_message_that_is_said_to_have_gone_is_followed_by_the_next(bool went, int next, ParcelState state)
    {
        var released = await ReleasedAsync(messages: 2);
        await using var worker = await Queue.RegisterAsync(Cancel);
        var parcel = (await ClaimAsync(worker, TestBook.Now))!;
        await SendAsync(parcel, worker.Number, new Outcome(OutcomeKind.Unanswered, "cut off", []));
        Assert.Equal(ParcelState.Unsure, await StateAsync(released));
        Assert.True(await Book.Dispatch.DecideUnsureAsync(parcel.Parcel, went, Book.Person, TestBook.Now, Cancel));
        Assert.Equal(state, await StateAsync(released));
        Assert.Equal(next, (await ClaimAsync(worker, TestBook.Now))!.MessageIndex);
    }

    [Fact]
    public async Task A_parcel_of_which_one_message_went_is_not_stopped_with_the_rest()
    {
        var released = await ReleasedAsync(messages: 2, "AB01", "BE02");
        await using var worker = await Queue.RegisterAsync(Cancel);
        var begun = (await ClaimAsync(worker, TestBook.Now))!;
        await SendAsync(begun, worker.Number, Accepted);
        await Book.Release.StopAsync(released.Round, Book.Person, TestBook.Now, Cancel);
        var states = await Book.StatesAsync(released.Round);
        Assert.Equal(ParcelState.Prepared, states.Single(s => s.Key != begun.Card.Key).Value);
        await DrainAsync();
        Assert.Equal(ParcelState.Sent, (await Book.StatesAsync(released.Round))[begun.Card.Key]);
    }

    [Fact]
    public async Task A_worker_that_dies_before_the_second_message_leaves_that_one_to_the_next()
    {
        var released = await ReleasedAsync(messages: 2);
        await using (var dying = await Queue.RegisterAsync(Cancel))
        {
            await SendAsync((await ClaimAsync(dying, TestBook.Now))!, dying.Number, Accepted);
            Assert.NotNull(await ClaimAsync(dying, TestBook.Now));
            await KillAsync(dying);
        }

        await RecoverAsync(1);
        await using var worker = await Queue.RegisterAsync(Cancel);
        Assert.Equal(1, (await ClaimAsync(worker, TestBook.Now))!.MessageIndex);
        Assert.Equal(ParcelState.Sending, await StateAsync(released));
    }

    private async Task<ReleasedRound> ReleasedAsync(int messages, params string[] customers)
    {
        var released = await Book.ReleasedAsync(customers.Length > 0 ? customers : ["AB01"]);
        await RunAsync(Source, FormattableString.Invariant($"update parcel set message_count = {messages}"));
        return released;
    }

    private async Task<ParcelState> StateAsync(ReleasedRound released) => (await Book.StatesAsync(released.Round))["AB01"];
}
