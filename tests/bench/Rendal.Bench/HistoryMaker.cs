using System.Globalization;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.App.Rounds;
using Rendal.Core.Dispatch;
using Rendal.Core.Intake;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Wordings;
using Rendal.Files;
using Rendal.Store.Books;
using Rendal.Store.Intake;

namespace Rendal.Bench;

/// <summary>
/// Makes a book with a history: intakes, and rounds with their log and reminders. A round of each kind is prepared and released as
/// people do it; the others are copies of these, each from its own intake.
/// </summary>
/// <param name="rendal">Where it is made.</param>
/// <param name="person">Who has it.</param>
internal sealed class HistoryMaker(WholeRendal rendal, long person)
{
    private const int RowsOfCustomer = 10;
    private const int Kinds = 2;

    private readonly NpgsqlDataSource source = rendal.App.Services.GetRequiredService<NpgsqlDataSource>();

    /// <summary>Makes it.</summary>
    /// <param name="name">The name of the firm.</param>
    /// <param name="months">How many intakes and rounds it has.</param>
    /// <param name="customers">How many customers, each with about ten rows in each intake.</param>
    /// <returns>The number of the book.</returns>
    public async Task<long> MakeAsync(string name, int months, int customers)
    {
        var cancel = CancellationToken.None;
        var book = await rendal
            .App.Services.GetRequiredService<MakeBook>()
            .RunAsync(new Firm(name, ["14 Tenter Lane"], [], ["By transfer"]), Currency.Of("GBP"), "Europe/London", person, cancel);
        var stores = await StoresAsync(book);

        var wording = await stores.Wordings.AddAsync(
            new Wording("Plain", "en", "Statement", "<p>Please find what is open.</p>"),
            person,
            cancel
        );
        var sender = (await stores.Senders.ListAsync(person, cancel))[0].Id;

        // All of it happens on one day: what was reminded of may be again at once.
        var rules = stores.Book.Rules;
        var reminders = new ReminderRules(
            [.. rules.Reminders.Levels.Select(l => l with { Gap = 0, Wording = wording })],
            maySkip: true,
            mayRepeat: true
        );
        await new BookStore(source).UpdateRulesAsync(book, rules with { Reminders = reminders }, stores.Book.TermsDays, person, cancel);
        var file = FileOf(name);
        LedgerFiles.WriteCsv(file, customers * RowsOfCustomer, customers);
        var rounds = new List<long>();
        for (var month = 0; month < months; month++)
        {
            var intake = await TakeInAsync(stores, file);
            if (month >= Kinds)
            {
                await CopyAsync(book, rounds[month % Kinds], intake, month, months - month);
                continue;
            }

            stores = await StoresAsync(book);
            var choice = new Choice { AsOf = BenchLedger.AsOf };
            choice = month % 2 == 0 ? choice : choice.OfReminders(stores.Book.Rules.Reminders);
            var round = await stores.Rounds.MakeAsync(
                intake,
                new RoundSettings(string.Create(CultureInfo.InvariantCulture, $"Month {month + 1}"), choice, wording, sender, null),
                stores.Book.Rules,
                person,
                cancel
            );
            rounds.Add(round);
            await new PrepareRound(stores, TimeProvider.System).RunAsync(round, new ProgressMeter(), cancel);
            var summed = await new SummariseRelease(stores, TimeProvider.System).RunAsync(round, null, cancel);
            if (summed.Ready.Parcels.Count > 0)
            {
                await new ReleaseRound(stores, TimeProvider.System).RunAsync(
                    round,
                    new ReleaseOrder(
                        null,
                        summed.Revision,
                        summed.Ready.Seen,
                        null,
                        Channel.Mail,
                        DespiteLedger: false,
                        SeenChanges: true
                    ),
                    cancel
                );
                await SendAsync(book, round, months - month);
            }

            Console.Error.WriteLine(
                string.Create(CultureInfo.InvariantCulture, $"  {name}: {month + 1} of {months}, {summed.Ready.Parcels.Count:N0} parcels")
            );
        }

        return book;
    }

