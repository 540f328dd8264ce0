using Npgsql;
using Rendal.Core.People;

namespace Rendal.Store.People;

/// <summary>Somebody who has a book.</summary>
/// <param name="Id">Their number.</param>
/// <param name="Name">The name they sign in with.</param>
/// <param name="Made">Whether they made the book.</param>
public sealed record BookPerson(long Id, string Name, bool Made);

/// <summary>What came of taking a book from somebody.</summary>
public enum Taking
{
    /// <summary>They do not have it any more.</summary>
    Done,

    /// <summary>They did not have it, or who takes it does not.</summary>
    NotTheirs,

    /// <summary>They are the last who have it: a book is never nobody's.</summary>
    LastOne,

    /// <summary>They made the book; only they can leave it.</summary>
    TheMakers,
}

/// <summary>Somebody who is to have a book once they have followed.</summary>
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
        source
            .Sql(
                "select p.id, p.name, p.id = b.made_by from book_person x join person p on p.id = x.person_id join book b on "
                    + "b.id = x.book_id where x.book_id = $1 order by lower(p.name)",
                book
            )
            .ListAsync(r => new BookPerson(r.GetInt64(0), r.GetString(1), !r.IsDBNull(2) && r.GetBoolean(2)), cancel);

    /// <summary>Whether a person has the book, asked by what goes on without a request.</summary>
    public Task<bool> HasAsync(long person, CancellationToken cancel) =>
        source.Sql("select exists (select from book_person where book_id = $1 and person_id = $2)", book, person).OneAsync<bool>(cancel);

    /// <summary>
    /// Says whether nobody may release what they prepared themselves. Only who made the book says so.
    /// </summary>
    /// <returns>False where the person did not make the book, or nobody else has it.</returns>
    public async Task<bool> DemandSecondPersonAsync(bool isNeeded, long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        var isDone =
            await connection
                .Sql(
                    "update book set needs_second_person = $3 where id = $1 and made_by = $2 and (not $3 or exists (select from "
                        + "book_person where book_id = $1 and person_id <> $2))",
                    book,
                    person,
                    isNeeded
                )
                .RunAsync(cancel) == 1;
        await transaction.CommitAsync(cancel);
        return isDone;
    }

    /// <summary>
    /// Takes the book from a person. What was their own in it falls to the book, their sender without its password; the invitations that
    /// they made are good no more; they are signed out everywhere.
    /// </summary>
    /// <param name="person">From whom.</param>
    /// <param name="by">Who takes it.</param>
    /// <param name="now">The time.</param>
    public async Task<Taking> TakeAsync(long person, long by, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);

        // Two who take the book from each other at the same time: the second finds itself the last, or does not have it any more.
        var people = await connection
            .Sql("select person_id from book_person where book_id = $1 order by person_id for update", book)
            .ListAsync(r => r.GetInt64(0), cancel);
        if (!people.Contains(person) || !people.Contains(by))
        {
            return Taking.NotTheirs;
        }

        if (people.Count == 1)
        {
            return Taking.LastOne;
        }

        if (
            person != by
            && await connection.Sql("select exists (select from book where id = $1 and made_by = $2)", book, person).OneAsync<bool>(cancel)
        )
        {
            return Taking.TheMakers;
        }

        await connection.Sql("delete from book_person where book_id = $1 and person_id = $2", book, person).RunAsync(cancel);
        await connection
            .Sql(
                "update book set made_by = (select min(person_id) from book_person where book_id = $1) where id = $1 and made_by = $2",
                book,
                person
            )
            .RunAsync(cancel);
        await connection
            .Sql(
                "update sender set person_id = null, password = null, paused = 'This was the own sender of somebody who has "
                    + "left. Type its password to send by it.' where book_id = $1 and person_id = $2",
                book,
                person
            )
            .RunAsync(cancel);
        await connection.Sql("delete from invitation where book_id = $1 and made_by = $2", book, person).RunAsync(cancel);
        await connection
            .Sql("update session set ended_at = $2 where person_id = $1 and ended_at is null", person, now.ToUniversalTime())
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return Taking.Done;
    }

    /// <summary>
    /// Invites somebody, whether they can sign in or not: a book is had by who follows. Who is invited already gets a new key, and the old
    /// one is good no more.
    /// </summary>
    /// <param name="name">The name they will sign in with.</param>
    /// <param name="keyHash">The SHA-256 of the key.</param>
    /// <param name="by">Who invites.</param>
    /// <param name="now">The time.</param>
    /// <param name="until">Until when the key is taken.</param>
    public Task InviteAsync(string name, byte[] keyHash, long by, DateTimeOffset now, DateTimeOffset until, CancellationToken cancel) =>
        source
            .Sql(
                """
                insert into invitation (book_id, name, folded, key_hash, made_by, made_at, good_until) values ($1, $2, $7, $3, $4, $5, $6)
                on conflict (book_id, folded) do update set name = excluded.name, key_hash = excluded.key_hash, made_by = excluded.made_by,
                    made_at = excluded.made_at, good_until = excluded.good_until
                """,
                book,
                name,
                keyHash,
                by,
                now.ToUniversalTime(),
                until.ToUniversalTime(),
                PersonName.Fold(name)
            )
            .RunAsync(cancel);

    /// <summary>The invitations that nobody has followed yet, the newest first; also those that are too old.</summary>
    public Task<List<Invitation>> InvitationsAsync(CancellationToken cancel) =>
        source
            .Sql(
                "select i.id, i.name, p.name made_by, i.good_until from invitation i join person p on p.id = i.made_by where "
                    + "i.book_id = $1 order by i.made_at desc, i.id desc",
                book
            )
            .ListAsync(
                r => new Invitation(r.Int64("id"), r.String("name"), r.String("made_by"), r.Value<DateTimeOffset>("good_until")),
                cancel
            );

    /// <summary>Takes an invitation back. False where it is not there, or was followed.</summary>
    public async Task<bool> WithdrawAsync(long invitation, CancellationToken cancel) =>
        await source.Sql("delete from invitation where book_id = $1 and id = $2", book, invitation).RunAsync(cancel) == 1;
}
