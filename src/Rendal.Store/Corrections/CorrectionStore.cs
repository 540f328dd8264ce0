using Npgsql;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Store.Customers;

namespace Rendal.Store.Corrections;

/// <summary>A correction with who made it, when, and where it was seen.</summary>
/// <param name="Correction">The correction.</param>
/// <param name="Source">Where the wrong value was seen; row 0 for a card and for customers joined.</param>
/// <param name="MadeBy">Who made it.</param>
/// <param name="MadeAt">When.</param>
public sealed record StoredCorrection(Correction Correction, SourceRef Source, string MadeBy, DateTimeOffset MadeAt);

/// <summary>The corrections of one book that hold.</summary>
public sealed class CorrectionStore(NpgsqlDataSource source, long book)
{
    private const string Columns =
        "c.id, c.kind, c.column_heading, c.concerns, c.was, c.becomes, c.reason, c.file_name, c.sheet, c.row, p.name, c.made_at";

    /// <summary>All that hold, the newest first.</summary>
    public Task<List<StoredCorrection>> ListAsync(CancellationToken cancel) =>
        source
            .Sql(
                $"select {Columns} from correction c join person p on p.id = c.made_by where c.book_id = $1 and "
                    + "c.taken_back_at is null order by c.id desc",
                book
            )
            .ListAsync(Read, cancel);

    /// <summary>
    /// The corrections that have made rows of a kept ledger what they are, by row, the oldest first; those that were taken back since are
    /// among them.
    /// </summary>
    public async Task<ILookup<int, StoredCorrection>> OfRowsAsync(long intake, IEnumerable<int> rows, CancellationToken cancel) =>
        (
            await source
                .Sql(
                    $"""
                    select {Columns}, rc.row corrected_row from row_correction rc
                        join correction c on c.book_id = rc.book_id and c.id = rc.correction_id join person p on p.id = c.made_by
                    where rc.book_id = $1 and rc.intake_id = $2 and rc.row = any ($3) order by c.id
                    """,
                    book,
                    intake,
                    rows.ToArray()
                )
                .ListAsync(r => (Row: r.Int32("corrected_row"), Of: Read(r)), cancel)
        ).ToLookup(c => c.Row, c => c.Of);

    /// <summary>The corrections that hold, without who made them.</summary>
    public async Task<IReadOnlyList<Correction>> HoldingAsync(CancellationToken cancel) =>
        (await ListAsync(cancel)).ConvertAll(c => c.Correction);

    /// <summary>Adds a correction; one of the same value takes the place of the one before it.</summary>
    public async Task AddAsync(Correction correction, SourceRef seen, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await AddAsync(connection, book, correction, seen, person, now, cancel);
        await transaction.CommitAsync(cancel);
    }

    /// <summary>
    /// Takes a correction back; a field of a card that still says what was put there says again what it said before. False where it does
    /// not hold any more.
    /// </summary>
    public async Task<bool> TakeBackAsync(Correction correction, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        if (
            await connection
                .Sql(
                    "update correction set taken_back_by = $3, taken_back_at = $4 where book_id = $1 and id = $2 and "
                        + "taken_back_at is null",
                    book,
                    correction.Id,
                    person,
                    now.ToUniversalTime()
                )
                .RunAsync(cancel) == 0
        )
        {
            return false;
        }

        if (
            correction.Kind == CorrectionKind.Card
            && Enum.TryParse<CardField>(correction.Column, out var field)
            && await connection
                .Sql($"select {CardTable.Columns} from customer where book_id = $1 and key = $2 for update", book, correction.Of)
                .FirstAsync(CardTable.Read, cancel)
                is { } card
            && CardText.Of(card, field) == correction.Becomes
        )
        {
            await CardTable.WriteAsync(connection, book, [CardText.With(card, field, correction.Was)], cancel);
        }

        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>Notes a correction within a transaction; one of the same place takes the place of the one before.</summary>
    internal static async Task AddAsync(
        NpgsqlConnection connection,
        long book,
        Correction c,
        SourceRef seen,
        long person,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        // A card field that was put right from A to B and then to C is a correction of A to C; back to A is none.
        var first = c.Was;
        if (c.Kind == CorrectionKind.Card)
        {
            var before = await connection
                .Sql(
                    "select was from correction where book_id = $1 and kind = 'card' and column_heading = $2 and concerns = "
                        + "$3 and becomes = $4 and taken_back_at is null",
                    book,
                    c.Column,
                    c.Of,
                    c.Was
                )
                .ListAsync(r => r.GetString(0), cancel);
            first = before.Count > 0 ? before[0] : c.Was;
            await connection
                .Sql(
                    "update correction set taken_back_by = $5, taken_back_at = $6 where book_id = $1 and kind = 'card' and "
                        + "column_heading = $2 and concerns = $3 and becomes = $4 and taken_back_at is null",
                    book,
                    c.Column,
                    c.Of,
                    c.Was,
                    person,
                    now.ToUniversalTime()
                )
                .RunAsync(cancel);
            if (first == c.Becomes)
            {
                return;
            }
        }

        await connection
            .Sql(
                """
                insert into correction (book_id, kind, column_heading, concerns, was, becomes, reason, file_name, sheet, row, made_by,
                    made_at)
                values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)
                on conflict (book_id, kind, md5(column_heading), md5(concerns), md5(was)) where taken_back_at is null
                do update set becomes = excluded.becomes, reason = excluded.reason, made_by = excluded.made_by, made_at = excluded.made_at
                """,
                book,
                NameOf(c.Kind),
                c.Column,
                c.Of,
                first,
                c.Becomes,
                c.Reason,
                seen.File ?? "",
                new NpgsqlParameter<string?> { TypedValue = seen.Sheet, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Text },
                seen.Row,
                person,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);
    }

    private static string NameOf(CorrectionKind kind) =>
        kind switch
        {
            CorrectionKind.Cell => "cell",
            CorrectionKind.Everywhere => "everywhere",
            CorrectionKind.RowLeftOut => "row-left-out",
            CorrectionKind.CustomersJoined => "customers-joined",
            _ => "card",
        };

    private static CorrectionKind KindOf(string name) =>
        name switch
        {
            "cell" => CorrectionKind.Cell,
            "everywhere" => CorrectionKind.Everywhere,
            "row-left-out" => CorrectionKind.RowLeftOut,
            "customers-joined" => CorrectionKind.CustomersJoined,
            "card" => CorrectionKind.Card,
            _ => throw new InvalidOperationException($"“{name}” is no kind of correction."),
        };

    private static StoredCorrection Read(NpgsqlDataReader r) =>
        new(
            new Correction
            {
                Id = r.Int64("id"),
                Kind = KindOf(r.String("kind")),
                Column = r.String("column_heading"),
                Of = r.String("concerns"),
                Was = r.String("was"),
                Becomes = r.String("becomes"),
                Reason = r.String("reason"),
            },
            new SourceRef(r.String("file_name"), r.Text("sheet"), r.Int32("row")),
            r.String("name"),
            r.Value<DateTimeOffset>("made_at")
        );
}
