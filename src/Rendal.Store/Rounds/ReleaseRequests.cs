using Npgsql;

namespace Rendal.Store.Rounds;

/// <summary>That somebody asked another person to release a round.</summary>
/// <param name="By">Who asked.</param>
/// <param name="At">When.</param>
/// <param name="Revision">The revision of the round then.</param>
/// <param name="Digest">What stood for exactly the parcels that were ready then, as they were sealed.</param>
public sealed record ReleaseRequested(string By, DateTimeOffset At, long Revision, string Digest);

/// <summary>Somebody who prepared a round.</summary>
/// <param name="Id">Their number.</param>
/// <param name="Name">Their name.</param>
public sealed record Preparer(long Id, string Name);

/// <summary>Who prepared the rounds of a book, and who asked a second person to release them.</summary>
public sealed class ReleaseRequests(NpgsqlDataSource source, long book)
{
    /// <summary>
    /// Who is answerable for what a round would send: who made it, who changed anything of what goes, and who changed since it was made
    /// what its parcels are made from, of cards only those of its customers. Who only kept a customer back is not among them, as long as
    /// that customer is held or taken out.
    /// </summary>
    public Task<List<Preparer>> PreparersAsync(long round, CancellationToken cancel) =>
        source
            .Sql(
                """
                select p.id, p.name from person p where p.id in (
                    select made_by from round where book_id = $1 and id = $2
                    union select c.person_id from round_change c where c.book_id = $1 and c.round_id = $2
                        and c.about not in ('release', 'stop')
                        and not (c.about in ('customer', 'parcel') and exists (select from round_decision d where d.book_id = c.book_id
                            and d.round_id = c.round_id and d.customer = c.subject and d.decision in ('held', 'removed')))
                    union select c.person_id from content_change c join round r on r.book_id = c.book_id and r.id = $2
                        where c.book_id = $1 and c.changed_at > r.made_at and c.person_id is not null
                        and (c.kind in ('wording', 'wording-use', 'layout', 'layout-use', 'sender', 'hold', 'settlement', 'enclosure')
                            or c.kind = 'card' and exists (select from changed_content k join parcel p on p.book_id = k.book_id
                                and p.round_id = r.id and p.customer = k.subject where k.book_id = c.book_id and k.change_id = c.id)
                            or c.kind = 'book' and exists (select from changed_content k join book b on b.id = k.book_id
                                where k.book_id = c.book_id and k.change_id = c.id and k.content_before - 'needs_second_person'
                                    is distinct from to_jsonb(b) - '{made_by,needs_second_person}'::text[])))
                order by lower(p.name)
                """,
                book,
                round
            )
            .ListAsync(r => new Preparer(r.Int64("id"), r.String("name")), cancel);

    /// <summary>The last request to release a round; null where nobody asked.</summary>
    public Task<ReleaseRequested?> FindAsync(long round, CancellationToken cancel) =>
        source
            .Sql(
                "select p.name, q.asked_at, q.revision, q.digest from release_request q join person p on p.id = q.person_id "
                    + "where q.book_id = $1 and q.round_id = $2",
                book,
                round
            )
            .FirstAsync(
                r => new ReleaseRequested(r.String("name"), r.Value<DateTimeOffset>("asked_at"), r.Int64("revision"), r.String("digest")),
                cancel
            );

    /// <summary>Notes that a person asks for the release of a round, in place of an earlier request.</summary>
    public Task AskAsync(long round, long person, DateTimeOffset now, long revision, string digest, CancellationToken cancel) =>
        source
            .Sql(
                """
                insert into release_request (book_id, round_id, person_id, asked_at, revision, digest) values ($1, $2, $3, $4, $5, $6)
                on conflict (book_id, round_id) do update set person_id = excluded.person_id, asked_at = excluded.asked_at,
                    revision = excluded.revision, digest = excluded.digest
                """,
                book,
                round,
                person,
                now.ToUniversalTime(),
                revision,
                digest
            )
            .RunAsync(cancel);
}
