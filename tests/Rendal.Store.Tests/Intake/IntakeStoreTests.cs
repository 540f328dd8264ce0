using Npgsql;
using Rendal.Core.Intake;

namespace Rendal.Store.Tests.Intake;

public class IntakeStoreTests(Postgres postgres)
{
    private const string Headings = "Code|Name|Kind|Number|Date|Due|Outstanding|E-mail|Delivery round";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Rows_findings_and_new_customers_are_kept_as_they_were_read()
    {
        var book = await postgres.NewBookAsync();
        var intake = await book.UploadAsync("as below");
        Assert.True(
            await book.KeepAsync(
                intake,
                TestBook.Now,
                Headings,
                "AB01|Abbot’s Table|Invoice|T-1|2026-09-01|2026-10-01|1,118.20|a@abbot.example|N3",
                "BE02|Beacon Lodge|Invoice|T-2|2026-09-01|2026-10-01|forty||"
            )
        );

        var row = Assert.Single(await book.Ledger.RowsAsync(intake, Cancel));
        Assert.Equal(
            ("AB01", 1118.20m, "T-1", new DateOnly(2026, 10, 1), 2),
            (row.Customer, row.Open, row.Number, row.Due, row.Source.Row)
        );
        Assert.Equal("N3", row.Extra["Delivery round"]);
        Assert.Equal("BE02", Assert.Single(await book.Ledger.SetAsideAsync(intake, null, Cancel)).Customer);
        var findings = await book.Intakes.FindingsAsync(intake, Cancel);
        Assert.Equal(("amount-unreadable", 3, "Outstanding"), (findings[0].Code, findings[0].Source.Row, findings[0].Column));
        Assert.Contains(findings, f => f is { Code: "missing-address", Customer: "BE02" });
        var kept = (await book.Intakes.CurrentAsync(Cancel))!;
        Assert.Equal((intake, 2, 1, "kept"), (kept.Id, kept.RowsRead, kept.RowsKept, kept.State));
    }

    [Fact]
    public async Task An_intake_that_breaks_off_leaves_nothing_behind()
    {
        var book = await postgres.NewBookAsync();
        var intake = await book.UploadAsync("as below");
        var rows = TestBook.Rows(Headings, "AB01|Abbot’s Table|Invoice|T-1|2026-09-01|2026-10-01|10.00|a@abbot.example|");
        var reads = 0;
        IEnumerable<FileRow> Broken()
        {
            foreach (var row in rows)
            {
                yield return row;
            }

            // Recognition goes through the file first; it is while the rows are stored that the disk is pulled out.
            if (reads++ > 0)
            {
                throw new IOException("the file is gone");
            }
        }

        await Assert.ThrowsAsync<IOException>(() =>
            book.Intakes.KeepAsync(intake, TestBook.Reader(Broken()), new HashSet<string>(), TestBook.Remembered, TestBook.Now, Cancel)
        );

        Assert.Empty(await book.Ledger.RowsAsync(intake, Cancel));
        Assert.Null(await book.Intakes.CurrentAsync(Cancel));
        Assert.Equal("looked-at", (await book.Intakes.FindAsync(intake, Cancel))!.State);
        Assert.True(
            await book.KeepAsync(
                intake,
                TestBook.Now,
                Headings,
                "AB01|Abbot’s Table|Invoice|T-1|2026-09-01|2026-10-01|10.00|a@abbot.example|"
            )
        );
    }

    [Fact]
    public async Task A_database_that_goes_away_in_the_middle_keeps_nothing_and_takes_the_file_once_it_is_back()
    {
        var source = await postgres.NewDatabaseAsync();
        var book = await Postgres.NewBookAsync(source);
        var intake = await book.UploadAsync("as below");
        string[] lines =
        [
            Headings,
            .. Enumerable.Range(1, 5_000).Select(i => $"AB{i % 70}|Inn|Invoice|T-{i}|2026-09-01|2026-10-01|10.00|a@abbot.example|"),
        ];

        // Gone through for the headings, for what the columns are, for how they are written, and then to be kept.
        const int ToBeKept = 4;
        var passes = 0;
        IEnumerable<FileRow> CutOff()
        {
            passes++;
            foreach (var row in TestBook.Rows(lines))
            {
                if (passes == ToBeKept && row.Number == 4_000)
                {
                    using var away = source.CreateCommand(
                        "select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> "
                            + "pg_backend_pid()"
                    );
                    away.ExecuteNonQuery();
                }

                yield return row;
            }
        }

        await Assert.ThrowsAnyAsync<Npgsql.NpgsqlException>(() =>
            book.Intakes.KeepAsync(intake, TestBook.Reader(CutOff()), new HashSet<string>(), TestBook.Remembered, TestBook.Now, Cancel)
        );
        source.Clear();
        Assert.Equal(ToBeKept, passes);
        Assert.Null(await book.Intakes.CurrentAsync(Cancel));
        Assert.Empty(await book.Ledger.RowsAsync(intake, Cancel));
        Assert.True(await book.KeepAsync(intake, TestBook.Now, lines));
        Assert.Equal(5_000, (await book.Ledger.OutlineAsync(intake, Cancel)).Rows);
        await source.DisposeAsync();
    }

