using Rendal.Core.Rounds;

namespace Rendal.Store.Rounds;

/// <summary>A choice under a name.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Name">What the bookkeeper calls it.</param>
/// <param name="Choice">The choice; its dates are those of the round it was saved from.</param>
public sealed record SavedChoice(long Id, string Name, Choice Choice);

/// <summary>The saved choices of one book.</summary>
public sealed class ChoiceStore(Npgsql.NpgsqlDataSource source, long book)
{
    /// <summary>All of them, by name.</summary>
    public Task<List<SavedChoice>> ListAsync(CancellationToken cancel) =>
        source.Sql("select id, name, choice from saved_choice where book_id = $1 order by lower(name)", book).ListAsync(Read, cancel);

    /// <summary>One of them; null where there is none of this number.</summary>
    public Task<SavedChoice?> FindAsync(long id, CancellationToken cancel) =>
        source.Sql("select id, name, choice from saved_choice where book_id = $1 and id = $2", book, id).FirstAsync(Read, cancel);

    /// <summary>Saves a choice; one of the same name, in whatever case, is replaced.</summary>
    public Task<int> SaveAsync(string name, Choice choice, long person, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                """
                insert into saved_choice (book_id, name, choice, made_by, made_at) values ($1, $2, $3, $4, $5)
                on conflict (book_id, lower(name)) do update set name = excluded.name, choice = excluded.choice,
                    made_by = excluded.made_by, made_at = excluded.made_at
                """,
                book,
                name,
                Commands.Json(choice),
                person,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);

    /// <summary>Forgets a choice. False where it was forgotten before.</summary>
    public async Task<bool> ForgetAsync(long id, CancellationToken cancel) =>
        await source.Sql("delete from saved_choice where book_id = $1 and id = $2", book, id).RunAsync(cancel) == 1;

    private static SavedChoice Read(Npgsql.NpgsqlDataReader r) =>
        new(r.GetInt64(0), r.GetString(1), StoreJson.Read<Choice>(r.GetString(2)));
}
