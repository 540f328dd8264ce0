using System.Globalization;
using Npgsql;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Statements;

namespace Rendal.Store.Books;

/// <summary>The books of the installation, and who may open them.</summary>
public sealed class BookStore(NpgsqlDataSource source)
{
    private const string Columns =
        "b.id, b.name, b.currency, b.terms_days, b.time_zone, b.ageing_edges, b.address_lines, b.contact_lines, "
        + "b.payment_lines, b.foot_lines, b.age_by, b.credits_by_date, b.form, b.settlement, b.reminders, b.needs_second_person, array(select c.kind || ' ' || "
        + "count(*) from content_change c where c.book_id = b.id and c.kind <> 'decision' group by c.kind) changes";

    /// <summary>
    /// Makes a book with the rules that hold unless set otherwise, lets a person have it, and gives its number. It has no sender yet.
    /// </summary>
    public async Task<long> MakeAsync(Firm firm, Currency currency, string timeZone, long person, CancellationToken cancel) =>
        await source.ByAsync(
            person,
            connection =>
                connection
                    .Sql(
                        """
                        with made as (
                            insert into book (name, currency, time_zone, address_lines, contact_lines, payment_lines, made_by)
                            values ($1, $2, $3, $4, $5, $6, $7) returning id)
                        insert into book_person (book_id, person_id) select id, $7 from made returning book_id
                        """,
                        firm.Name,
                        currency.Code,
                        timeZone,
                        firm.AddressLines.ToArray(),
                        firm.ContactLines.ToArray(),
                        firm.PaymentLines.ToArray(),
                        person
                    )
                    .OneAsync<long>(cancel),
            cancel
        );

    /// <summary>The books that a person was given, by name.</summary>
    public Task<List<Book>> OfPersonAsync(long person, CancellationToken cancel) =>
        source
            .Sql(
                $"select {Columns} from book b join book_person p on p.book_id = b.id where p.person_id = $1 order by b.name, b.id",
                person
            )
            .ListAsync(Read, cancel);

    /// <summary>A book that a person was given; null where it does not exist or is not theirs, which nobody can tell apart.</summary>
    public Task<Book?> FindAsync(long book, long person, CancellationToken cancel) =>
        source
            .Sql($"select {Columns} from book b join book_person p on p.book_id = b.id where b.id = $1 and p.person_id = $2", book, person)
            .FirstAsync(Read, cancel);

    /// <summary>A book by its number, for work without a person.</summary>
    public Task<Book?> FindAsync(long book, CancellationToken cancel) =>
        source.Sql($"select {Columns} from book b where b.id = $1", book).FirstAsync(Read, cancel);

    /// <summary>Changes how the firm stands on its letters.</summary>
    public Task UpdateFirmAsync(long book, Firm firm, long person, CancellationToken cancel) =>
        source.ByAsync(
            person,
            connection =>
                connection
                    .Sql(
                        "update book set name = $2, address_lines = $3, contact_lines = $4, payment_lines = $5, foot_lines = $6 where id = $1",
                        book,
                        firm.Name,
                        firm.AddressLines.ToArray(),
                        firm.ContactLines.ToArray(),
                        firm.PaymentLines.ToArray(),
                        firm.FootLines.ToArray()
                    )
                    .RunAsync(cancel),
            cancel
        );

    /// <summary>
    /// Changes what holds for all statements of a book, and the terms where neither file nor customer says. Rounds that were released stay
    /// as they are.
    /// </summary>
    public Task UpdateRulesAsync(long book, StatementRules rules, int termsDays, long person, CancellationToken cancel) =>
        source.ByAsync(
            person,
            connection =>
                connection
                    .Sql(
                        "update book set terms_days = $2, ageing_edges = $3, age_by = $4, credits_by_date = $5, form = $6, "
                            + "settlement = $7, reminders = $8 where id = $1",
                        book,
                        termsDays,
                        rules.Ageing.UpperEdges.ToArray(),
                        EnumText.Of(rules.Ageing.By),
                        rules.Ageing.CreditsByDate,
                        EnumText.Of(rules.Form),
                        rules.Settlement is { } settlement ? EnumText.Of(settlement) : null,
                        Commands.Json(rules.Reminders)
                    )
                    .RunAsync(cancel),
            cancel
        );

    private static Book Read(NpgsqlDataReader reader) =>
        new(
            reader.Int64("id"),
            Currency.Of(reader.String("currency")),
            reader.Int32("terms_days"),
            reader.String("time_zone"),
            new StatementRules(
                new AgeingRule(
                    reader.Value<int[]>("ageing_edges"),
                    EnumText.Parse<AgeBy>(reader.String("age_by")),
                    reader.Boolean("credits_by_date")
                ),
                EnumText.Parse<StatementForm>(reader.String("form")),
                reader.Text("settlement") is { } settlement ? EnumText.Parse<SettlementRule>(settlement) : null
            )
            {
                Reminders = StoreJson.Read<ReminderRules>(reader.String("reminders")),
            },
            new Firm(
                reader.String("name"),
                reader.Value<string[]>("address_lines"),
                reader.Value<string[]>("contact_lines"),
                reader.Value<string[]>("payment_lines")
            )
            {
                FootLines = reader.Value<string[]>("foot_lines"),
            },
            reader
                .Value<string[]>("changes")
                .Select(c => c.Split(' '))
                .ToDictionary(c => EnumText.Parse<ContentKind>(c[0]), c => long.Parse(c[1], CultureInfo.InvariantCulture))
        )
        {
            NeedsSecondPerson = reader.Boolean("needs_second_person"),
        };
}
