using Npgsql;
using Rendal.Core.Wordings;

namespace Rendal.Store.Wordings;

/// <summary>What the wordings of one book were, version by version.</summary>
public sealed class WordingVersions(NpgsqlDataSource source, long book)
{
    /// <summary>The versions of a wording, the newest first; none where there is no wording of this number.</summary>
    /// <param name="wording">The wording.</param>
    /// <param name="most">How many at the most.</param>
    /// <param name="cancel">Stops it.</param>
    public Task<List<WordingVersion>> ListAsync(long wording, int most, CancellationToken cancel) =>
        ReadAsync(wording, null, most, cancel);

    /// <summary>A wording as it was from a change on; null where that is no change of it.</summary>
    public async Task<WordingVersion?> FindAsync(long wording, long change, CancellationToken cancel) =>
        (await ReadAsync(wording, change, 1, cancel)).FirstOrDefault();

    private Task<List<WordingVersion>> ReadAsync(long wording, long? change, int most, CancellationToken cancel) =>
        // A change keeps what was there before it, so that what came by it is what was there before the next one, or is there now.
        source
            .Sql(
                """
                with changes as materialized (
                    select id, person_id, changed_at from content_change where book_id = $1 and kind = 'wording'
                ), versions as (
                    select c.id, c.person_id, c.changed_at, k.content_before before,
                        coalesce(lead(k.content_before) over (order by c.id), (
                            select to_jsonb(w) from wording w where w.book_id = $1 and w.id = $2)) content
                    from changes c cross join lateral (
                        select content_before from changed_content where book_id = $1 and change_id = c.id and subject = $2::text limit 1
                    ) k
                )
                select v.id, coalesce(p.name, '') by, v.changed_at, v.before is null is_added,
                    v.content ->> 'name' name, coalesce(v.content ->> 'language', 'en') language, v.content ->> 'subject' subject,
                    v.content ->> 'body' body, coalesce(v.before ->> 'name', '') name_before,
                    coalesce(v.before ->> 'language', 'en') language_before, coalesce(v.before ->> 'subject', '') subject_before,
                    coalesce(v.before ->> 'body', '') body_before
                from versions v left join person p on p.id = v.person_id
                where v.content is not null and ($4::bigint is null or v.id = $4) order by v.id desc limit $3
                """,
                book,
                wording,
                most,
                Commands.Whole(change)
            )
            .ListAsync(
                r => new WordingVersion(
                    r.Int64("id"),
                    r.String("by"),
                    r.Value<DateTimeOffset>("changed_at"),
                    new Wording(r.String("name"), r.String("language"), r.String("subject"), r.String("body")),
                    r.Value<bool>("is_added")
                        ? null
                        : new Wording(
                            r.String("name_before"),
                            r.String("language_before"),
                            r.String("subject_before"),
                            r.String("body_before")
                        )
                ),
                cancel
            );
}
