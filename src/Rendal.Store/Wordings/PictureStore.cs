using System.Security.Cryptography;
using Npgsql;
using Rendal.Core.Wordings;

namespace Rendal.Store.Wordings;

/// <summary>The pictures of one book that stand in its messages.</summary>
public sealed class PictureStore(NpgsqlDataSource source, long book)
{
    /// <summary>Keeps a picture and gives its number; one that is there already has the number it had.</summary>
    public async Task<long> AddAsync(string contentType, byte[] bytes, CancellationToken cancel)
    {
        var sum = SHA256.HashData(bytes);
        await source
            .Sql(
                "insert into picture (book_id, sha256, content_type, bytes) values ($1, $2, $3, $4) on conflict (book_id, "
                    + "sha256) do nothing",
                book,
                sum,
                contentType,
                bytes
            )
            .RunAsync(cancel);
        return await source.Sql("select id from picture where book_id = $1 and sha256 = $2", book, sum).OneAsync<long>(cancel);
    }

    /// <summary>The pictures of these numbers; a number that the book does not have is left out.</summary>
    public async Task<IReadOnlyList<MessagePicture>> OfAsync(IReadOnlyCollection<long> numbers, CancellationToken cancel) =>
        numbers.Count == 0
            ? []
            : await source
                .Sql(
                    "select id, content_type, bytes from picture where book_id = $1 and id = any($2) order by id",
                    book,
                    numbers.ToArray()
                )
                .ListAsync(r => new MessagePicture(r.GetInt64(0), r.GetString(1), r.GetFieldValue<byte[]>(2)), cancel);
}