    [Fact]
    public async Task The_last_intake_can_be_undone_and_the_one_before_is_the_ledger_again()
    {
        var book = await postgres.NewBookAsync();
        var first = await book.LedgerOfAsync("AB01");
        var second = await book.UploadAsync("as below");
        Assert.True(
            await book.KeepAsync(
                second,
                TestBook.Now.AddDays(1),
                Headings,
                "BE02|Beacon Lodge|Invoice|T-2|2026-09-01|2026-10-01|10.00|b@beacon.example|"
            )
        );
        Assert.Equal(second, (await book.Intakes.CurrentAsync(Cancel))!.Id);

        Assert.False(await book.Intakes.UndoAsync(first, Cancel));
        Assert.True(await book.Intakes.UndoAsync(second, Cancel));
        Assert.Equal(first, (await book.Intakes.CurrentAsync(Cancel))!.Id);
        Assert.False(await book.Intakes.UndoAsync(second, Cancel));
        Assert.False(await book.KeepAsync(second, TestBook.Now, Headings));
    }

    [Fact]
    public async Task Rows_that_nothing_is_made_from_any_more_go_and_all_others_stay()
    {
        var book = await postgres.NewBookAsync();
        var first = await book.PreparedAsync("AB01");
        var withRound = (await book.Rounds.FindAsync(first.Round, Cancel))!.IntakeId;
        var later = new List<long>();
        for (var day = 1; day <= 26; day++)
        {
            var intake = await book.UploadAsync($"ledger {day}");
            Assert.True(
                await book.KeepAsync(
                    intake,
                    TestBook.Now.AddDays(day),
                    Headings,
                    "AB01|Abbot’s Table|Invoice|T-1|2026-09-01|2026-10-01|10.00|a@abbot.example|"
                )
            );
            later.Add(intake);
        }

        Assert.True(await book.Intakes.UndoAsync(later[^1], Cancel));

        // What was kept in these days may be about to be used.
        Assert.Equal(0, await book.Intakes.LetGoOfSpareRowsAsync(TestBook.Now, Cancel));
        Assert.Equal(2, await book.Intakes.LetGoOfSpareRowsAsync(TestBook.Now.AddDays(30), Cancel));
        Assert.Equal(0, await book.Intakes.LetGoOfSpareRowsAsync(TestBook.Now.AddDays(30), Cancel));

        Assert.Single(await book.Ledger.RowsAsync(withRound, Cancel));
        Assert.Empty(await book.Ledger.RowsAsync(later[0], Cancel));
        Assert.All(later[1..^1], intake => Assert.Single(book.Ledger.RowsAsync(intake, Cancel).Result));
        Assert.Empty(await book.Ledger.RowsAsync(later[^1], Cancel));
        Assert.Equal(later[^2], (await book.Intakes.CurrentAsync(Cancel))!.Id);
    }

    [Fact]
    public async Task Rows_are_not_let_go_while_somebody_reads_in_them()
    {
        var book = await postgres.NewBookAsync();
        await book.LedgerOfAsync("AB01");
        var undone = await book.LedgerOfAsync("BE02");
        Assert.True(await book.Intakes.UndoAsync(undone, Cancel));
        await using (var connection = await book.Source.OpenConnectionAsync(Cancel))
        await using (await connection.BeginTransactionAsync(Cancel))
        {
            await using var reading = new NpgsqlCommand("select count(*) from ledger_row where intake_id = " + undone, connection);
            Assert.Equal(1L, await reading.ExecuteScalarAsync(Cancel));
            Assert.Equal(0, await book.Intakes.LetGoOfSpareRowsAsync(TestBook.Now.AddDays(1), Cancel));
            Assert.Equal(1L, await reading.ExecuteScalarAsync(Cancel));
        }

        Assert.Equal(1, await book.Intakes.LetGoOfSpareRowsAsync(TestBook.Now.AddDays(1), Cancel));
    }

    [Fact]
    public async Task Another_book_sees_nothing_of_it()
    {
        var book = await postgres.NewBookAsync();
        var other = await postgres.NewBookAsync();
        var intake = await book.LedgerOfAsync("AB01");

        Assert.Null(await other.Intakes.FindAsync(intake, Cancel));
        Assert.Null(await other.Intakes.CurrentAsync(Cancel));
        Assert.Empty(await other.Ledger.RowsAsync(intake, Cancel));
        Assert.False(await other.Intakes.UndoAsync(intake, Cancel));
    }
}
