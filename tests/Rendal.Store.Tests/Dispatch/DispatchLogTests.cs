using System.Security.Cryptography;
using System.Text;
using Rendal.Core.Dispatch;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Store.Dispatch;

namespace Rendal.Store.Tests.Dispatch;

public class DispatchLogTests(Postgres postgres) : QueueTest(postgres)
{
    public static TheoryData<OutcomeKind> Kinds => [.. Enum.GetValues<OutcomeKind>()];

    [Fact]
    public async Task Every_try_of_a_parcel_carries_the_same_message()
    {
        var released = await Book.ReleasedAsync("AB01");
        await using var worker = await Queue.RegisterAsync(Cancel);
        var first = (await ClaimAsync(worker, TestBook.Now))!;
        await SendAsync(first, worker.Number, new Outcome(OutcomeKind.TryLater, "451 4.3.0 later", []));
        Assert.Equal(ParcelState.ToBeRetried, (await Book.StatesAsync(released.Round))["AB01"]);
        Assert.Null(await ClaimAsync(worker, TestBook.Now.AddSeconds(59)));

        var second = (await ClaimAsync(worker, TestBook.Now.AddMinutes(1)))!;
        Assert.Equal(2, second.Attempts);
        Assert.Equal(Message(first).Bytes, second.Message);
        await SendAsync(second, worker.Number, Accepted);

        var log = await new DispatchLog(Source, Book.Id).SearchAsync(new LogSearch("AB01"), 10, Cancel);
        Assert.Equal([OutcomeKind.Accepted, OutcomeKind.TryLater], log.Select(e => e.Outcome));
        Assert.Single(log.Select(e => e.MessageId).Distinct());
        Assert.Equal("451 4.3.0 later", log[1].Answer);
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task Every_outcome_is_kept_and_read_back(OutcomeKind kind)
    {
        await Book.ReleasedAsync("AB01");
        await using var worker = await Queue.RegisterAsync(Cancel);
        var parcel = (await ClaimAsync(worker, TestBook.Now))!;
        var letter = kind == OutcomeKind.Printed ? new OutgoingLetter("AB01.pdf", [1], SHA256.HashData([1])) : null;
        var attempt = await Queue.BeginAttemptAsync(parcel, worker.Number, letter is null ? Message(parcel) : null, letter, TestBook.Now);
        var outcome = new Outcome(kind, "words", []);
        var next = NextStep.Following(outcome, parcel.Attempts, NextStep.DefaultPauses);
        await Queue.EndAttemptAsync(parcel, worker.Number, attempt!.Value, outcome, next, TestBook.Now);

        Assert.Equal(kind, (await new DispatchLog(Source, Book.Id).SearchAsync(new LogSearch(), 10, Cancel)).Single().Outcome);
    }

    /// <summary>An earlier version made customers searchable at the release, and not when their round was prepared.</summary>
    [Fact]
    public async Task What_an_earlier_version_prepared_is_found_once_it_has_gone_and_not_before()
    {
        var prepared = await Book.PreparedAsync("AB01", "AB02");
        await using (var forget = Source.CreateCommand("delete from addressee where words like 'AB01%'"))
        {
            Assert.Equal(1, await forget.ExecuteNonQueryAsync(Cancel));
        }

        var log = new DispatchLog(Source, Book.Id);
        Assert.Empty(await log.SearchAsync(new LogSearch("AB0"), 10, Cancel));
        await Book.ReleaseAsync(prepared);
        await using var worker = await Queue.RegisterAsync(Cancel);
        await SendAsync((await ClaimAsync(worker, TestBook.Now))!, worker.Number, Accepted);
        await SendAsync((await ClaimAsync(worker, TestBook.Now))!, worker.Number, Accepted);
        Assert.Single(await log.SearchAsync(new LogSearch("AB01"), 10, Cancel));
        Assert.Single(await log.SearchAsync(new LogSearch("AB02"), 10, Cancel));
    }

    [Fact]
    public async Task The_log_tells_the_last_try_that_was_put_off_from_those_that_were_made_again()
    {
        var released = await Book.ReleasedAsync("AB01");
        await using var worker = await Queue.RegisterAsync(Cancel);
        var later = new Outcome(OutcomeKind.TryLater, "451 4.3.0 later", []);
        for (var day = 0; day <= NextStep.DefaultPauses.Count; day++)
        {
            await SendAsync((await ClaimAsync(worker, TestBook.Now.AddDays(day)))!, worker.Number, later);
        }

        Assert.Equal(ParcelState.Refused, (await Book.StatesAsync(released.Round))["AB01"]);
        var log = await new DispatchLog(Source, Book.Id).SearchAsync(new LogSearch("AB01"), 10, Cancel);
        Assert.Equal([false, false, false, false, true], log.OrderBy(e => e.Id).Select(e => e.GaveUp));
    }

    [Fact]
    public async Task What_was_refused_when_it_was_named_counts_as_bad_until_somebody_says_otherwise()
    {
        await Book.ReleasedAsync("AB01");
        await using var worker = await Queue.RegisterAsync(Cancel);
        await SendAsync(
            (await ClaimAsync(worker, TestBook.Now))!,
            worker.Number,
            new Outcome(
                OutcomeKind.Accepted,
                "250 kept",
                [
                    new("A@inn.example", true, "250 ok"),
                    new("B@inn.example", false, "550 5.1.1 nobody"),
                    new("C@inn.example", false, "552 5.2.2 full"),
                ]
            )
        );
        var returned = new Rendal.Store.Returned.ReturnedStore(Source, Book.Id);
        var bad = Assert.Single(await returned.AddressesAsync(Cancel)).Value;
        Assert.Equal(("b@inn.example", "550 5.1.1 nobody", true), (bad.Address, bad.Reason, bad.IsRefused));
        Assert.True(await returned.GoodAgainAsync("B@INN.example", Book.Person, Cancel));
        Assert.Empty(await returned.AddressesAsync(Cancel));
    }

    [Fact]
    public async Task Who_had_the_message_at_an_earlier_try_is_known()
    {
        await Book.ReleasedAsync("AB01");
        await using var worker = await Queue.RegisterAsync(Cancel);
        var parcel = (await ClaimAsync(worker, TestBook.Now))!;
        Assert.Empty(parcel.Taken);
        var outcome = Accepted with { Recipients = [new("a@inn.example", true, "250 ok"), new("b@inn.example", false, "450 busy")] };
        await SendAsync(parcel, worker.Number, outcome);
        Assert.Equal(["a@inn.example"], (await ClaimAsync(worker, TestBook.Now.AddDays(1)))!.Taken);
    }

    [Fact]
    public async Task A_stored_message_that_was_tampered_with_is_not_shown_as_what_was_sent()
    {
        var released = await Book.ReleasedAsync("AB01");
        await DrainAsync();
        var log = new DispatchLog(Source, Book.Id);
        var parcel = (await Book.Rounds.ParcelsAsync(released.Round, Cancel))[0].Id;
        Assert.Equal("message to AB01@inn.example", Encoding.UTF8.GetString((await log.MessageAsync(parcel, 0, Cancel))!));

        // Only who owns the database can do this at all.
        await using var owner = Postgres.OwnerOf(Source);
        await RunAsync(owner, "alter table message disable trigger message_stays");
        await RunAsync(owner, "update message set bytes = 'other'");
        await Assert.ThrowsAsync<InvalidDataException>(() => log.MessageAsync(parcel, 0, Cancel));
    }

    [Fact]
    public async Task A_parcel_is_found_by_the_whole_number_of_an_item_on_its_statement()
    {
        var prepared = await Book.PreparedAsync("AB01", "CD02");
        var parcels = await Book.Rounds.ParcelsAsync(prepared.Round, Cancel);
        var frozen = parcels.Select(p => TestBook.Frozen(p.Id, p.Customer) with { Numbers = [$"LH-{p.Customer}-7", "CN \"90\""] });
        Assert.True(
            await Book.Release.ReleaseAsync(
                prepared.Round,
                1,
                [
                    [.. frozen],
                ],
                ByHand.Nothing,
                StatementRules.Default,
                Book.Person,
                TestBook.Now,
                TestBook.Now,
                Channel.Mail,
                Cancel
            )
        );
        await DrainAsync();

        Assert.Equal(["CD02"], await CustomersAsync("LH-CD02-7"));
        Assert.Equal(["AB01", "CD02"], await CustomersAsync("CN \"90\""));
        Assert.Empty(await CustomersAsync("LH-CD02"));
        Assert.Empty(await CustomersAsync("{LH-CD02-7}"));

        async Task<IEnumerable<string>> CustomersAsync(string text) =>
            (await new DispatchLog(Source, Book.Id).SearchAsync(new LogSearch(text), 10, Cancel)).Select(e => e.Customer).Order();
    }

    [Fact]
    public async Task A_text_that_is_in_many_is_found_in_the_same_tries_as_if_it_were_in_few()
    {
        var prepared = await Book.PreparedAsync("AB01", "BE02", "CD02");
        var parcels = await Book.Rounds.ParcelsAsync(prepared.Round, Cancel);
        var frozen = parcels.Select(p =>
            TestBook.Frozen(p.Id, p.Customer) with
            {
                Numbers = [$"LH-{p.Customer}-7"],
                Subject = $"Account of {p.Customer}",
            }
        );
        Assert.True(
            await Book.Release.ReleaseAsync(
                prepared.Round,
                1,
                [
                    [.. frozen],
                ],
                ByHand.Nothing,
                StatementRules.Default,
                Book.Person,
                TestBook.Now,
                TestBook.Now,
                Channel.Mail,
                Cancel
            )
        );
        await using var worker = await Queue.RegisterAsync(Cancel);
        await SendAsync(
            (await ClaimAsync(worker, TestBook.Now))!,
            worker.Number,
            new Outcome(OutcomeKind.TryLater, "451 4.3.0 the cellar is flooded", [])
        );
        await DrainAsync();
        foreach (
            var (text, tries) in new[]
            {
                ("", 4),
                ("be02", 1),
                ("LH-CD02-7", 1),
                ("Octo", 4),
                ("inn.example", 4),
                ("flooded", 1),
                ("not there", 0),
            }
        )
        {
            var few = await TriesAsync(text, 20_000);
            Assert.Equal((text, tries), (text, few.Count));
            Assert.Equal(few, await TriesAsync(text, 0));
        }

        async Task<List<long>> TriesAsync(string text, int mostFound) =>
            (await new DispatchLog(Source, Book.Id) { MostFound = mostFound }.SearchAsync(new LogSearch(text), 10, Cancel)).ConvertAll(e =>
                e.Id
            );
    }
}
