using Npgsql;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Store.Rounds;

namespace Rendal.Store.Wordings;

/// <summary>A wording with its number.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Version">Which it is; another one after each change.</param>
/// <param name="Wording">It.</param>
public sealed record StoredWording(long Id, long Version, Wording Wording);

/// <summary>The wordings of one book.</summary>
public sealed class WordingStore(NpgsqlDataSource source, long book)
{
    private readonly TemplateAssignmentTable uses = new(source, book, "wording");

    /// <summary>What the wordings are used for.</summary>
    public Task<List<TemplateAssignment>> UsesAsync(CancellationToken cancel) => uses.ListAsync(cancel);

    /// <summary>Uses a wording for a purpose in place of the one before; null for none.</summary>
    public Task UseAsync(string purpose, string language, long? id, long person, CancellationToken cancel) =>
        uses.PutAsync(purpose, language, id, person, cancel);

    /// <summary>All wordings by name.</summary>
    public Task<List<StoredWording>> ListAsync(CancellationToken cancel) =>
        source
            .Sql("select id, version, name, language, subject, body from wording where book_id = $1 order by name, id", book)
            .ListAsync(Read, cancel);

    /// <summary>A wording; null where there is none of this number.</summary>
    public Task<StoredWording?> FindAsync(long id, CancellationToken cancel) =>
        source
            .Sql("select id, version, name, language, subject, body from wording where book_id = $1 and id = $2", book, id)
            .FirstAsync(Read, cancel);

    /// <summary>Adds a wording, and gives its number.</summary>
    public Task<long> AddAsync(Wording wording, long person, CancellationToken cancel) =>
        source.ByAsync(
            person,
            connection =>
                connection
                    .Sql(
                        "insert into wording (book_id, name, language, subject, body) values ($1, $2, $3, $4, $5) returning id",
                        book,
                        wording.Name,
                        wording.Language,
                        wording.Subject,
                        wording.Body
                    )
                    .OneAsync<long>(cancel),
            cancel
        );

    /// <summary>Changes a wording.</summary>
    /// <param name="id">Its number.</param>
    /// <param name="version">The version that was changed.</param>
    /// <param name="wording">It as it is to be.</param>
    /// <param name="person">Who changes it.</param>
    /// <param name="now">The time.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<Update> UpdateAsync(
        long id,
        long version,
        Wording wording,
        long person,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        await source.ByAsync(
            person,
            connection =>
                connection
                    .Sql(
                        "update wording set name = $4, language = $5, subject = $6, body = $7, changed_by = $8, changed_at = "
                            + "$9 where book_id = $1 and id = $2 and version = $3",
                        book,
                        id,
                        version,
                        wording.Name,
                        wording.Language,
                        wording.Subject,
                        wording.Body,
                        person,
                        now.ToUniversalTime()
                    )
                    .RunAsync(cancel),
            cancel
        ) == 1
            ? Update.Done
        : await FindAsync(id, cancel) is null ? Update.NotThere
        : Update.Stale;

    /// <summary>Who changed a wording last; null where nobody did.</summary>
    public async Task<string?> ChangedByAsync(long id, CancellationToken cancel) =>
        await source
            .Sql("select p.name from wording w join person p on p.id = w.changed_by where w.book_id = $1 and w.id = $2", book, id)
            .ListAsync(r => r.GetString(0), cancel)
            is [var name]
            ? name
            : null;

    private static StoredWording Read(NpgsqlDataReader r) =>
        new(r.Int64("id"), r.Int64("version"), new Wording(r.String("name"), r.String("language"), r.String("subject"), r.String("body")));
}
