using Rendal.Core.Dispatch;
using Rendal.Store.Dispatch;
using Rendal.Store.People;

namespace Rendal.Store.Tests.Dispatch;

public class RoundEndsTests(Postgres postgres) : QueueTest(postgres)
{
    [Fact]
    public async Task The_end_of_a_round_is_noted_once_when_nothing_of_it_is_on_its_way_however_many_look()
    {
        var released = await Book.ReleasedAsync("AB01", "BE02");
        var ends = new RoundEnds(Source);
        await using (var worker = await Queue.RegisterAsync(Cancel))
        {
            var first = (await ClaimAsync(worker, TestBook.Now))!;
            var second = (await ClaimAsync(worker, TestBook.Now))!;
            await SendAsync(first, worker.Number, Accepted);
            await ends.NoteAsync(TestBook.Now, Cancel);
            Assert.Empty(await ends.UnseenAsync(Book.Id, Book.Person, Cancel));
            await SendAsync(second, worker.Number, new Outcome(OutcomeKind.Refused, "550 no", []));
        }

        await Task.WhenAll(Enumerable.Range(0, 5).Select(_ => ends.NoteAsync(TestBook.Now, Cancel)));
        var end = Assert.Single(await ends.UnseenAsync(Book.Id, Book.Person, Cancel));
        Assert.Equal(released.Round, end.Round);
        Assert.Equal([("refused", 1), ("sent", 1)], end.Counts.OrderBy(c => c.Key).Select(c => (c.Key, c.Value)));
        Assert.Equal(new WentAmiss("BE02", "refused", "550 no"), (await ends.AmissAsync(end, 10, Cancel)).Single() with { Name = "BE02" });
        Assert.Empty(await ends.UnseenAsync(Book.Id, Book.Person + 1, Cancel));
        await ends.SeenAsync(Book.Id, released.Round, Book.Person, TestBook.Now, Cancel);
        Assert.Empty(await ends.UnseenAsync(Book.Id, Book.Person, Cancel));
    }

    [Fact]
    public async Task Who_released_a_round_is_told_that_another_stopped_it_before_anything_left()
    {
        var colleague = await new PersonStore(Source).AddAsync($"colleague-{Guid.NewGuid():N}", "hash", Cancel);
        var ends = new RoundEnds(Source);
        foreach (var (by, told) in new[] { (Book.Person, 0), (colleague, 1) })
        {
            var released = await Book.ReleasedAsync("AB01", "BE02");
            Assert.Equal((2, true), await Book.Release.StopAsync(released.Round, by, TestBook.Now, Cancel));
            await ends.NoteAsync(TestBook.Now, Cancel);
            var unseen = await ends.UnseenAsync(Book.Id, Book.Person, Cancel);
            Assert.Equal(told, unseen.Count);
            Assert.All(unseen, end => Assert.Equal((released.Round, 2), (end.Round, end.Counts["prepared"])));
        }
    }

    [Fact]
    public async Task Who_is_told_of_an_end_is_told_once_when_the_sender_may_send_and_by_its_allowance()
    {
        await RunAsync(Source, $"update person set address = 'owner@tarnbrook.example' where id = {Book.Person}");
        var (first, second) = (await Book.ReleasedAsync("AB01"), await Book.ReleasedAsync("AB01"));
        await RunAsync(Source, $"update round set sender_id = {first.Sender} where id = {second.Round}");
        var ends = new RoundEnds(Source);
        await using (var worker = await Queue.RegisterAsync(Cancel))
        {
            foreach (var _ in new[] { first, second })
            {
                await SendAsync((await ClaimAsync(worker, TestBook.Now))!, worker.Number, Accepted);
            }
        }

        await ends.NoteAsync(TestBook.Now, Cancel);
        await RunAsync(Source, $"update sender set paused = 'refused' where book_id = {Book.Id}");
        Assert.Null(await ends.ClaimToTellAsync(TestBook.Now, Cancel));
        await RunAsync(Source, $"update sender set paused = '' where book_id = {Book.Id}");
        await AllowAsync(first, 60, 3);
        var claimed = (await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => ends.ClaimToTellAsync(TestBook.Now, Cancel))))
            .OfType<EndToTell>()
            .ToList();
        Assert.Equal("owner@tarnbrook.example", Assert.Single(claimed).Address);

        // One a second; with the two parcels the day's three are used up.
        Assert.Null(await ends.ClaimToTellAsync(TestBook.Now.AddMinutes(5), Cancel));
        Assert.NotNull(await ends.ClaimToTellAsync(TestBook.Now.AddDays(1), Cancel));
        Assert.Null(await ends.ClaimToTellAsync(TestBook.Now.AddDays(2), Cancel));
    }
}
