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

    /// <summary>Opens a stored file to be read from its start, holding one part at a time.</summary>
    public Stream Open(long file) => new PartStream(part =>
    {
        using var command = source.Sql("select bytes from stored_file_part where book_id = $1 and file_id = $2 and part = $3", book, file, part);
        return command.ExecuteScalar() as byte[];
    });

    /// <summary>A stream over parts that are fetched one after another.</summary>
    private sealed class PartStream(Func<int, byte[]?> fetch) : Stream
    {
        private byte[]? current;
        private int next;
        private int at;

        public override bool CanRead => true;

        public override bool CanSeek => false;

        public override bool CanWrite => false;

        public override long Length => throw new InvalidOperationException("A stored file is only read, from its start.");

        public override long Position
        {
            get => throw new InvalidOperationException("A stored file is only read, from its start.");
            set => throw new InvalidOperationException("A stored file is only read, from its start.");
        }

        public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

        public override int Read(Span<byte> buffer)
        {
            if (current is null || at == current.Length)
            {
                current = fetch(next++);
                at = 0;
                if (current is null)
                {
                    return 0;
                }
            }

            var count = Math.Min(buffer.Length, current.Length - at);
            current.AsSpan(at, count).CopyTo(buffer);
            at += count;
            return count;
        }

        public override void Flush()
        {
        }

        public override long Seek(long offset, SeekOrigin origin) => throw new InvalidOperationException("A stored file is only read, from its start.");

        public override void SetLength(long value) => throw new InvalidOperationException("A stored file is only read, from its start.");

        public override void Write(byte[] buffer, int offset, int count) => throw new InvalidOperationException("A stored file is only read, from its start.");
    }
}
