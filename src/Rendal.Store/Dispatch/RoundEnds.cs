using Npgsql;

namespace Rendal.Store.Dispatch;

/// <summary>A round of which nothing is on its way any more.</summary>
/// <param name="Book">The book.</param>
/// <param name="Id">The number of this end; a round that is released in parts ends more than once.</param>
/// <param name="Round">The round.</param>
/// <param name="Name">The round's name.</param>
/// <param name="EndedAt">When it was seen to have ended.</param>
/// <param name="Counts">How many of the parcels that were released stood where then, by state.</param>
public sealed record RoundEnd(long Book, long Id, long Round, string Name, DateTimeOffset EndedAt, IReadOnlyDictionary<string, int> Counts);

/// <summary>A parcel that did not go as it should.</summary>
/// <param name="Name">The customer's name.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Words">The server's words, or what keeps it.</param>
public sealed record WentAmiss(string Name, string State, string Words);

/// <summary>The ends of rounds over all books, and who is told of them.</summary>
public sealed class RoundEnds(NpgsqlDataSource source)
{
    private const string Columns = "e.book_id, e.id, e.round_id, r.name, e.ended_at, e.counts";

    /// <summary>Notes the rounds that have ended since; each end is noted once, however many workers look.</summary>
    /// <returns>The ends, with the address that the person who released the round is told at; empty for none.</returns>
    public Task<List<(RoundEnd End, long Sender, string Address)>> NoteAsync(DateTimeOffset now, CancellationToken cancel) =>
        source.Sql(
            $"""
            with ended as (
                update round r set ends_for = null from (select book_id, id, ends_for from round where ends_for is not null) o
                where r.book_id = o.book_id and r.id = o.id and r.ends_for is not null
                    and not exists (select from parcel p where p.book_id = r.book_id and p.round_id = r.id and p.state in ('released', 'sending', 'to-be-retried'))
                returning r.book_id, r.id, r.name, r.sender_id, o.ends_for),
            e as (
                insert into round_end (book_id, round_id, person_id, ended_at, counts)
                select book_id, id, ends_for, $1, (select coalesce(jsonb_object_agg(state, n), jsonb_build_object()) from (select state, count(*) as n from parcel p where p.book_id = ended.book_id and p.round_id = ended.id and p.card is not null group by state) c)
                from ended returning *)
            select {Columns}, r.sender_id, p.address from e join ended r on r.book_id = e.book_id and r.id = e.round_id join person p on p.id = e.person_id
            """,
            now.ToUniversalTime()).ListAsync(r => (Read(r), r.GetInt64(6), r.GetString(7)), cancel);

    /// <summary>Writes down what became of the message about an end.</summary>
    public Task ToldAsync(RoundEnd end, string words, CancellationToken cancel) =>
        source.Sql("update round_end set told = $3 where book_id = $1 and id = $2", end.Book, end.Id, words).RunAsync(cancel);

    /// <summary>What of a round did not go as it should, in the order of its parcels.</summary>
    public Task<List<WentAmiss>> AmissAsync(RoundEnd end, int most, CancellationToken cancel) =>
        source.Sql(
            """
            select p.name, p.state, coalesce(nullif(p.problem, ''), (select t.answer from dispatch_try t where t.book_id = p.book_id and t.parcel_id = p.id order by t.id desc limit 1), '')
            from parcel p where p.book_id = $1 and p.round_id = $2 and p.card is not null and p.state in ('refused', 'returned', 'unsure', 'held') order by p.position limit $3
            """,
            end.Book, end.Round, most).ListAsync(r => new WentAmiss(r.GetString(0), r.GetString(1), r.GetString(2)), cancel);

    /// <summary>The ends that a person has not seen yet in a book, the newest first.</summary>
    public Task<List<RoundEnd>> UnseenAsync(long book, long person, CancellationToken cancel) =>
        source.Sql($"select {Columns} from round_end e join round r on r.book_id = e.book_id and r.id = e.round_id where e.book_id = $1 and e.person_id = $2 and e.seen_at is null order by e.id desc limit 20", book, person).ListAsync(Read, cancel);

    /// <summary>Notes that a person has seen the ends of a round.</summary>
    public Task SeenAsync(long book, long round, long person, DateTimeOffset now, CancellationToken cancel) =>
        source.Sql("update round_end set seen_at = $4 where book_id = $1 and round_id = $2 and person_id = $3 and seen_at is null", book, round, person, now.ToUniversalTime()).RunAsync(cancel);

    private static RoundEnd Read(NpgsqlDataReader r) =>
        new(r.GetInt64(0), r.GetInt64(1), r.GetInt64(2), r.GetString(3), r.GetFieldValue<DateTimeOffset>(4), StoreJson.Read<Dictionary<string, int>>(r.GetString(5)));
}
