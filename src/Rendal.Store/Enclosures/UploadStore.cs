using Npgsql;

namespace Rendal.Store.Enclosures;

/// <summary>A file on its way.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Name">Its name.</param>
/// <param name="Size">How many bytes it has.</param>
/// <param name="Received">How many of them are here.</param>
public sealed record UploadRecord(long Id, string Name, long Size, long Received)
{
    /// <summary>Whether all of it is here.</summary>
    public bool IsWhole => Received == Size;
}

/// <summary>Files that come piece by piece, so that they can be gone on with after the line was cut.</summary>
public sealed class UploadStore(NpgsqlDataSource source, long book)
{
    private static readonly TimeSpan Kept = TimeSpan.FromDays(7);

    /// <summary>
    /// Begins one, or goes on with the one that the same person began of the same file. What nobody went on with for a week is thrown
    /// away.
    /// </summary>
    /// <param name="name">Its name.</param>
    /// <param name="size">How many bytes it has.</param>
    /// <param name="mark">What tells it from another file of that name and size.</param>
    /// <param name="person">Whose it is.</param>
    /// <param name="now">The time.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<UploadRecord> BeginAsync(
        string name,
        long size,
        string mark,
        long person,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        await source.Sql("delete from upload where book_id = $1 and begun_at < $2", book, (now - Kept).ToUniversalTime()).RunAsync(cancel);
        return await source
            .Sql(
                "select id, name, size, received from upload where book_id = $1 and begun_by = $2 and name = $3 and size = $4 "
                    + "and mark = $5 order by id desc limit 1",
                book,
                person,
                name,
                size,
                mark
            )
            .FirstAsync(Read, cancel)
            ?? (
                await source
                    .Sql(
                        "insert into upload (book_id, name, size, mark, begun_by, begun_at) values ($1, $2, $3, $4, $5, $6) "
                            + "returning id, name, size, received",
                        book,
                        name,
                        size,
                        mark,
                        person,
                        now.ToUniversalTime()
                    )
                    .ListAsync(Read, cancel)
            )[0];
    }

    /// <summary>A file on its way; null where the person has none of this number.</summary>
    public Task<UploadRecord?> FindAsync(long id, long person, CancellationToken cancel) =>
        source
            .Sql("select id, name, size, received from upload where book_id = $1 and id = $2 and begun_by = $3", book, id, person)
            .FirstAsync(Read, cancel);

    /// <summary>
    /// Adds the next piece. Null where it does not begin where the last one ended, or goes beyond the end: nothing of it is kept then.
    /// </summary>
    /// <param name="id">The file.</param>
    /// <param name="at">Where in the file it begins.</param>
    /// <param name="piece">The piece.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>How many bytes are here with it.</returns>
    public async Task<long?> AppendAsync(long id, long at, byte[] piece, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var received = await connection
            .Sql(
                "update upload set received = received + $4 where book_id = $1 and id = $2 and received = $3 and received + $4 <= size "
                    + "returning received",
                book,
                id,
                at,
                piece.LongLength
            )
            .ListAsync(r => r.GetInt64(0), cancel);
        if (received.Count == 0)
        {
            return null;
        }

        await connection
            .Sql("insert into upload_piece (book_id, upload_id, at, bytes) values ($1, $2, $3, $4)", book, id, at, piece)
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return received[0];
    }

    /// <summary>Writes a file to a stream, a piece at a time.</summary>
    public async Task WriteAsync(long id, Stream output, CancellationToken cancel)
    {
        for (long at = 0; ; )
        {
            var piece = await source
                .Sql("select bytes from upload_piece where book_id = $1 and upload_id = $2 and at = $3", book, id, at)
                .FirstAsync(r => r.GetFieldValue<byte[]>(0), cancel);
            if (piece is null)
            {
                return;
            }

            await output.WriteAsync(piece, cancel);
            at += piece.LongLength;
        }
    }

    /// <summary>Throws a file away.</summary>
    public Task DeleteAsync(long id, CancellationToken cancel) =>
        source.Sql("delete from upload where book_id = $1 and id = $2", book, id).RunAsync(cancel);

    private static UploadRecord Read(NpgsqlDataReader r) => new(r.Int64("id"), r.String("name"), r.Int64("size"), r.Int64("received"));
}
