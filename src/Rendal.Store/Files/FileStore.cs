using System.Security.Cryptography;
using Npgsql;

namespace Rendal.Store.Files;

/// <summary>The files of one book, exactly as they came.</summary>
public sealed class FileStore(NpgsqlDataSource source, long book)
{
    private const int PieceSize = 8_000;
    private const int PiecesAtOnce = 128;

    /// <summary>Stores a file in one transaction, a piece at a time.</summary>
    public async Task<long> StoreAsync(string name, Stream content, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var id = await connection
            .Sql("insert into stored_file (book_id, name, size, sha256) values ($1, $2, 0, $3) returning id", book, name, new byte[32])
            .OneAsync<long>(cancel);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        var block = new byte[PieceSize * PiecesAtOnce];
        long size = 0;
        await using (
            var copy = await BinaryCopy.BeginAsync(
                connection,
                "copy stored_file_piece (book_id, file_id, piece, bytes) from stdin (format binary)",
                cancel
            )
        )
        {
            while (await content.ReadAtLeastAsync(block, block.Length, throwOnEndOfStream: false, cancel) is > 0 and var count)
            {
                // The sum takes about as long as the writing, and a file may have hundreds of megabytes.
                var summing = Task.Run(() => hash.AppendData(block, 0, count), CancellationToken.None);
                for (var at = 0; at < count; at += PieceSize)
                {
                    copy.Row(4);
                    copy.Write(book);
                    copy.Write(id);
                    copy.Write((int)((size + at) / PieceSize));
                    copy.Write(block.AsSpan(at, Math.Min(PieceSize, count - at)));
                }

                await summing;
                size += count;
            }

            await copy.CompleteAsync(cancel);
        }

        await connection
            .Sql("update stored_file set size = $3, sha256 = $4 where book_id = $1 and id = $2", book, id, size, hash.GetHashAndReset())
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return id;
    }

    /// <summary>Opens a stored file to be read at any place, holding about a megabyte of it at a time.</summary>
    public Stream Open(long file)
    {
        using var size = source.Sql("select size from stored_file where book_id = $1 and id = $2", book, file);
        var length = size.ExecuteScalar() as long? ?? throw new InvalidOperationException($"There is no stored file {file}.");
        return new PieceStream(length, (piece, into) =>
        {
            using var command = source.Sql(
                "select bytes from stored_file_piece where book_id = $1 and file_id = $2 and piece >= $3 and piece < $4 order by piece",
                book,
                file,
                piece,
                piece + PiecesAtOnce
            );
            using var reader = command.ExecuteReader();
            var count = 0;
            while (reader.Read())
            {
                count += (int)reader.GetBytes(0, 0, into, count, PieceSize);
            }

            return count;
        });
    }

    /// <summary>A stream over pieces that are fetched, a number of them at once, as they are needed.</summary>
    private sealed class PieceStream(long length, Func<int, byte[], int> fetch) : Stream
    {
        private readonly byte[] current = new byte[PieceSize * PiecesAtOnce];
        private long windowRead = -1;
        private int filled;

        public override bool CanRead => true;

        public override bool CanSeek => true;

        public override bool CanWrite => false;

        public override long Length => length;

        public override long Position { get; set; }

        public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

        public override int Read(Span<byte> buffer)
        {
            if (Position >= length)
            {
                return 0;
            }

            var window = Position / current.Length;
            if (window != windowRead)
            {
                (filled, windowRead) = (fetch((int)window * PiecesAtOnce, current), window);
                if (filled != Math.Min(current.Length, length - (window * current.Length)))
                {
                    windowRead = -1;
                    throw new InvalidOperationException($"The stored file lacks a piece after byte {window * current.Length}.");
                }
            }

            var at = (int)(Position % current.Length);
            var count = Math.Min(buffer.Length, filled - at);
            current.AsSpan(at, count).CopyTo(buffer);
            Position += count;
            return count;
        }

        public override void Flush() { }

        public override long Seek(long offset, SeekOrigin origin) =>
            Position = origin switch
            {
                SeekOrigin.Begin => offset,
                SeekOrigin.Current => Position + offset,
                _ => length + offset,
            };

        public override void SetLength(long value) => throw new InvalidOperationException("A stored file is only read.");

        public override void Write(byte[] buffer, int offset, int count) =>
            throw new InvalidOperationException("A stored file is only read.");
    }
}
