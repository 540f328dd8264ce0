using Npgsql;

namespace Rendal.Store.People;

/// <summary>Somebody who can sign in.</summary>
/// <param name="Id">Their number.</param>
/// <param name="Name">The name they sign in with.</param>
/// <param name="PasswordHash">The hash of their password.</param>
/// <param name="SignInFrom">Before this time no sign-in is looked at, because too many failed.</param>
public sealed record Person(long Id, string Name, string PasswordHash, DateTimeOffset SignInFrom);

/// <summary>The people who can sign in.</summary>
public sealed class PersonStore(NpgsqlDataSource source)
{
    /// <summary>Whether there is anybody yet.</summary>
    public Task<bool> AnyAsync(CancellationToken cancel) => source.Sql("select exists (select from person)").OneAsync<bool>(cancel);

    /// <summary>Adds a person. Names are unique without regard to case.</summary>
    public Task<long> AddAsync(string name, string passwordHash, CancellationToken cancel) =>
        source.Sql("insert into person (name, password_hash) values ($1, $2) returning id", name, passwordHash).OneAsync<long>(cancel);

    /// <summary>Whom an invitation is for, and to the book of which firm; null where there is none of this key that is still good.</summary>
    /// <param name="keyHash">The SHA-256 of the key.</param>
    /// <param name="now">The time.</param>
    public async Task<(string Name, string Firm)?> InvitedAsync(byte[] keyHash, DateTimeOffset now, CancellationToken cancel)
    {
        var found = await source.Sql("select i.name, b.name from invitation i join book b on b.id = i.book_id where i.key_hash = $1 and i.good_until > $2", keyHash, now.ToUniversalTime())
            .ListAsync(r => (r.GetString(0), r.GetString(1)), cancel);
        return found.Count == 0 ? null : found[0];
    }

    /// <summary>
    /// Adds the person who was invited, with the book, and uses the invitation up. Null where there is none of this key that
    /// is still good, or somebody else has got the name since.
    /// </summary>
    public async Task<(long Id, string Name)?> JoinAsync(byte[] keyHash, string passwordHash, DateTimeOffset now, CancellationToken cancel)
    {
        var joined = await source.Sql(
            """
            with invited as (
                delete from invitation where key_hash = $1 and good_until > $3 and not exists (select from person p where lower(p.name) = lower(invitation.name)) returning book_id, name),
            added as (
                insert into person (name, password_hash) select name, $2 from invited on conflict do nothing returning id, name),
            given as (
                insert into book_person (book_id, person_id) select i.book_id, a.id from invited i, added a)
            select id, name from added
            """,
            keyHash, passwordHash, now.ToUniversalTime()).ListAsync(r => (r.GetInt64(0), r.GetString(1)), cancel);
        return joined.Count == 0 ? null : joined[0];
    }

    /// <summary>The person of a name; null where there is none.</summary>
    public Task<Person?> FindAsync(string name, CancellationToken cancel) =>
        source.Sql("select id, name, password_hash, case when isfinite(sign_in_from) then sign_in_from else 'epoch' end from person where lower(name) = lower($1)", name)
            .FirstAsync(r => new Person(r.GetInt64(0), r.GetString(1), r.GetString(2), r.GetFieldValue<DateTimeOffset>(3)), cancel);

    /// <summary>The address at which a person is told that a round has ended; empty for none.</summary>
    public Task<string> AddressAsync(long person, CancellationToken cancel) => source.Sql("select address from person where id = $1", person).OneAsync<string>(cancel);

    /// <summary>Changes it; empty for none.</summary>
    public Task PutAddressAsync(long person, string address, CancellationToken cancel) => source.Sql("update person set address = $2 where id = $1", person, address).RunAsync(cancel);

    /// <summary>
    /// Notes a failed sign-in. From the third one on, the next is not looked at for 1, 2, 4 … seconds, 15 minutes at most.
    /// </summary>
    public Task NoteFailureAsync(long person, DateTimeOffset now, CancellationToken cancel) =>
        source.Sql(
            """
            update person set failed_sign_ins = failed_sign_ins + 1,
                sign_in_from = case when failed_sign_ins < 2 then sign_in_from
                    else $2 + least(interval '15 minutes', interval '1 second' * power(2, least(failed_sign_ins - 2, 20))) end
            where id = $1
            """,
            person, now.ToUniversalTime()).RunAsync(cancel);

    /// <summary>Forgets the failures after a sign-in that went well.</summary>
    public Task NoteSuccessAsync(long person, CancellationToken cancel) =>
        source.Sql("update person set failed_sign_ins = 0, sign_in_from = '-infinity' where id = $1", person).RunAsync(cancel);
}
