using Rendal.Core.Dispatch;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Store.Books;
using Rendal.Store.Reminders;

namespace Rendal.Store.Tests.Dispatch;

/// <summary>On which day something was sent, is told by the clock of the book.</summary>
public class DaysTests(Postgres postgres) : QueueTest(postgres)
{
    // 08:14 UTC on 2 November: in Honolulu 22:14 the evening before, in Kiritimati 22:14 the same evening.
    [Theory]
    [InlineData("Pacific/Honolulu", 1)]
    [InlineData("Europe/London", 2)]
    [InlineData("Pacific/Kiritimati", 2)]
    public async Task What_was_sent_in_the_evening_was_not_sent_the_day_after(string zone, int day)
    {
        await RunAsync(Source, $"update book set time_zone = '{zone}'");
        var prepared = await Book.PreparedAsync("AB01");
        var parcel = Assert.Single(await Book.Rounds.ParcelsAsync(prepared.Round, Cancel));
        var frozen = TestBook.Frozen(parcel.Id, "AB01") with { Reminded = [new ItemReminded("item of AB01", 1)] };
        Assert.True(
            await Book.Release.ReleaseAsync(
                prepared.Round,
                1,
                [
                    [frozen],
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
        var reminders = new ReminderStore(Source, Book.Id);
        var sentOn = new DateOnly(2026, 11, day);
        Assert.Equal(new Reminded(1, sentOn), (await reminders.AllAsync(null, null, null, Cancel))["item of AB01"]);

        await DrainAsync();
        Assert.Equal(new Reminded(1, sentOn), (await reminders.AllAsync(null, null, null, Cancel))["item of AB01"]);
        var book = (await new BookStore(Source).FindAsync(Book.Id, Cancel))!;
        Assert.Equal(sentOn, (await Book.Rounds.LastWrittenAsync(book.StartOf(sentOn), Cancel))["AB01"]);
        Assert.Equal(sentOn, (await Book.Rounds.LastWrittenAsync(book.StartOf(sentOn.AddMonths(-1)), Cancel))["AB01"]);
        Assert.Empty(await Book.Rounds.LastWrittenAsync(book.StartOf(sentOn.AddDays(1)), Cancel));

        // What came back was not written to anybody: a round of those who were not written to has them again.
        await using var comeBack = Source.CreateCommand($"update parcel set state = 'returned' where book_id = {Book.Id}");
        Assert.Equal(1, await comeBack.ExecuteNonQueryAsync(Cancel));
        Assert.Empty(await Book.Rounds.LastWrittenAsync(book.StartOf(sentOn), Cancel));
    }

    [Fact]
    public async Task Sessions_run_in_utc_whatever_the_database_has_for_a_zone()
    {
        var access = await Postgres.NewAccessAsync();
        await using (var owner = Database.Source(access.Owner + ";Pooling=false"))
        {
            await RunAsync(
                owner,
                "do $$ begin execute format('alter database %I set timezone = ''Asia/Tokyo''', current_database()); end $$"
            );
        }

        await using var source = Database.Source(access.Application);
        await using var command = source.CreateCommand(
            "select current_setting('timezone') || ' ' || ('2026-11-02 23:30Z'::timestamptz)::date"
        );
        Assert.Equal("UTC 2026-11-02", await command.ExecuteScalarAsync(Cancel));
    }
}
