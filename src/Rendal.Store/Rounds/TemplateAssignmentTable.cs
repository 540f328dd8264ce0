using Npgsql;
using Rendal.Core.Templates;

namespace Rendal.Store.Rounds;

/// <summary>What the things of one kind of a book are used for.</summary>
/// <param name="thing">The kind, <c>layout</c> or <c>wording</c>, which the table and its column are named after.</param>
internal sealed class TemplateAssignmentTable(NpgsqlDataSource source, long book, string thing)
{
    /// <summary>What serves which purpose in which language, by purpose and language.</summary>
    public Task<List<TemplateAssignment>> ListAsync(CancellationToken cancel) =>
        source
            .Sql($"select purpose, language, {thing}_id from {thing}_assignment where book_id = $1 order by purpose, language", book)
            .ListAsync(r => new TemplateAssignment(r.GetString(0), r.GetString(1), r.GetInt64(2)), cancel);

    /// <summary>Uses one for a purpose in place of the one before; null for none.</summary>
    public Task PutAsync(string purpose, string language, long? id, long person, CancellationToken cancel) =>
        source.ByAsync(
            person,
            connection =>
                id is { } known
                    ? connection
                        .Sql(
                            $"insert into {thing}_assignment (book_id, purpose, language, {thing}_id) values ($1, $2, $3, $4) on "
                                + $"conflict (book_id, purpose, language) do update set {thing}_id = excluded.{thing}_id",
                            book,
                            purpose,
                            language,
                            known
                        )
                        .RunAsync(cancel)
                    : connection
                        .Sql(
                            $"delete from {thing}_assignment where book_id = $1 and purpose = $2 and language = $3",
                            book,
                            purpose,
                            language
                        )
                        .RunAsync(cancel),
            cancel
        );
}
