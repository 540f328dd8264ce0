using Npgsql;
using Rendal.Core.People;

namespace Rendal.Store.People;

/// <summary>Somebody who can sign in.</summary>
/// <param name="Id">Their number.</param>
/// <param name="Name">The name they sign in with.</param>
/// <param name="PasswordHash">The hash of their password.</param>
/// <param name="Administers">Whether they administer the installation: they may let others choose a new password.</param>
public sealed record Person(long Id, string Name, string PasswordHash, bool Administers);

/// <summary>Whom an invitation is for.</summary>
/// <param name="Name">The name that they sign in with, or will.</param>
/// <param name="Firm">The firm whose book it is.</param>
/// <param name="CanSignIn">Whether somebody of this name can sign in, who then follows it as themselves.</param>
public sealed record Invited(string Name, string Firm, bool CanSignIn);

/// <summary>The people who can sign in. Names are compared as <see cref="PersonName"/> folds them.</summary>
public sealed class PersonStore(NpgsqlDataSource source)
{
    private const string Columns = "id, name, password_hash, administers";

    /// <summary>Whether there is anybody yet.</summary>
    public Task<bool> AnyAsync(CancellationToken cancel) => source.Sql("select exists (select from person)").OneAsync<bool>(cancel);

    /// <summary>
    /// Adds a person, and gives their number. It throws a unique violation (23505) where somebody has the name, in whatever case.
    /// </summary>
    public Task<long> AddAsync(string name, string passwordHash, CancellationToken cancel) =>
        source
            .Sql(
                "insert into person (name, folded, password_hash) values ($1, $2, $3) returning id",
                name,
                PersonName.Fold(name),
                passwordHash
            )
            .OneAsync<long>(cancel);

    /// <summary>
    /// Adds the first person, who administers the installation. Null where somebody was quicker: of any number at the same time one is the
    /// first.
    /// </summary>
    public async Task<long?> AddFirstAsync(string name, string passwordHash, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Sql("lock table person in share row exclusive mode").RunAsync(cancel);
        var added = await connection
            .Sql(
                "insert into person (name, folded, password_hash, administers) select $1, $2, $3, true where not exists "
                    + "(select from person) returning id",
                name,
                PersonName.Fold(name),
                passwordHash
            )
            .ListAsync(r => r.GetInt64(0), cancel);
        await connection.Sql("delete from first_run").RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return added is [var id] ? id : null;
    }

    /// <summary>Lets a key make the first person, as long as there is none. Each process that is started has one.</summary>
    public Task OfferFirstRunAsync(byte[] keyHash, CancellationToken cancel) =>
        source
            .Sql("insert into first_run (key_hash) select $1 where not exists (select from person) on conflict do nothing", keyHash)
            .RunAsync(cancel);

    /// <summary>Whether a key makes the first person: it was offered, and nobody is there yet.</summary>
    public Task<bool> IsFirstRunAsync(byte[] keyHash, CancellationToken cancel) =>
        source
            .Sql("select exists (select from first_run where key_hash = $1) and not exists (select from person)", keyHash)
            .OneAsync<bool>(cancel);

    /// <summary>
    /// Folds the names of those who are from before names were; of two that are one now, the later is told apart by its number, and still
    /// signs in with its name as it is.
    /// </summary>
    public async Task FoldNamesAsync(CancellationToken cancel)
    {
        foreach (
            var (id, name) in await source
                .Sql("select id, name from person where folded is null order by id")
                .ListAsync(r => (r.GetInt64(0), r.GetString(1)), cancel)
        )
        {
            await source
                .Sql(
                    "update person set folded = case when exists (select from person where folded = $2) then $2 || ' ' || "
                        + "$1::text else $2 end where id = $1 and folded is null",
                    id,
                    PersonName.Fold(name)
                )
                .RunAsync(cancel);
        }
    }

    /// <summary>Whom an invitation is for; null where there is none of this key that is still good.</summary>
    /// <param name="keyHash">The SHA-256 of the key.</param>
    /// <param name="now">The time.</param>
    public Task<Invited?> InvitedAsync(byte[] keyHash, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                "select i.name, b.name, exists (select from person p where p.folded = i.folded) from invitation i join book b "
                    + "on b.id = i.book_id where i.key_hash = $1 and i.good_until > $2",
                keyHash,
                now.ToUniversalTime()
            )
            .FirstAsync(r => new Invited(r.GetString(0), r.GetString(1), r.GetBoolean(2)), cancel);

    /// <summary>
    /// Adds the person who was invited, with the book, and uses the invitation up. Null where there is none of this key that is still
    /// good, or somebody has the name.
    /// </summary>
    public async Task<(long Id, string Name)?> JoinAsync(byte[] keyHash, string passwordHash, DateTimeOffset now, CancellationToken cancel)
    {
        var joined = await source
            .Sql(
                """
                with invited as (
                    delete from invitation where key_hash = $1 and good_until > $3
                        and not exists (select from person p where p.folded = invitation.folded) returning book_id, name, folded),
                added as (
                    insert into person (name, folded, password_hash) select name, folded, $2 from invited on conflict do nothing
                        returning id, name),
                given as (
                    insert into book_person (book_id, person_id) select i.book_id, a.id from invited i, added a)
                select id, name from added
                """,
                keyHash,
                passwordHash,
                now.ToUniversalTime()
            )
            .ListAsync(r => (r.GetInt64(0), r.GetString(1)), cancel);
        return joined.Count == 0 ? null : joined[0];
    }