    /// <summary>The ledger of a firm.</summary>
    public string FileOf(string name) => Path.Combine(rendal.Folder, $"{name}.csv");

    /// <summary>Takes a ledger in.</summary>
    public async Task<long> TakeInAsync(BookStores stores, string file)
    {
        var cancel = CancellationToken.None;
        await using var content = File.OpenRead(file);
        var id = await stores.Intakes.BeginAsync(
            await stores.Files.StoreAsync(Path.GetFileName(file), content, cancel),
            IntakeKind.Ledger,
            ReadingChange.None,
            person,
            cancel
        );
        var table = TableFile.Open(Path.GetFileName(file), () => File.OpenRead(file), FileOpening.Unsaid);
        var settings = new ReadingSettings(stores.Book.Currency, stores.Book.TermsDays);
        var recognised = Recognition.Recognise(table, settings, ReadingChange.None)!;
        await stores.Intakes.KeepAsync(
            id,
            new LedgerReader(table, recognised, settings),
            await stores.Customers.ReachableAsync(cancel),
            SavedReading.Of(recognised.Reading, ReadingChange.None),
            DateTimeOffset.UtcNow,
            cancel
        );
        return id;
    }

    /// <summary>The stores of a book as it is now.</summary>
    public async Task<BookStores> StoresAsync(long book) =>
        new((await new BookStore(source).FindAsync(book, CancellationToken.None))!, person, source);

    /// <summary>
    /// Copies a round that went out with all that was written down of it, as one that went so many months ago from another intake.
    /// </summary>
    private async Task CopyAsync(long book, long round, long intake, int month, int monthsAgo)
    {
        await using var connection = await source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        await using var copyRound = new NpgsqlCommand(
            """
            insert into round overriding system value
            select c.* from round r cross join lateral jsonb_populate_record(r, jsonb_build_object('id',
                nextval(pg_get_serial_sequence('round', 'id')), 'intake_id', $3, 'name', $4, 'made_at', now() - $5 * interval '1 month')) c
                where r.book_id = $1 and r.id = $2
            returning id
            """,
            connection
        )
        {
            Parameters =
            {
                new() { Value = book },
                new() { Value = round },
                new() { Value = intake },
                new() { Value = string.Create(CultureInfo.InvariantCulture, $"Month {month + 1}") },
                new() { Value = (double)monthsAgo },
            },
        };
        var copy = (long)(await copyRound.ExecuteScalarAsync())!;
        await using var written = new NpgsqlCommand(
            "select string_agg(column_name, ', ') from information_schema.columns where table_schema = 'public' and "
                + "table_name = 'parcel' and is_generated = 'NEVER'",
            connection
        );
        var columns = (string)(await written.ExecuteScalarAsync())!;
        foreach (
            var sql in new[]
            {
                $"insert into parcel ({columns}) overriding system value select "
                    + $"{string.Join(", ", columns.Split(", ").Select(c => "c." + c))} from parcel p cross join lateral "
                    + "jsonb_populate_record(p, jsonb_build_object('id', nextval(pg_get_serial_sequence('parcel', 'id')), "
                    + "'round_id', $3)) c where p.book_id = $1 and p.round_id = $2",
                "create temp table copied on commit drop as select o.id old, n.id new from parcel o join parcel n on "
                    + "n.book_id = o.book_id and n.customer = o.customer where o.book_id = $1 and o.round_id = $2 and n.round_id = "
                    + "$3",
                "insert into parcel_search (book_id, parcel_id, addressee_id, numbers, accounts) select s.book_id, c.new, "
                    + "s.addressee_id, s.numbers, s.accounts from copied c join parcel_search s on s.book_id = $1 and s.parcel_id = "
                    + "c.old where $2 <> $3",
                "insert into left_out select c.* from left_out l cross join lateral jsonb_populate_record(l, "
                    + "jsonb_build_object('round_id', $3)) c where l.book_id = $1 and l.round_id = $2",
                "insert into round_proof select c.* from round_proof l cross join lateral jsonb_populate_record(l, "
                    + "jsonb_build_object('round_id', $3)) c where l.book_id = $1 and l.round_id = $2",
                "insert into message (book_id, parcel_id, message_id, subject, sender_address, recipients, bytes, sha256, "
                    + "made_at) select m.book_id, c.new, 'parcel-' || c.new || '@bench.example', m.subject, m.sender_address, "
                    + "m.recipients, m.bytes, m.sha256, now() - $4 * interval '1 month' from copied c join message m on m.book_id = "
                    + "$1 and m.parcel_id = c.old where $2 <> $3",
                "insert into delivery_attempt (book_id, parcel_id, worker, started_at, end_of_data_at, ended_at, outcome, answer, "
                    + "recipients) select t.book_id, c.new, 1, a, a, a, t.outcome, '250 2.0.0 kept as ' || c.new, t.recipients from "
                    + "copied c join delivery_attempt t on t.book_id = $1 and t.parcel_id = c.old cross join lateral (select now() - $4 "
                    + "* interval '1 month' a) n where $2 <> $3",
                "insert into item_reminded (book_id, item, parcel_id, level) select i.book_id, i.item, c.new, i.level from "
                    + "copied c join item_reminded i on i.book_id = $1 and i.parcel_id = c.old where $2 <> $3",
            }
        )
        {
            await using var command = new NpgsqlCommand(sql, connection)
            {
                CommandTimeout = 300,
                Parameters =
                {
                    new() { Value = book },
                    new() { Value = round },
                    new() { Value = copy },
                },
            };
            if (sql.Contains("$4", StringComparison.Ordinal))
            {
                command.Parameters.Add(new() { Value = (double)monthsAgo });
            }

            await command.ExecuteNonQueryAsync();
        }

        await transaction.CommitAsync();
        Console.Error.WriteLine(string.Create(CultureInfo.InvariantCulture, $"  month {month + 1}"));
    }

