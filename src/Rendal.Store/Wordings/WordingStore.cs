using Npgsql;
using Rendal.Core.Rounds;
using Rendal.Core.Wordings;
using Rendal.Store.Rounds;

namespace Rendal.Store.Wordings;

/// <summary>A wording with its number.</summary>
public sealed record StoredWording(long Id, Wording Wording);

/// <summary>The wordings of one book.</summary>
public sealed class WordingStore(NpgsqlDataSource source, long book)
{
    private readonly UseTable uses = new(source, book, "wording");

    /// <summary>What the wordings are used for.</summary>
    public Task<List<UsedFor>> UsesAsync(CancellationToken cancel) => uses.ListAsync(cancel);

    /// <summary>Uses a wording for a purpose in place of the one before; null for none.</summary>
    public Task UseAsync(string purpose, string language, long? id, CancellationToken cancel) => uses.PutAsync(purpose, language, id, cancel);

    /// <summary>All wordings by name.</summary>
    public Task<List<StoredWording>> ListAsync(CancellationToken cancel) =>
        source.Sql("select id, name, language, subject, body from wording where book_id = $1 order by name, id", book).ListAsync(Read, cancel);

    /// <summary>A wording; null where there is none of this number.</summary>
    public Task<StoredWording?> FindAsync(long id, CancellationToken cancel) =>
        source.Sql("select id, name, language, subject, body from wording where book_id = $1 and id = $2", book, id).FirstAsync(Read, cancel);

    /// <summary>Adds a wording.</summary>
    public Task<long> AddAsync(Wording wording, CancellationToken cancel) =>
        source.Sql("insert into wording (book_id, name, language, subject, body) values ($1, $2, $3, $4, $5) returning id", book, wording.Name, wording.Language, wording.Subject, wording.Body).OneAsync<long>(cancel);

    /// <summary>Changes a wording. False where there is none of this number.</summary>
    public async Task<bool> UpdateAsync(long id, Wording wording, CancellationToken cancel) =>
        await source.Sql("update wording set name = $3, language = $4, subject = $5, body = $6 where book_id = $1 and id = $2", book, id, wording.Name, wording.Language, wording.Subject, wording.Body).RunAsync(cancel) == 1;

    private static StoredWording Read(NpgsqlDataReader r) => new(r.GetInt64(0), new Wording(r.GetString(1), r.GetString(2), r.GetString(3), r.GetString(4)));
}
