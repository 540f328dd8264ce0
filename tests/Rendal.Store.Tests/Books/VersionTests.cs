using System.Text.Json;
using Npgsql;
using Rendal.Core.Rounds;
using Rendal.Core.Wordings;
using Rendal.Store.Books;
using Rendal.Store.Customers;
using Rendal.Store.Items;
using Rendal.Store.People;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;

namespace Rendal.Store.Tests.Books;

/// <summary>What messages and documents are made from is kept by version, with who changed it.</summary>
public class VersionTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Each_version_of_a_wording_stays_with_who_made_it()
    {
        var book = await postgres.NewBookAsync();
        var colleague = await new PersonStore(book.Source).AddAsync($"colleague-{Guid.NewGuid():N}", "hash", Cancel);
        var store = new WordingStore(book.Source, book.Id);
        var wording = new Wording("First", "en", "Statement", "<p>Please pay.</p>");
        var id = await store.AddAsync(wording, book.Person, Cancel);
        Assert.Equal(
            Update.Done,
            await store.UpdateAsync(
                id,
                (await store.FindAsync(id, Cancel))!.Version,
                wording with
                {
                    Body = "<p>Please pay today.</p>",
                },
                colleague,
                DateTimeOffset.UtcNow,
                Cancel
            )
        );
        var changes = await ChangesAsync(book, "wording");
        Assert.Equal([book.Person, colleague], changes.Select(c => c.Person!.Value));
        Assert.Equal(JsonValueKind.Null, changes[0].Before.ValueKind);
        Assert.Equal("<p>Please pay.</p>", changes[1].Before.GetProperty("body").GetString());
        Assert.Equal("<p>Please pay today.</p>", (await store.FindAsync(id, Cancel))!.Wording.Body);
    }

    [Fact]
    public async Task The_versions_of_a_wording_are_told_the_newest_first_each_with_what_it_said_then()
    {
        var book = await postgres.NewBookAsync();
        var colleague = await new PersonStore(book.Source).AddAsync($"colleague-{Guid.NewGuid():N}", "hash", Cancel);
        var store = new WordingStore(book.Source, book.Id);
        var first = new Wording("First", "en", "Statement", "<p>Please pay.</p>");
        var id = await store.AddAsync(first, book.Person, Cancel);
        await store.AddAsync(first with { Name = "Another" }, book.Person, Cancel);
        var second = first with { Body = "<p>Please pay today.</p>" };
        await ChangeAsync(second);
        await ChangeAsync(second);
        var third = second with { Name = "Firm", Language = "de" };
        await ChangeAsync(third);
        var versions = await new WordingVersions(book.Source, book.Id).ListAsync(id, 10, Cancel);
        Assert.Equal([third, second, first], versions.Select(v => v.Wording));
        Assert.Equal([second, first, null], versions.Select(v => v.Before));
        Assert.Equal(
            [
                [WordingChange.Name, WordingChange.Language],
                [WordingChange.Body],
                [],
            ],
            versions.Select(v => WordingChanges.Of(v.Before, v.Wording))
        );
        Assert.StartsWith("colleague-", versions[0].By, StringComparison.Ordinal);
        Assert.StartsWith("person-", versions[2].By, StringComparison.Ordinal);
        Assert.Equal([third, second], (await new WordingVersions(book.Source, book.Id).ListAsync(id, 2, Cancel)).Select(v => v.Wording));
        var found = await new WordingVersions(book.Source, book.Id).FindAsync(id, versions[1].Change, Cancel);
        Assert.Equal(versions[1], found);
        Assert.Null(await new WordingVersions(book.Source, book.Id).FindAsync(id, versions[0].Change + 1, Cancel));
        Assert.Empty(await new WordingVersions(book.Source, (await postgres.NewBookAsync()).Id).ListAsync(id, 10, Cancel));

        async Task ChangeAsync(Wording to) =>
            Assert.Equal(
                Update.Done,
                await store.UpdateAsync(id, (await store.FindAsync(id, Cancel))!.Version, to, colleague, DateTimeOffset.UtcNow, Cancel)
            );
    }

    [Fact]
    public async Task A_sender_is_kept_without_its_password_and_without_how_it_fares()
    {
        var book = await postgres.NewBookAsync();
        var id = await new SenderStore(book.Source, book.Id).AddAsync(
            new Sender(0, "Tarnbrook", "accounts@tarnbrook.example", "mail.example", 587, "starttls", "accounts", [1, 2, 3])
            {
                AMinute = 60,
            },
            book.Person,
            Cancel
        );
        await using var connection = await book.Source.OpenConnectionAsync(Cancel);
        await RunAsync(connection, "update sender set paused = 'refused', next_at = now() where id = $1", id);
        Assert.Single(await ChangesAsync(book, "sender"));
        await RunAsync(connection, "update sender set a_minute = 30 where id = $1", id);
        var before = (await ChangesAsync(book, "sender"))[1].Before;
        Assert.Equal("accounts@tarnbrook.example", before.GetProperty("address").GetString());
        Assert.Equal(60, before.GetProperty("a_minute").GetInt32());
        Assert.DoesNotContain(before.EnumerateObject(), p => p.Name is "password" or "paused" or "next_at");
    }

    [Fact]
    public async Task What_stays_as_it_was_is_no_change_and_what_is_taken_away_is_one()
    {
        var book = await postgres.NewBookAsync();
        await book.LedgerOfAsync("AB01", "BE02");
        var cards = await ChangesAsync(book, "card");
        Assert.Equal(["AB01", "BE02"], cards.Select(c => c.Subject));
        Assert.All(cards, c => Assert.Equal((cards[0].Change, book.Person), (c.Change, c.Person!.Value)));

        var changes = await CountAsync(book);
        await book.LedgerOfAsync("AB01", "BE02");
        Assert.Equal(changes, await CountAsync(book));
        var store = new CustomerStore(book.Source, book.Id);
        var card = (await store.FindAsync("AB01", Cancel))!;
        await store.UpdateAsync(
            card with
            {
                Notes = "rings on Fridays",
            },
            (await store.VersionAsync("AB01", Cancel))!.Value,
            book.Person,
            DateTimeOffset.UtcNow,
            Cancel
        );
        Assert.Equal(changes + 1, await CountAsync(book));

        var wordings = new WordingStore(book.Source, book.Id);
        var wording = await wordings.AddAsync(new Wording("First", "en", "Statement", "<p></p>"), book.Person, Cancel);
        await wordings.UseAsync("statement", "", wording, book.Person, Cancel);
        await wordings.UseAsync("statement", "", null, book.Person, Cancel);
        Assert.Equal(
            [JsonValueKind.Null, JsonValueKind.Object],
            (await ChangesAsync(book, "wording-use")).Select(c => c.Before.ValueKind)
        );
    }

    [Fact]
    public async Task What_is_decided_in_a_round_is_kept_and_changes_no_other()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01");
        var changes = await CountAsync(book);
        await book.HoldAsync(prepared.Round, "AB01");
        Assert.Equal(changes, await CountAsync(book));
        await book.Decisions.DecideAsync(prepared.Round, 2, ["AB01"], null, "", book.Person, Cancel);
        Assert.Equal(
            "held",
            Assert
                .Single(await ChangesAsync(book, "decision"), c => c.Before.ValueKind == JsonValueKind.Object)
                .Before.GetProperty("decision")
                .GetString()
        );
        await new HoldStore(book.Source, book.Id).HoldAsync(
            "AB01",
            new ItemHold("T-0", "asked", null),
            book.Person,
            DateTimeOffset.UtcNow,
            Cancel
        );
        Assert.Equal(changes + 1, await CountAsync(book));
    }

    [Fact]
    public async Task Of_two_changes_at_once_none_is_missed_by_who_counts_between_their_ends()
    {
        var book = await postgres.NewBookAsync();
        await using var connection = await book.Source.OpenConnectionAsync(Cancel);
        await using var slow = await connection.BeginTransactionAsync(Cancel);
        await RunAsync(connection, "update book set terms_days = 31 where id = $1", book.Id);
        await new WordingStore(book.Source, book.Id).AddAsync(new Wording("Quick", "en", "Statement", "<p></p>"), book.Person, Cancel);
        var between = await CountAsync(book);
        await slow.CommitAsync(Cancel);
        Assert.Equal(between + 1, await CountAsync(book));
    }

    [Fact]
    public async Task What_an_older_version_kept_as_what_came_is_kept_as_what_was_there_before()
    {
        await using var source = await postgres.NewDatabaseAsync("0001_first.sql");
        await Postgres.RunAllAfterAsync(source, "0001_first.sql", "0056_what_it_was.sql");
        await RunAsync(
            source,
            """
            insert into person (name, password_hash) values ('Ines', 'hash');
            insert into book (name, currency, ageing_edges) values ('Tarnbrook Linen Hire', 'GBP', '{30}');
            insert into wording (book_id, name, subject, body) values (1, 'One', 'a', ''), (1, 'Two', 'b', '');
            update wording set subject = 'c' where name = 'One';
            update wording set subject = 'd' where name = 'One';
            delete from wording where name = 'Two';
            """
        );
        await Postgres.RunAllAfterAsync(source, "0055_attempts_and_outcomes.sql");
        await RunAsync(source, "update wording set subject = 'e' where name = 'One'");
        await using var asked = source.CreateCommand(
            "select array_agg(k.subject || ':' || coalesce(k.content_before ->> 'subject', '-') order by k.change_id, k.subject) "
                + "from changed_content k join content_change c on c.id = k.change_id where c.kind = 'wording'"
        );
        Assert.Equal(["1:-", "2:-", "1:a", "1:c", "2:b", "1:d"], (string[])(await asked.ExecuteScalarAsync(Cancel))!);
    }

    [Theory]
    [InlineData("insert into content_change (book_id, kind) select min(id), 'wording' from book")]
    [InlineData("update content_change set person_id = null")]
    [InlineData("delete from changed_content")]
    public async Task Nobody_writes_there_but_by_changing_something(string sql)
    {
        await using var command = postgres.Source.CreateCommand(sql);
        Assert.Equal(
            PostgresErrorCodes.InsufficientPrivilege,
            (await Assert.ThrowsAsync<PostgresException>(() => command.ExecuteNonQueryAsync(Cancel))).SqlState
        );
    }

    private static async Task<long> CountAsync(TestBook book) => (await new BookStore(book.Source).FindAsync(book.Id, Cancel))!.Changes;

    private static async Task<List<(long Change, long? Person, string Subject, JsonElement Before)>> ChangesAsync(
        TestBook book,
        string kind
    )
    {
        await using var command = book.Source.CreateCommand(
            "select c.id, c.person_id, k.subject, coalesce(k.content_before::text, 'null') from content_change c join "
                + "changed_content k on k.book_id = c.book_id and k.change_id = c.id where c.book_id = $1 and c.kind = $2 order by "
                + "c.id, k.subject"
        );
        command.Parameters.Add(new() { Value = book.Id });
        command.Parameters.Add(new() { Value = kind });
        var changes = new List<(long, long?, string, JsonElement)>();
        await using var reader = await command.ExecuteReaderAsync(Cancel);
        while (await reader.ReadAsync(Cancel))
        {
            changes.Add(
                (
                    reader.GetInt64(0),
                    reader.IsDBNull(1) ? null : reader.GetInt64(1),
                    reader.GetString(2),
                    JsonDocument.Parse(reader.GetString(3)).RootElement
                )
            );
        }

        return changes;
    }

    private static async Task RunAsync(NpgsqlDataSource source, string sql)
    {
        await using var command = source.CreateCommand(sql);
        await command.ExecuteNonQueryAsync(Cancel);
    }

    private static async Task RunAsync(NpgsqlConnection connection, string sql, long id)
    {
        await using var command = new NpgsqlCommand(sql, connection);
        command.Parameters.Add(new() { Value = id });
        await command.ExecuteNonQueryAsync(Cancel);
    }
}
