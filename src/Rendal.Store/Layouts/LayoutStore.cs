using Npgsql;
using Rendal.Core.Layouts;
using Rendal.Core.Templates;
using Rendal.Store.Rounds;

namespace Rendal.Store.Layouts;

/// <summary>One version of a layout, which never changes.</summary>
/// <param name="Id">The layout.</param>
/// <param name="Version">The version, from 1.</param>
public readonly record struct LayoutRef(long Id, int Version);

/// <summary>A layout with its number and version.</summary>
public sealed record StoredLayout(LayoutRef Ref, Layout Layout, string MadeBy, DateTimeOffset MadeAt);

/// <summary>What a version is called, and who made it when, without what it says.</summary>
public sealed record LayoutHead(LayoutRef Ref, string Name, string MadeBy, DateTimeOffset MadeAt);

/// <summary>The layouts of one book.</summary>
public sealed class LayoutStore(NpgsqlDataSource source, long book)
{
    private readonly TemplateAssignmentTable uses = new(source, book, "layout");

    private const string Select = """
        select v.layout_id, v.version, v.layout, p.name made_by, v.made_at
        from layout_version v join person p on p.id = v.made_by
        """;

    private const string SelectHead = """
        select v.layout_id, v.version, v.layout ->> 'name' layout_name, p.name made_by, v.made_at
        from layout_version v join person p on p.id = v.made_by
        """;

    private const string Kept = "not (select removed from layout where book_id = v.book_id and id = v.layout_id)";

    private const string Latest =
        "v.version = (select max(version) from layout_version where book_id = v.book_id and layout_id = v.layout_id)";

    /// <summary>All layouts as they are now, by name, but those taken away.</summary>
    public Task<List<StoredLayout>> ListAsync(CancellationToken cancel) =>
        source
            .Sql($"{Select} where v.book_id = $1 and {Kept} and {Latest} order by v.layout ->> 'name', v.layout_id", book)
            .ListAsync(Read, cancel);

    /// <summary>What they are called, by name.</summary>
    public Task<List<LayoutHead>> HeadsAsync(CancellationToken cancel) =>
        source.Sql($"{SelectHead} where v.book_id = $1 and {Kept} and {Latest} order by 3, v.layout_id", book).ListAsync(ReadHead, cancel);

    /// <summary>A layout as it is now; null where there is none of this number, or it was taken away.</summary>
    public Task<StoredLayout?> FindAsync(long id, CancellationToken cancel) =>
        source.Sql($"{Select} where v.book_id = $1 and v.layout_id = $2 and {Kept} and {Latest}", book, id).FirstAsync(Read, cancel);

    /// <summary>A version; null where there is none of these numbers.</summary>
    public Task<StoredLayout?> FindAsync(LayoutRef version, CancellationToken cancel) =>
        source
            .Sql($"{Select} where v.book_id = $1 and v.layout_id = $2 and v.version = $3", book, version.Id, version.Version)
            .FirstAsync(Read, cancel);

    /// <summary>The versions of a layout, the newest first, at most fifty.</summary>
    public Task<List<LayoutHead>> VersionsAsync(long id, CancellationToken cancel) =>
        source
            .Sql($"{SelectHead} where v.book_id = $1 and v.layout_id = $2 order by v.version desc limit 50", book, id)
            .ListAsync(ReadHead, cancel);

    /// <summary>What the layouts are used for.</summary>
    public Task<List<TemplateAssignment>> UsesAsync(CancellationToken cancel) => uses.ListAsync(cancel);

    /// <summary>Uses a layout for a purpose in place of the one before; null for the one that is there before any was made.</summary>
    public Task UseAsync(string purpose, string language, long? id, long person, CancellationToken cancel) =>
        uses.PutAsync(purpose, language, id, person, cancel);

    /// <summary>Adds a layout, and gives its number.</summary>
    public async Task<long> AddAsync(Layout layout, long person, DateTimeOffset now, CancellationToken cancel) =>
        await source.ByAsync(
            person,
            connection =>
                connection
                    .Sql(
                        """
                        with made as (insert into layout (book_id) values ($1) returning id)
                        insert into layout_version (book_id, layout_id, version, layout, made_by, made_at) select $1, id, 1, $2, $3, $4
                            from made returning layout_id
                        """,
                        book,
                        Commands.Json(layout),
                        person,
                        now.ToUniversalTime()
                    )
                    .OneAsync<long>(cancel),
            cancel
        );

    /// <summary>
    /// Changes a layout: a new version, unless nothing differs. False where there is none of this number, or another person changed it
    /// since <paramref name="from"/>.
    /// </summary>
    /// <param name="from">The version that the change was made from.</param>
    /// <param name="layout">What it is from now on.</param>
    public async Task<bool> UpdateAsync(LayoutRef from, Layout layout, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);

        // The lock keeps two people from making the same version.
        if (
            (
                await connection
                    .Sql("select id from layout where book_id = $1 and id = $2 for update", book, from.Id)
                    .ListAsync(r => r.GetInt64(0), cancel)
            ).Count == 0
            || await connection
                .Sql("select max(version) from layout_version where book_id = $1 and layout_id = $2", book, from.Id)
                .OneAsync<int>(cancel) != from.Version
        )
        {
            return false;
        }

        await connection
            .Sql(
                """
                insert into layout_version (book_id, layout_id, version, layout, made_by, made_at)
                    select book_id, layout_id, version + 1, $4, $5, $6
                from layout_version where book_id = $1 and layout_id = $2 and version = $3 and layout <> $4
                """,
                book,
                from.Id,
                from.Version,
                Commands.Json(layout),
                person,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>Takes a layout away, so that it is offered no more. What was made up with it keeps its version.</summary>
    /// <returns>What it is still used for, as the end of a sentence, in which case it stays; null where it was taken away, or was not
    /// there.</returns>
    public async Task<string?> TakeAwayAsync(long id, long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);

        // Whoever would use it meanwhile waits for the lock of its row.
        await connection
            .Sql("select id from layout where book_id = $1 and id = $2 for update", book, id)
            .ListAsync(r => r.GetInt64(0), cancel);
        var used = await connection
            .Sql(
                """
                select 'for ' || case when purpose like 'reminder-%' then 'reminders of level ' || substr(purpose,
                    10) else replace(purpose, '-', ' ') || 's' end from layout_assignment where book_id = $1 and layout_id = $2
                union all select 'by ' || name from customer where book_id = $1 and own_layout = $2
                union all select 'by the round ' || name from round where book_id = $1 and picked_layout = $2 and released_at is null
                limit 1
                """,
                book,
                id
            )
            .ListAsync(r => r.GetString(0), cancel);
        if (used.Count > 0)
        {
            return used[0];
        }

        await connection.Sql("update layout set removed = true where book_id = $1 and id = $2", book, id).RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return null;
    }

    private static LayoutHead ReadHead(NpgsqlDataReader r) =>
        new(
            new LayoutRef(r.Int64("layout_id"), r.Int32("version")),
            r.String("layout_name"),
            r.String("made_by"),
            r.Value<DateTimeOffset>("made_at")
        );

    private static StoredLayout Read(NpgsqlDataReader r) =>
        new(
            new LayoutRef(r.Int64("layout_id"), r.Int32("version")),
            StoreJson.Read<Layout>(r.String("layout")),
            r.String("made_by"),
            r.Value<DateTimeOffset>("made_at")
        );
}
