using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Enclosures;

namespace Rendal.Store.Enclosures;

/// <summary>A file with what a person wants to know of it.</summary>
/// <param name="File">The file.</param>
/// <param name="Origin">What it came in.</param>
/// <param name="GivenAt">When.</param>
/// <param name="GivenBy">The name of who gave it in.</param>
public sealed record EnclosureRecord(EnclosureFile File, string Origin, DateTimeOffset GivenAt, string GivenBy);

/// <summary>The files of one book that can go with messages.</summary>
public sealed class EnclosureStore(NpgsqlDataSource source, long book)
{
    private const string Columns = "e.id, e.name, e.sha256, e.size, e.content_type, e.used_for, e.customer, e.recognised, e.by_hand";

    /// <summary>
    /// Keeps files, the content of each once. One that is there already under the same name and for the same use is passed over.
    /// </summary>
    /// <param name="files">The files.</param>
    /// <param name="purpose">What they are given in for.</param>
    /// <param name="person">Who gives them in.</param>
    /// <param name="cancel">Stops it; nothing of these files is kept then.</param>
    /// <returns>How many were new.</returns>
    public async Task<int> AddAsync(IReadOnlyList<NewEnclosure> files, EnclosurePurpose purpose, long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        foreach (
            var file in files
                .DistinctBy(f => Convert.ToHexString(f.Sha256))
                .OrderBy(f => Convert.ToHexString(f.Sha256), StringComparer.Ordinal)
        )
        {
            await connection
                .Sql(
                    "insert into enclosure_content (book_id, sha256, bytes) values ($1, $2, $3) on conflict do nothing",
                    book,
                    file.Sha256,
                    file.Bytes
                )
                .RunAsync(cancel);
        }

        var added = await connection
            .Sql(
                """
                insert into enclosure (book_id, name, sha256, size, content_type, used_for, customer, origin, page_text, recognised,
                    recognised_by, numbers, given_by)
                select $1, f.name, f.sha256, f.size, f.content_type, $2, $3, f.origin, f.page_text, f.recognised::jsonb, $4,
                    array_remove(string_to_array(f.numbers, E'\n'), ''), $5
                from unnest($6::text[], $7::bytea[], $8::bigint[], $9::text[], $10::text[], $11::text[], $12::text[], $13::text[])
                    with ordinality as f (name, sha256, size, content_type, origin, page_text, recognised, numbers, place)
                where not exists (select from enclosure e where e.book_id = $1 and e.sha256 = f.sha256 and e.name = f.name
                    and e.used_for = $2 and e.customer = $3 and e.deleted_at is null)
                order by f.place
                """,
                book,
                EnumText.Of(purpose.Use),
                purpose.Customer,
                Commands.Whole(purpose.Intake),
                person,
                files.Select(f => f.Name).ToArray(),
                files.Select(f => f.Sha256).ToArray(),
                files.Select(f => f.Bytes.LongLength).ToArray(),
                files.Select(f => f.ContentType).ToArray(),
                files.Select(f => f.Origin).ToArray(),
                files.Select(f => f.Text).ToArray(),
                files.Select(f => StoreJson.Write(f.Recognised)).ToArray(),
                files.Select(f => string.Join('\n', NumbersOf(f.Recognised, null))).ToArray()
            )
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return added;
    }

    /// <summary>All files of a use, in the order in which they were given in.</summary>
    public Task<List<EnclosureFile>> ListAsync(EnclosureUse use, CancellationToken cancel) =>
        source
            .Sql(
                $"select {Columns} from enclosure e where e.book_id = $1 and e.used_for = $2 and e.deleted_at is null order by e.id",
                book,
                EnumText.Of(use)
            )
            .ListAsync(Read, cancel);

