using Npgsql;

namespace Rendal.Store.People;

/// <summary>Somebody who has a book.</summary>
/// <param name="Id">Their number.</param>
/// <param name="Name">The name they sign in with.</param>
public sealed record BookPerson(long Id, string Name);

/// <summary>Somebody who is to have a book once they have chosen a password.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Name">The name they will sign in with.</param>
/// <param name="By">Who invited them.</param>
/// <param name="GoodUntil">Until when the key is taken.</param>
public sealed record Invitation(long Id, string Name, string By, DateTimeOffset GoodUntil);

/// <summary>The people of one book: who has it, and who is invited to.</summary>
public sealed class BookPeople(NpgsqlDataSource source, long book)
{
    /// <summary>Who has the book, by name.</summary>
    public Task<List<BookPerson>> ListAsync(CancellationToken cancel) =>
        source.Sql("select p.id, p.name from book_person b join person p on p.id = b.person_id where b.book_id = $1 order by lower(p.name)", book)
            .ListAsync(r => new BookPerson(r.GetInt64(0), r.GetString(1)), cancel);

    /// <summary>Gives the book to a person who can sign in already; nothing where they have it. False where there is nobody of this name, which is looked for without regard to case.</summary>
    public async Task<bool> GiveAsync(string name, CancellationToken cancel) =>
        await source.Sql(
            """
            with given as (
                insert into book_person (book_id, person_id) select $1, id from person where lower(name) = lower($2) on conflict do nothing)
            select exists (select from person where lower(name) = lower($2))
            """,
            book, name).OneAsync<bool>(cancel);

    /// <summary>Takes the book from a person. False where they do not have it, or are the last who do: a book is never nobody's.</summary>
    public async Task<bool> TakeAsync(long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);

        // Two who take the book from each other at the same time: the second finds itself the last.
        await connection.Sql("select person_id from book_person where book_id = $1 for update", book).ListAsync(r => r.GetInt64(0), cancel);
        var taken = await connection.Sql("delete from book_person where book_id = $1 and person_id = $2 and exists (select from book_person where book_id = $1 and person_id <> $2)", book, person).RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return taken == 1;
    }

    /// <summary>Invites somebody who cannot sign in yet. Who is invited already gets a new key, and the old one is good no more.</summary>
    /// <param name="name">The name they will sign in with.</param>
    /// <param name="keyHash">The SHA-256 of the key.</param>
    /// <param name="by">Who invites.</param>
    /// <param name="now">The time.</param>
    /// <param name="until">Until when the key is taken.</param>
    public Task InviteAsync(string name, byte[] keyHash, long by, DateTimeOffset now, DateTimeOffset until, CancellationToken cancel) =>
        source.Sql(
            """
            insert into invitation (book_id, name, key_hash, made_by, made_at, good_until) values ($1, $2, $3, $4, $5, $6)
            on conflict (book_id, lower(name)) do update set key_hash = excluded.key_hash, made_by = excluded.made_by, made_at = excluded.made_at, good_until = excluded.good_until
            """,
            book, name, keyHash, by, now.ToUniversalTime(), until.ToUniversalTime()).RunAsync(cancel);

    /// <summary>The invitations that nobody has followed yet, the newest first; also those that are too old.</summary>
    public Task<List<Invitation>> InvitationsAsync(CancellationToken cancel) =>
        source.Sql("select i.id, i.name, p.name, i.good_until from invitation i join person p on p.id = i.made_by where i.book_id = $1 order by i.made_at desc, i.id desc", book)
            .ListAsync(r => new Invitation(r.GetInt64(0), r.GetString(1), r.GetString(2), r.GetFieldValue<DateTimeOffset>(3)), cancel);

    /// <summary>Takes an invitation back. False where it is not there, or was followed.</summary>
    public async Task<bool> WithdrawAsync(long invitation, CancellationToken cancel) =>
        await source.Sql("delete from invitation where book_id = $1 and id = $2", book, invitation).RunAsync(cancel) == 1;
}
