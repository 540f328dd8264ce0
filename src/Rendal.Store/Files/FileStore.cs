using System.Security.Cryptography;
using Npgsql;

namespace Rendal.Store.Files;

/// <summary>The files of one book, exactly as they came.</summary>
public sealed class FileStore(NpgsqlDataSource source, long book)
{
    private const int PartSize = 1024 * 1024;

    /// <summary>Stores a file in one transaction, a part at a time.</summary>
    public async Task<long> StoreAsync(string name, Stream content, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var id = await connection.Sql("insert into stored_file (book_id, name, size, sha256) values ($1, $2, 0, $3) returning id", book, name, new byte[32]).OneAsync<long>(cancel);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        var buffer = new byte[PartSize];
        long size = 0;
        for (var part = 0; ; part++)
        {
            var count = await content.ReadAtLeastAsync(buffer, PartSize, throwOnEndOfStream: false, cancel);
            if (count == 0)
            {
                break;
            }

            hash.AppendData(buffer, 0, count);
            size += count;
            await connection.Sql("insert into stored_file_part (book_id, file_id, part, bytes) values ($1, $2, $3, $4)", book, id, part, buffer[..count]).RunAsync(cancel);
        }

        await connection.Sql("update stored_file set size = $3, sha256 = $4 where book_id = $1 and id = $2", book, id, size, hash.GetHashAndReset()).RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return id;
    }

    /// <summary>Opens a stored file to be read at any place, holding one part at a time.</summary>
    public Stream Open(long file)
    {
        using var size = source.Sql("select size from stored_file where book_id = $1 and id = $2", book, file);
        var length = size.ExecuteScalar() as long? ?? throw new InvalidOperationException($"There is no stored file {file}.");
        return new PartStream(length, part =>
        {
            using var command = source.Sql("select bytes from stored_file_part where book_id = $1 and file_id = $2 and part = $3", book, file, part);
            return command.ExecuteScalar() as byte[] ?? throw new InvalidOperationException($"Part {part} of the stored file {file} is missing.");
        });
    }

    /// <summary>A stream over parts that are fetched as they are needed.</summary>
    private sealed class PartStream(long length, Func<int, byte[]> fetch) : Stream
    {
        private byte[] current = [];
        private int held = -1;

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

            var part = (int)(Position / PartSize);
            if (part != held)
            {
                (current, held) = (fetch(part), part);
            }

            var at = (int)(Position % PartSize);
            var count = Math.Min(buffer.Length, current.Length - at);
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