    /// <summary>
    /// The copies that have to do with some numbers, and those that have to do with their other numbers, in the order in which they were
    /// given in.
    /// </summary>
    /// <param name="numbers">The numbers, as <see cref="DocumentNumber.Key"/>.</param>
    /// <param name="cancel">Stops it.</param>
    public Task<List<EnclosureFile>> CopiesOfAsync(IReadOnlyCollection<string> numbers, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                with of as (select e.numbers from enclosure e where e.book_id = $1 and e.numbers && $2 and e.deleted_at is null
                    and e.used_for = 'copy')
                select {Columns} from enclosure e where e.book_id = $1 and e.used_for = 'copy' and e.deleted_at is null
                    and e.numbers && (select $2::text[] || coalesce(array_agg(n), array[]::text[]) from of, unnest(of.numbers) n)
                order by e.id
                """,
                book,
                numbers.ToArray()
            )
            .ListAsync(Read, cancel);

    /// <summary>The files that are kept with a customer and those that can be picked, with who gave them in.</summary>
    /// <param name="customer">The customer; null for those that can be picked.</param>
    /// <param name="cancel">Stops it.</param>
    public Task<List<EnclosureRecord>> RecordsAsync(string? customer, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                select {Columns}, e.origin, e.given_at, p.name as given_by_name from enclosure e join person p on p.id = e.given_by
                where e.book_id = $1 and e.used_for = case when $2 = '' then 'picked' else 'customer' end and e.customer = $2
                    and e.deleted_at is null
                order by lower(e.name), e.id
                """,
                book,
                customer ?? ""
            )
            .ListAsync(
                r => new EnclosureRecord(Read(r), r.String("origin"), r.Value<DateTimeOffset>("given_at"), r.String("given_by_name")),
                cancel
            );

    /// <summary>The files of these numbers; one that is not there, or was deleted, is left away.</summary>
    public Task<List<EnclosureFile>> FindAsync(IReadOnlyCollection<long> ids, CancellationToken cancel) =>
        source
            .Sql(
                $"select {Columns} from enclosure e where e.book_id = $1 and e.id = any ($2) and e.deleted_at is null order by e.id",
                book,
                ids.ToArray()
            )
            .ListAsync(Read, cancel);

    /// <summary>The content of a file by its hash; null where there is none.</summary>
    /// <param name="sha256">The hash as hexadecimal digits.</param>
    /// <param name="cancel">Stops it.</param>
    public Task<byte[]?> ContentAsync(string sha256, CancellationToken cancel) =>
        source
            .Sql("select bytes from enclosure_content where book_id = $1 and sha256 = $2", book, Convert.FromHexString(sha256))
            .FirstAsync(r => r.GetFieldValue<byte[]>(0), cancel);

    /// <summary>
    /// The copies about which nobody said anything, and in which no number of an earlier intake was found: number, name, text. What is a
    /// question stays one until a person answers it.
    /// </summary>
    /// <param name="intake">The intake whose numbers count now.</param>
    /// <param name="after">Those with a higher number.</param>
    /// <param name="most">So many at most.</param>
    /// <param name="cancel">Stops it.</param>
    public Task<List<(long Id, string Name, string Text)>> UnrecognisedAsync(
        long intake,
        long after,
        int most,
        CancellationToken cancel
    ) =>
        source
            .Sql(
                """
                select id, name, page_text from enclosure where book_id = $1 and id > $3 and used_for = 'copy' and deleted_at is null
                    and by_hand is null and numbers = '{}' and recognised_by is distinct from $2 order by id limit $4
                """,
                book,
                intake,
                after,
                most
            )
            .ListAsync(r => (r.GetInt64(0), r.GetString(1), r.GetString(2)), cancel);

    /// <summary>The names of the copies, for a pattern to be proposed by.</summary>
    public Task<List<string>> CopyNamesAsync(int most, CancellationToken cancel) =>
        source
            .Sql(
                "select name from enclosure where book_id = $1 and used_for = 'copy' and deleted_at is null order by id desc limit $2",
                book,
                most
            )
            .ListAsync(r => r.GetString(0), cancel);

