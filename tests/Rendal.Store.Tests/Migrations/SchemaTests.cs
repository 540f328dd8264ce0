using Npgsql;
using Rendal.Core.Parcels;
using Rendal.Core.Statements;
using Rendal.Store.Books;
using Rendal.Store.Files;
using Rendal.Store.Ledger;
using Rendal.Store.Migrations;
using Rendal.Store.Rounds;
using Rendal.Store.Wordings;

namespace Rendal.Store.Tests.Migrations;

public class SchemaTests(Postgres postgres)
{
    /// <summary>Tables that stand above the books.</summary>
    private static readonly string[] AboveBooks =
    [
        "book",
        "first_run",
        "password_reset",
        "person",
        "schemaversions",
        "session",
        "sign_in_count",
    ];

    [Fact]
    public async Task No_table_and_no_column_has_a_name_that_the_glossary_replaced()
    {
        var replaced = File.ReadLines(Path.Combine(AppContext.BaseDirectory, "glossary.md"))
            .SkipWhile(l => l != "## Replaced tables and columns")
            .Where(l => l.StartsWith("| ", StringComparison.Ordinal))
            .Skip(2)
            .Select(l => l.Split('|', StringSplitOptions.TrimEntries)[1])
            .ToArray();
        Assert.True(replaced.Length > 5);
        await using var command = postgres.Source.CreateCommand(
            """
            select table_name || '.' || column_name from information_schema.columns
            where table_schema = 'public' and (table_name = any ($1) or column_name = any ($1)) order by 1
            """
        );
        command.Parameters.Add(new NpgsqlParameter { Value = replaced });
        await using var reader = await command.ExecuteReaderAsync(TestContext.Current.CancellationToken);
        var there = new List<string>();
        while (await reader.ReadAsync(TestContext.Current.CancellationToken))
        {
            there.Add(reader.GetString(0));
        }

        Assert.Equal([], there);
    }

    [Fact]
    public async Task Every_table_of_the_job_has_the_book_first_in_its_key()
    {
        await using var command = postgres.Source.CreateCommand(
            """
            select c.relname, coalesce((
                select a.attname from pg_index i join pg_attribute a on a.attrelid = i.indrelid and a.attnum = i.indkey[0]
                where i.indrelid = c.oid and i.indisprimary), 'no key')
            from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind in ('r', 'p')
            """
        );
        await using var reader = await command.ExecuteReaderAsync(TestContext.Current.CancellationToken);
        var firsts = new Dictionary<string, string>();
        while (await reader.ReadAsync(TestContext.Current.CancellationToken))
        {
            firsts.Add(reader.GetString(0), reader.GetString(1));
        }

        Assert.True(firsts.Count > 12, "the schema was looked at");
        Assert.All(firsts.Where(f => !AboveBooks.Contains(f.Key)), f => Assert.Equal("book_id", f.Value));
    }