    /// <summary>
    /// Gives the book of an invitation to a person who can sign in, where it is for them, and uses the invitation up. False where it is
    /// not good, or for somebody else.
    /// </summary>
    public async Task<bool> AcceptAsync(byte[] keyHash, long person, DateTimeOffset now, CancellationToken cancel) =>
        await source
            .Sql(
                """
                with invited as (
                    delete from invitation i using person p where i.key_hash = $1 and i.good_until > $3 and p.id = $2
                        and p.folded = i.folded returning i.book_id),
                given as (
                    insert into book_person (book_id, person_id) select book_id, $2 from invited on conflict do nothing)
                select exists (select from invited)
                """,
                keyHash,
                person,
                now.ToUniversalTime()
            )
            .OneAsync<bool>(cancel);

    /// <summary>The person of a name; null where there is none.</summary>
    public Task<Person?> FindAsync(string name, CancellationToken cancel) =>
        source
            .Sql(
                $"select {Columns} from person where folded = $1 or lower(name) = lower($2) order by lower(name) = lower($2) desc limit 1",
                PersonName.Fold(name),
                name.Trim()
            )
            .FirstAsync(Read, cancel);

    /// <summary>A person by their number; null where there is none.</summary>
    public Task<Person?> FindAsync(long person, CancellationToken cancel) =>
        source.Sql($"select {Columns} from person where id = $1", person).FirstAsync(Read, cancel);

    /// <summary>
    /// Changes a password, and ends at once what was good by the one before: all sessions but one, and the address by which another one
    /// could be chosen.
    /// </summary>
    /// <param name="person">Whose.</param>
    /// <param name="passwordHash">The new one, hashed.</param>
    /// <param name="but">The hash of the key of the session that goes on.</param>
    /// <param name="now">The time.</param>
    public Task PutPasswordAsync(long person, string passwordHash, byte[] but, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                """
                with ended as (update session set ended_at = $4 where person_id = $1 and ended_at is null and key_hash <> $3),
                gone as (delete from password_reset where person_id = $1)
                update person set password_hash = $2 where id = $1
                """,
                person,
                passwordHash,
                but,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);

    /// <summary>The address at which a person is told that a round has ended; empty for none.</summary>
    public Task<string> AddressAsync(long person, CancellationToken cancel) =>
        source.Sql("select address from person where id = $1", person).OneAsync<string>(cancel);

    /// <summary>Changes the address that notices to a person go to; empty for none.</summary>
    public Task PutAddressAsync(long person, string address, CancellationToken cancel) =>
        source.Sql("update person set address = $2 where id = $1", person, address).RunAsync(cancel);

    /// <summary>The lines with which a person signs messages, with line feeds between; empty for none.</summary>
    public Task<string> SignatureAsync(long person, CancellationToken cancel) =>
        source.Sql("select signature from person where id = $1", person).OneAsync<string>(cancel);

    /// <summary>Changes the lines with which a person signs messages; empty for none.</summary>
    public Task PutSignatureAsync(long person, string signature, CancellationToken cancel) =>
        source.Sql("update person set signature = $2 where id = $1", person, signature).RunAsync(cancel);

    /// <summary>Makes an address good by which a person chooses a new password; those made before for them are good no more.</summary>
    /// <param name="person">Who.</param>
    /// <param name="keyHash">The SHA-256 of its key.</param>
    /// <param name="by">Who makes it.</param>
    /// <param name="now">The time.</param>
    /// <param name="until">Until when the key is taken.</param>
    public Task ResetAsync(long person, byte[] keyHash, long by, DateTimeOffset now, DateTimeOffset until, CancellationToken cancel) =>
        source
            .Sql(
                "with gone as (delete from password_reset where person_id = $1) insert into password_reset (person_id, "
                    + "key_hash, made_by, made_at, good_until) values ($1, $2, $3, $4, $5)",
                person,
                keyHash,
                by,
                now.ToUniversalTime(),
                until.ToUniversalTime()
            )
            .RunAsync(cancel);

    /// <summary>Whose password the key of such an address is for; null where it is not good.</summary>
    public Task<Person?> ResetOfAsync(byte[] keyHash, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                $"select {Columns} from person where id = (select person_id from password_reset where key_hash = $1 and good_until > $2)",
                keyHash,
                now.ToUniversalTime()
            )
            .FirstAsync(Read, cancel);

    /// <summary>Sets the password by such an address, uses it up, and ends all sessions. Null where it is not good.</summary>
    public Task<Person?> FollowResetAsync(byte[] keyHash, string passwordHash, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                with reset as (delete from password_reset where key_hash = $1 and good_until > $3 returning person_id),
                ended as (update session set ended_at = $3 where ended_at is null and person_id in (select person_id from reset))
                update person set password_hash = $2 where id in (select person_id from reset) returning {Columns}
                """,
                keyHash,
                passwordHash,
                now.ToUniversalTime()
            )
            .FirstAsync(Read, cancel);

    private static Person Read(NpgsqlDataReader r) =>
        new(r.Int64("id"), r.String("name"), r.String("password_hash"), r.Boolean("administers"));
}