    /// <summary>Notes which documents files are copies of, by the numbers of an intake.</summary>
    public Task RecogniseAsync(IReadOnlyList<(long Id, Recognised Recognised)> files, long intake, CancellationToken cancel) =>
        source
            .Sql(
                """
                update enclosure e set recognised = f.recognised::jsonb, recognised_by = $2,
                    numbers = array_remove(string_to_array(f.numbers, E'\n'), '')
                from unnest($3::bigint[], $4::text[], $5::text[]) f (id, recognised, numbers)
                where e.book_id = $1 and e.id = f.id and e.by_hand is null
                """,
                book,
                intake,
                files.Select(f => f.Id).ToArray(),
                files.Select(f => StoreJson.Write(f.Recognised)).ToArray(),
                files.Select(f => string.Join('\n', NumbersOf(f.Recognised, null))).ToArray()
            )
            .RunAsync(cancel);

    /// <summary>
    /// Notes what a person says that files are copies of, all or none. False where one of them is no copy, or was deleted.
    /// </summary>
    /// <param name="files">The files by number, each with what it is a copy of; null for what its name and text say.</param>
    /// <param name="person">Who says it.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<bool> SayAsync(IReadOnlyList<(long Id, CopyOf? Of)> files, long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        foreach (var (id, of) in files.OrderBy(f => f.Id))
        {
            var recognised = await connection
                .Sql(
                    "select recognised from enclosure where book_id = $1 and id = $2 and used_for = 'copy' and deleted_at is null "
                        + "for update",
                    book,
                    id
                )
                .FirstAsync(r => StoreJson.Read<Recognised>(r.GetString(0)), cancel);
            if (recognised is null)
            {
                return false;
            }

            await connection
                .Sql(
                    "update enclosure set by_hand = $3, numbers = $4 where book_id = $1 and id = $2",
                    book,
                    id,
                    new NpgsqlParameter { Value = of is null ? DBNull.Value : StoreJson.Write(of), NpgsqlDbType = NpgsqlDbType.Jsonb },
                    NumbersOf(recognised, of)
                )
                .RunAsync(cancel);
        }

        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>
    /// Deletes files, so that they go with nothing any more; what went with them stays. Those that are deleted already count as none.
    /// </summary>
    /// <returns>How many were deleted.</returns>
    public Task<int> DeleteAsync(IReadOnlyCollection<long> ids, long person, DateTimeOffset now, CancellationToken cancel) =>
        source.ByAsync(
            person,
            connection =>
                connection
                    .Sql(
                        "update enclosure set deleted_at = $3 where book_id = $1 and id = any ($2) and deleted_at is null",
                        book,
                        ids.ToArray(),
                        now.ToUniversalTime()
                    )
                    .RunAsync(cancel),
            cancel
        );

    /// <summary>Where in names of files the number stands, as a person settled it, and the endings that the book allows.</summary>
    public async Task<(string Pattern, string[] Kinds)> SettingsAsync(CancellationToken cancel) =>
        (
            await source
                .Sql("select enclosure_pattern, enclosure_kinds from book where id = $1", book)
                .ListAsync(r => (r.GetString(0), r.GetFieldValue<string[]>(1)), cancel)
        )[0];

    /// <summary>Settles them.</summary>
    public Task SettleAsync(string pattern, IReadOnlyList<string> kinds, long person, CancellationToken cancel) =>
        source.ByAsync(
            person,
            connection =>
                connection
                    .Sql("update book set enclosure_pattern = $2, enclosure_kinds = $3 where id = $1", book, pattern, kinds.ToArray())
                    .RunAsync(cancel),
            cancel
        );

    private static string[] NumbersOf(Recognised recognised, CopyOf? said) =>
        said is not null ? [.. said.Numbers]
        : recognised.Number.Length > 0 ? [recognised.Number]
        : [.. recognised.Candidates];

    private static EnclosureFile Read(NpgsqlDataReader r) =>
        new(
            r.Int64("id"),
            r.String("name"),
            Convert.ToHexStringLower(r.Value<byte[]>("sha256")),
            r.Int64("size"),
            r.String("content_type"),
            EnumText.Parse<EnclosureUse>(r.String("used_for"))
        )
        {
            Customer = r.String("customer"),
            Recognised = StoreJson.Read<Recognised>(r.String("recognised")),
            ByHand = r.IsNull("by_hand") ? null : StoreJson.Read<CopyOf>(r.String("by_hand")),
        };
}
