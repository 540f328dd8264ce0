using Npgsql;
using Rendal.Core.Intake;
using Rendal.Store.Intake;

namespace Rendal.Store.Readings;

/// <summary>The remembered readings of one book.</summary>
public sealed class ReadingStore(NpgsqlDataSource source, long book)
{
    /// <summary>The readings of a kind, those used last first.</summary>
    public Task<List<SavedReading>> ListAsync(IntakeKind kind, CancellationToken cancel) =>
        source
            .Sql("select reading from reading where book_id = $1 and kind = $2 order by used_at desc limit 200", book, kind.Name())
            .ListAsync(r => StoreJson.Read<SavedReading>(r.GetString(0)), cancel);

    /// <summary>Remembers within a transaction how a file was read, for the next one with the same headings.</summary>
    internal static Task RememberAsync(
        NpgsqlConnection connection,
        long book,
        IntakeKind kind,
        SavedReading reading,
        string file,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        connection
            .Sql(
                """
                insert into reading (book_id, kind, headings, reading, file_name, used_at) values ($1, $2, $3, $4, $5, $6)
                on conflict (book_id, kind, headings_hash(headings)) do update
                    set reading = excluded.reading, file_name = excluded.file_name, used_at = excluded.used_at
                """,
                book,
                kind.Name(),
                reading.Columns.Select(c => c.Heading).Order(StringComparer.Ordinal).ToArray(),
                Commands.Json(reading),
                file,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);
}
