using System.Security.Cryptography;
using Npgsql;
using NpgsqlTypes;

namespace Rendal.Store.Files;

/// <summary>The files of one book, exactly as they came.</summary>
public sealed class FileStore(NpgsqlDataSource source, long book)
{
    private const int PieceSize = 8_000;
    private const int PiecesRead = 128;

    /// <summary>Stores a file in one transaction, a piece at a time.</summary>
    public async Task<long> StoreAsync(string name, Stream content, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var id = await connection.Sql("insert into stored_file (book_id, name, size, sha256) values ($1, $2, 0, $3) returning id", book, name, new byte[32]).OneAsync<long>(cancel);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        var buffer = new byte[PieceSize];
        long size = 0;
        await using (var copy = await connection.BeginBinaryImportAsync("copy stored_file_piece (book_id, file_id, piece, bytes) from stdin (format binary)", cancel))
        {
            for (var piece = 0; ; piece++)
            {
                var count = await content.ReadAtLeastAsync(buffer, PieceSize, throwOnEndOfStream: false, cancel);
                if (count == 0)
                {
                    break;
                }

                hash.AppendData(buffer, 0, count);
                size += count;
                await copy.StartRowAsync(cancel);
                await copy.WriteAsync(book, NpgsqlDbType.Bigint, cancel);
                await copy.WriteAsync(id, NpgsqlDbType.Bigint, cancel);
                await copy.WriteAsync(piece, NpgsqlDbType.Integer, cancel);
                await copy.WriteAsync(buffer.AsMemory(0, count), NpgsqlDbType.Bytea, cancel);
            }

            await copy.CompleteAsync(cancel);
        }

        await connection.Sql("update stored_file set size = $3, sha256 = $4 where book_id = $1 and id = $2", book, id, size, hash.GetHashAndReset()).RunAsync(cancel);
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
                "select bytes from stored_file_piece where book_id = $1 and file_id = $2 and piece >= $3 and piece < $4 order by piece", book, file, piece, piece + PiecesRead);
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
        private readonly byte[] current = new byte[PieceSize * PiecesRead];
        private long held = -1;
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
            if (window != held)
            {
                (filled, held) = (fetch((int)window * PiecesRead, current), window);
                if (filled != Math.Min(current.Length, length - (window * current.Length)))
                {
                    held = -1;
                    throw new InvalidOperationException($"The stored file lacks a piece after byte {window * current.Length}.");
                }
            }

            var at = (int)(Position % current.Length);
            var count = Math.Min(buffer.Length, filled - at);
            current.AsSpan(at, count).CopyTo(buffer);
            Position += count;
            return count;
        }

        public override void Flush()
        {
        }

        public override long Seek(long offset, SeekOrigin origin) => Position = origin switch
        {
            SeekOrigin.Begin => offset,
            SeekOrigin.Current => Position + offset,
            _ => length + offset,
        };

        public override void SetLength(long value) => throw new InvalidOperationException("A stored file is only read.");

        public override void Write(byte[] buffer, int offset, int count) => throw new InvalidOperationException("A stored file is only read.");
    }
}