    /// <summary>Writes into the record that each message of a round went out, so many months ago, as the workers would have.</summary>
    private async Task SendAsync(long book, long round, int monthsAgo)
    {
        await using var send = source.CreateCommand(
            """
            with sent as (update parcel set state = 'sent' where book_id = $1 and round_id = $2 and state = 'released'
                returning id, customer, subject, recipients),
            written as (
                insert into message (book_id, parcel_id, message_id, subject, sender_address, recipients, bytes, sha256, made_at)
                select $1, id, 'parcel-' || id || '@bench.example', subject, 'accounts@practice.example', recipients, b, sha256(b),
                    now() - $3 * interval '1 month'
                from sent
                    cross join lateral (
                        select convert_to('Subject: ' || subject || E'\r\n\r\n' || repeat('Please find what is open. ', 40), 'UTF8') b) m
                returning parcel_id)
            insert into delivery_attempt (book_id, parcel_id, worker, started_at, end_of_data_at, ended_at, outcome, answer, recipients)
            select $1, id, 1, a, a, a + interval '20 milliseconds', 'accepted', '250 2.0.0 kept as ' || id,
                jsonb_build_array(jsonb_build_object('address', recipients[1], 'accepted', true, 'answer', '250 2.1.5 ok'))
            from sent
                        cross join lateral (select now() - $3 * interval '1 month' a) t join written on written.parcel_id = id
            """
        );
        send.CommandTimeout = 300;
        send.Parameters.Add(new() { Value = book });
        send.Parameters.Add(new() { Value = round });
        send.Parameters.Add(new() { Value = (double)monthsAgo });
        await send.ExecuteNonQueryAsync();
    }
}