    [Fact]
    public async Task Several_programs_that_start_at_once_bring_a_new_database_up_to_date_together()
    {
        var access = await postgres.NewEmptyAccessAsync();
        await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => Task.Run(() => Schema.UpgradeAsync(access))));
        await using var source = Database.Source(access.Application + ";Pooling=false");
        await using var command = source.CreateCommand("select count(*) from round");
        Assert.Equal(0L, await command.ExecuteScalarAsync(TestContext.Current.CancellationToken));
    }

    /// <summary>Without one, whatever removes or renumbers a row looks through all rows that could point at it.</summary>
    [Fact]
    public async Task Every_foreign_key_is_found_by_an_index()
    {
        // Books, files and people are never removed, so nothing looks for what points at them.
        await using var command = postgres.Source.CreateCommand(
            """
            select c.conrelid::regclass || ' (' || (select string_agg(a.attname, ', ' order by k.place)
                from unnest(c.conkey) with ordinality k (number, place) join pg_attribute a on a.attrelid = c.conrelid
                and a.attnum = k.number) || ')'
            from pg_constraint c
            where c.contype = 'f' and c.conparentid = 0 and c.confrelid not in ('book'::regclass, 'stored_file'::regclass,
                'person'::regclass)
                and not exists (
                    select from pg_index i where i.indrelid = c.conrelid
                        and (select array_agg(n order by n)
                            from unnest((i.indkey::int2[])[0:cardinality(c.conkey) - 1]) n) = (select array_agg(n order by n)
                            from unnest(c.conkey) n))
            order by 1
            """
        );
        await using var reader = await command.ExecuteReaderAsync(TestContext.Current.CancellationToken);
        var without = new List<string>();
        while (await reader.ReadAsync(TestContext.Current.CancellationToken))
        {
            without.Add(reader.GetString(0));
        }

        Assert.True(without.Count == 0, string.Join("; ", without));
    }

    [Theory]
    [InlineData("delete from book", "A book is not taken away")]
    [InlineData("update stored_file set book_id = book_id + 1000", "A stored file is not taken away")]
    [InlineData("delete from stored_file", "A stored file is not taken away")]
    public async Task Books_and_the_files_that_came_stay(string attempt, string refusal)
    {
        var cancel = TestContext.Current.CancellationToken;
        var (source, id, _) = await postgres.NewBookAsync();
        using var content = new MemoryStream("a,b"u8.ToArray());
        var file = await new FileStore(source, id).StoreAsync("ledger.csv", content, cancel);
        await using var command = source.CreateCommand(
            attempt.Contains("file", StringComparison.Ordinal)
                ? $"{attempt} where book_id = {id} and id = {file}"
                : $"{attempt} where id = {id}"
        );
        Assert.Contains(
            refusal,
            (await Assert.ThrowsAsync<PostgresException>(() => command.ExecuteNonQueryAsync(cancel))).MessageText,
            StringComparison.Ordinal
        );
        await using var still = new FileStore(source, id).Open(file);
        Assert.Equal(3, still.Length);
    }

    [Fact]
    public async Task Rows_and_files_of_an_older_version_are_still_there()
    {
        await using var source = await postgres.NewDatabaseAsync("0001_first.sql", "0002_intake.sql");
        await using (
            var fill = source.CreateCommand(
                """
                insert into person (name, password_hash) values ('Ines', 'hash');
                insert into book (name, currency) values ('Tarnbrook Linen Hire', 'GBP');
                insert into stored_file (book_id, name, size, sha256)
                    values (1, 'ledger.csv', 1060000, sha256('')), (1, 'nothing.csv', 0, sha256(''));
                insert into stored_file_part select 1, 1, part, decode(repeat(case part when 0 then 'a1' else 'b2' end,
                    case part when 0 then 1048576 else 11424 end), 'hex') from generate_series(0, 1) part;
                insert into intake (book_id, file_id, state, made_by, kept_at) values (1, 1, 'undone', 1, now()), (1, 1, 'kept', 1, now());
                insert into ledger_row select 1, n % 2 + 1, n, 'AB0' || n, 'Inn', 0, 'T-' || n, null, '2026-10-01', 'GBP', n, n, '', '',
                    '', '',
                    case when n < 4 then '{}'::jsonb else jsonb_build_object('Van', 'N' || n, 'Order', 'PO') end
                        from generate_series(1, 6) n;
                """
            )
        )
        {
            await fill.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
        }

        await Postgres.RunAllAfterAsync(source, "0002_intake.sql");
        var rows = await new LedgerStore(source, 1).RowsAsync(2, TestContext.Current.CancellationToken);
        Assert.Equal(
            ["AB01 1 ", "AB03 3 ", "AB05 5 Order: PO, Van: N5"],
            rows.Select(r => $"{r.Customer} {r.Open} {string.Join(", ", r.Extra.Select(e => $"{e.Key}: {e.Value}"))}")
        );
        Assert.Equal(3, (await new LedgerStore(source, 1).RowsAsync(1, TestContext.Current.CancellationToken)).Count);
        using var whole = new MemoryStream();
        await using (var file = new FileStore(source, 1).Open(1))
        {
            await file.CopyToAsync(whole, TestContext.Current.CancellationToken);
        }

        Assert.Equal((1_060_000L, (byte)0xA1, (byte)0xB2), (whole.Length, whole.ToArray()[1_048_575], whole.ToArray()[1_048_576]));
    }

    [Fact]
    public async Task A_change_that_nobody_had_looked_at_before_the_update_is_not_released_unseen_after_it()
    {
        var cancel = TestContext.Current.CancellationToken;
        var book = await postgres.NewBookAsync();
        var (marked, seen) = (await book.PreparedAsync("AB01", "BE02"), await book.PreparedAsync("CR03"));
        await using (
            var mark = book.Source.CreateCommand(
                "update parcel set changed = '{wording}' where book_id = $1 and round_id = $2 and customer = 'AB01'"
            )
        )
        {
            mark.Parameters.Add(new NpgsqlParameter { Value = book.Id });
            mark.Parameters.Add(new NpgsqlParameter { Value = marked.Round });
            Assert.Equal(1, await mark.ExecuteNonQueryAsync(cancel));
        }

        var before = (await book.Rounds.FindAsync(seen.Round, cancel))!.PreparedAtChange;
        await Postgres.RunAsync(book.Source, "0050_seals_of_what_says_something.sql");
        var now = (await new BookStore(book.Source).FindAsync(book.Id, cancel))!;
        var (again, quiet) = ((await book.Rounds.FindAsync(marked.Round, cancel))!, (await book.Rounds.FindAsync(seen.Round, cancel))!);
        Assert.True(again.IsBehindBook(now) && again.IsUnprepared);
        Assert.Equal((before, true), (quiet.PreparedAtChange, quiet.IsUnprepared));
    }

    [Fact]
    public async Task After_the_update_what_a_round_began_with_is_not_picked_and_open_rounds_are_made_up_anew()
    {
        var cancel = TestContext.Current.CancellationToken;
        await using var source = NpgsqlDataSource.Create((await postgres.NewAccessAsync()).Owner);
        var book = await Postgres.NewBookAsync(source);
        var first = await RoundAsync(await book.PreparedAsync("AB01"));
        var ofStatements = await RoundAsync(await book.PreparedAsync("BE02"));
        var picked = await RoundAsync(await book.PreparedAsync("CR03"));
        var sent = await RoundAsync(await book.ReleasedAsync("DU04"));
        var wordings = new WordingStore(source, book.Id);
        await wordings.UseAsync("statement", "", ofStatements.WordingId, book.Person, cancel);
        await wordings.UseAsync("statement", "de", picked.WordingId, book.Person, cancel);

        // Of reminders no wording was said, so that theirs began with the first of the book; a released round with that of statements.
        await RunAsync("update round set choice = jsonb_set(choice, '{reminderLevels}', '[1]') where id = $1", first.Id);
        await RunAsync("update round set wording_id = $2 where id = $1", sent.Id, ofStatements.WordingId!.Value);
        await Postgres.RunAsync(source, "0065_wording_of_each.sql");
        var after = await Task.WhenAll(new[] { first, ofStatements, picked, sent }.Select(r => book.Rounds.FindAsync(r.Id, cancel)));
        Assert.Equal([null, null, picked.WordingId, null], after.Select(r => r!.WordingId));
        Assert.Equal([true, true, true, false], after.Select(r => r!.IsUnprepared));

        async Task<RoundRecord> RoundAsync(ReleasedRound of) => (await book.Rounds.FindAsync(of.Round, cancel))!;

        async Task RunAsync(string sql, params long[] values)
        {
            await using var command = source.CreateCommand(sql);
            foreach (var value in values)
            {
                command.Parameters.Add(new NpgsqlParameter { Value = value });
            }

            Assert.Equal(1, await command.ExecuteNonQueryAsync(cancel));
        }
    }

    [Fact]
    public async Task Rounds_and_parcels_of_an_older_version_are_what_they_were()
    {
        await using var source = await postgres.NewDatabaseAsync(
            "0001_first.sql",
            "0002_intake.sql",
            "0003_rows_by_intake.sql",
            "0004_by_hand.sql",
            "0005_saved_choices.sql"
        );
        await using (
            var fill = source.CreateCommand(
                """
                insert into person (name, password_hash) values ('Ines', 'hash');
                insert into book (name, currency, ageing_edges) values ('Tarnbrook Linen Hire', 'GBP', '{7,14}');
                insert into stored_file (book_id, name, size, sha256) values (1, 'ledger.csv', 0, sha256(''));
                insert into intake (book_id, file_id, state, made_by, kept_at) values (1, 1, 'kept', 1, now());
                insert into wording (book_id, name, subject, body) values (1, 'First', 'Statement', '<p>Statement</p>');
                insert into sender (book_id, name, address, host, port, security, user_name)
                    values (1, 'Tarnbrook', 'accounts@tarnbrook.example', '127.0.0.1', 2525, 'none', '');
                insert into round (book_id, name, intake_id, choice, wording_id, sender_id, made_by) values
                    (1, 'Old', 1, '{"asOf": "2026-10-31", "leastBalance": 5}', 1, 1, 1), (1, 'Forward', 1, '{"asOf": "2026-10-31", "form": "brought-forward"}', 1, 1, 1);
                insert into parcel (book_id, round_id, customer, name, position, state, recipients, sums, items)
                    values (1, 1, 'AB01', 'Abbot’s Table', 0, 'prepared', '{}', '[]', 1);
                insert into parcel (book_id, round_id, customer, name, position, state, recipients, sums, items, subject, body,
                    card) values
                    (1, 2, 'BE02', 'Beacon Lodge', 0, 'sent', '{b@beacon.example}', '[]', 1, 'Statement', '<p>Statement</p>',
                        '{"key": "BE02", "name": "Beacon Lodge"}');
                select make_ledger_rows(1);
                insert into ledger_row_1 values (1, 1, 2, 'BE02', 'Beacon Lodge', 0, 'T-2', '2026-09-01', '2026-10-01', 'GBP', 20, 20, '',
                    '', '', '', '{}'), (1, 1, 3, 'AB01', 'Abbot’s Table', 0, 'T-1', '2026-09-01', '2026-10-01', 'GBP', 10, 10, '', '', '',
                    '', '{}');
                select place_ledger_rows(1);
                """
            )
        )
        {
            await fill.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
        }

        await Postgres.RunAllAfterAsync(source, "0005_saved_choices.sql");
        var rounds = new RoundStore(source, 1);
        var dispatch = new RoundDispatch(source, 1);
        var (old, forward) = (
            (await rounds.FindAsync(1, TestContext.Current.CancellationToken))!,
            (await rounds.FindAsync(2, TestContext.Current.CancellationToken))!
        );
        Assert.Equal(
            (StatementForm.OpenItems, 5m, StatementForm.BroughtForward),
            (old.Choice.Form, old.Choice.LeastBalance, forward.Choice.Form)
        );
        Assert.Equal([7, 14], old.Rules.Ageing.UpperEdges);
        Assert.Equal(
            [new ParcelAccount("AB01", "Abbot’s Table")],
            Assert.Single(await rounds.ParcelsAsync(1, TestContext.Current.CancellationToken)).Accounts
        );

        // What had been released goes on with the letterhead and the sender that there were.
        var released = Assert.Single(await rounds.ParcelsAsync(2, TestContext.Current.CancellationToken));
        var frozen = (await dispatch.FrozenAsync(released.Id, TestContext.Current.CancellationToken))!;
        Assert.Equal(("Tarnbrook Linen Hire", "accounts@tarnbrook.example"), (frozen.Letterhead.Name, frozen.SentAs.Address));
        Assert.Equal(["T-2"], await NumbersAsync(released.Id));
        Assert.Null(released.Seal);
        Assert.Null(await dispatch.FrozenAsync(1, TestContext.Current.CancellationToken));

        async Task<string[]> NumbersAsync(long parcel)
        {
            await using var command = source.CreateCommand("select numbers from parcel_search where parcel_id = $1");
            command.Parameters.Add(new() { Value = parcel });
            return (string[])(await command.ExecuteScalarAsync(TestContext.Current.CancellationToken))!;
        }
    }

    [Fact]
    public async Task A_proof_that_does_not_close_cannot_be_stored()
    {
        var book = await postgres.NewBookAsync();
        var round = await book.PreparedAsync("AB01");
        await using var command = postgres.Source.CreateCommand(
            "update round_proof set parcels = parcels - 0.01 where book_id = $1 and round_id = $2"
        );
        command.Parameters.Add(new() { Value = book.Id });
        command.Parameters.Add(new() { Value = round.Round });
        var refused = await Assert.ThrowsAsync<Npgsql.PostgresException>(() =>
            command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken)
        );
        Assert.Equal("23514", refused.SqlState);
    }
}
