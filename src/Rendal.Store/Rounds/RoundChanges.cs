using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Enclosures;
using Rendal.Core.Rounds;

namespace Rendal.Store.Rounds;

/// <summary>What people changed in the rounds of one book, and the revisions that they made by it.</summary>
public sealed class RoundChanges(NpgsqlDataSource source, long book)
{
    private const string Select =
        "select c.revision, p.name, c.changed_at, c.about, c.subject from round_change c join person p on p.id = c.person_id "
        + "where c.book_id = $1 and c.round_id = $2";

    /// <summary>What was changed in a round after a revision, in order.</summary>
    public Task<List<RoundChange>> SinceAsync(long round, long revision, CancellationToken cancel) =>
        source.Sql($"{Select} and c.revision > $3 order by c.revision", book, round, revision).ListAsync(Read, cancel);

    /// <summary>
    /// Changes the settings of a round of which nothing was released, on top of what others changed since they were seen. Of two
    /// changes by one person the later stands.
    /// </summary>
    /// <param name="round">The round.</param>
    /// <param name="seen">The revision that the person saw.</param>
    /// <param name="wanted">The settings that the person wants instead of those that they saw.</param>
    /// <param name="person">Who.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<RoundUpdate> ChangeSettingsAsync(long round, long seen, RoundSettings wanted, long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var now = await connection
            .Sql(
                "select name, choice, wording_id, sender_id, picked_layout, enclosing from round where book_id = $1 and id = $2 and "
                    + "released_at is null for update",
                book,
                round
            )
            .FirstAsync(
                r => new RoundSettings(
                    r.String("name"),
                    StoreJson.Read<Choice>(r.String("choice")),
                    r.Nullable<long>("wording_id"),
                    r.Int64("sender_id"),
                    r.Nullable<long>("picked_layout")
                )
                {
                    Enclosing = StoreJson.Read<Enclosing>(r.String("enclosing")),
                },
                cancel
            );
        if (now is null)
        {
            return RoundUpdate.TooLate;
        }

        var since = await connection
            .Sql(
                "select c.revision, p.name, c.changed_at, c.about, c.subject, c.settings, c.person_id from round_change c "
                    + "join person p on p.id = c.person_id where c.book_id = $1 and c.round_id = $2 and c.revision > $3 and "
                    + "c.settings is not null order by c.revision",
                book,
                round,
                seen
            )
            .ListAsync(
                r => (Change: Read(r), Before: StoreJson.Read<RoundSettings>(r.String("settings")), IsOwn: r.Int64("person_id") == person),
                cancel
            );
        var merged = SettingsMerge.Of(since.Count > 0 ? since[0].Before : now, now, wanted);
        var after = since.Skip(1).Select(s => s.Before).Append(now);
        if (
            since
                .Zip(after)
                .LastOrDefault(s => !s.First.IsOwn && SettingsMerge.Differing(s.First.Before, s.Second).Intersect(merged.Contested).Any())
                .First.Change is
            { } other
        )
        {
            return RoundUpdate.Contested(other, merged.Contested);
        }

        if (SettingsMerge.Differing(now, merged.Settings).Count > 0)
        {
            await RaiseAsync(connection, book, round, person, "settings", [""], now, cancel);
            var (name, choice, wording, sender, layout) = merged.Settings;
            await connection
                .Sql(
                    "update round set name = $3, choice = $4, wording_id = $5, sender_id = $6, picked_layout = $7, "
                        + "enclosing = $8, to_be_prepared = true where book_id = $1 and id = $2",
                    book,
                    round,
                    name,
                    Commands.Json(choice),
                    Commands.Whole(wording),
                    sender,
                    Commands.Whole(layout),
                    Commands.Json(merged.Settings.Enclosing)
                )
                .RunAsync(cancel);
            await transaction.CommitAsync(cancel);
        }

        return RoundUpdate.Done;
    }

    /// <summary>
    /// Whether a round can be changed. Takes its row, as a release does first: that either sees what is written then, or has begun, and
    /// then this comes too late.
    /// </summary>
    internal static async Task<bool> IsOpenAsync(NpgsqlConnection connection, long book, long round, CancellationToken cancel) =>
        (
            await connection
                .Sql("select id from round where book_id = $1 and id = $2 and released_at is null for update", book, round)
                .ListAsync(r => r.GetInt64(0), cancel)
        ).Count > 0;

    /// <summary>Notes that the parcels of customers are to be made up anew, within the transaction that has the round's row.</summary>
    internal static Task AwaitsAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        IReadOnlyCollection<string> customers,
        CancellationToken cancel
    ) =>
        connection
            .Sql(
                "update round set awaiting = array(select distinct unnest(awaiting || $3::text[])) where book_id = $1 and id = $2",
                book,
                round,
                customers.ToArray()
            )
            .RunAsync(cancel);

    /// <summary>
    /// The last change after a revision that somebody else made and that is about one of the same; null where there is none.
    /// </summary>
    internal static Task<RoundChange?> OthersAboutAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        long seen,
        long person,
        string about,
        string[] subjects,
        CancellationToken cancel
    ) =>
        connection
            .Sql(
                $"{Select} and c.revision > $3 and c.person_id <> $6 and c.about = $4 and c.subject = any ($5) "
                    + "order by c.revision desc limit 1",
                book,
                round,
                seen,
                about,
                subjects,
                person
            )
            .FirstAsync(Read, cancel);

    /// <summary>
    /// Raises the revision of a round, within the transaction that changes it and has its row: by one for each of what was changed.
    /// </summary>
    internal static Task RaiseAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        long person,
        string about,
        string[] subjects,
        RoundSettings? before,
        CancellationToken cancel
    ) =>
        connection
            .Sql(
                """
                with raised as (
                    update round set revision = revision + cardinality($5::text[]) where book_id = $1 and id = $2 returning revision)
                insert into round_change (book_id, round_id, revision, person_id, about, subject, settings)
                    select $1, $2, r.revision - cardinality($5) + s.place, $3, $4, s.subject, $6
                    from raised r cross join unnest($5) with ordinality s (subject, place)
                """,
                book,
                round,
                person,
                about,
                subjects,
                new NpgsqlParameter { Value = before is null ? DBNull.Value : StoreJson.Write(before), NpgsqlDbType = NpgsqlDbType.Jsonb }
            )
            .RunAsync(cancel);

    private static RoundChange Read(NpgsqlDataReader r) =>
        new(r.Int64("revision"), r.String("name"), r.Value<DateTimeOffset>("changed_at"), r.String("about"), r.String("subject"));
}
