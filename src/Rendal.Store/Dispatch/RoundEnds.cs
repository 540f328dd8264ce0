using Npgsql;

namespace Rendal.Store.Dispatch;

/// <summary>A round of which nothing is on its way any more.</summary>
/// <param name="Book">The book.</param>
/// <param name="Id">The number of this end; a round that is released in parts ends more than once.</param>
/// <param name="Round">The round.</param>
/// <param name="Name">The round's name.</param>
/// <param name="EndedAt">When it was seen to have ended.</param>
/// <param name="Counts">How many of the parcels that were released stood where then, by state.</param>
public sealed record RoundEnd(
    long Book,
    long Id,
    long Round,
    string Name,
    DateTimeOffset EndedAt,
    IReadOnlyDictionary<string, int> Counts
);

/// <summary>An end that somebody is to be told of.</summary>
/// <param name="End">The end.</param>
/// <param name="Sender">The round's sender.</param>
/// <param name="Address">The address of the person who released the round.</param>
/// <param name="TimeZone">The IANA name of the book's zone.</param>
public sealed record EndToTell(RoundEnd End, long Sender, string Address, string TimeZone);

/// <summary>A parcel that did not go as it should.</summary>
/// <param name="Name">The customer's name.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Words">The server's words, or what keeps it.</param>
public sealed record WentAmiss(string Name, string State, string Words);

/// <summary>The ends of rounds over all books, and who is told of them.</summary>
public sealed class RoundEnds(NpgsqlDataSource source)
{
    // What stands for the words about the message until there are any.
    private const string ToBeTold = "to be sent";
    private const string BeingTold = "begun";

    private const string Columns = "e.book_id, e.id, e.round_id, r.name, e.ended_at, e.counts";

    /// <summary>Notes the rounds that have ended since; each end is noted once, however many workers look.</summary>
    public Task NoteAsync(DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                """
                with ended as (
                    update round r set ends_for = null from (select book_id, id, ends_for from round where ends_for is not null) o
                    where r.book_id = o.book_id and r.id = o.id and r.ends_for is not null
                        and not exists (select from parcel p where p.book_id = r.book_id and p.round_id = r.id
                            and p.state in ('released', 'sending', 'to-be-retried'))
                    returning r.book_id, r.id, o.ends_for)
                insert into round_end (book_id, round_id, person_id, ended_at, counts, told)
                select book_id, id, ends_for, $1, (select coalesce(jsonb_object_agg(state, n), jsonb_build_object())
                    from (select state, count(*) as n from parcel p where p.book_id = ended.book_id and p.round_id = ended.id
                    and p.card is not null group by state) c),
                    (select case when p.address <> '' then $2 else '' end from person p where p.id = ends_for)
                from ended
                """,
                now.ToUniversalTime(),
                ToBeTold
            )
            .RunAsync(cancel);

    /// <summary>
    /// Notes that a round was stopped before anything of it left, for who released it, unless they stopped it themselves.
    /// </summary>
    internal static Task StoppedAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        int parcels,
        long by,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        connection
            .Sql(
                """
                with noted as (
                    insert into round_end (book_id, round_id, person_id, ended_at, counts, told)
                    select r.book_id, r.id, r.ends_for, $5, jsonb_build_object('prepared', $3),
                        case when p.address <> '' then $6 else '' end
                    from round r join person p on p.id = r.ends_for where r.book_id = $1 and r.id = $2 and r.ends_for <> $4)
                update round set ends_for = null where book_id = $1 and id = $2
                """,
                book,
                round,
                parcels,
                by,
                now.ToUniversalTime(),
                ToBeTold
            )
            .RunAsync(cancel);

    /// <summary>
    /// One end that somebody is to be told of and whose sender may send now, for this caller alone, and counted against the sender's
    /// allowance. Null where there is none: what the sender is stopped or away for, or has used up its allowance for, waits.
    /// </summary>
    public Task<EndToTell?> ClaimToTellAsync(DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                with one as (
                    select e.book_id, e.id, p.address, s.id as sender_id, s.a_minute, s.a_day, b.time_zone,
                        ($1 at time zone b.time_zone)::date as day
                    from round_end e join round r on r.book_id = e.book_id and r.id = e.round_id join sender s on s.book_id = r.book_id
                        and s.id = r.sender_id
                    join person p on p.id = e.person_id join book b on b.id = e.book_id
                    {SenderTurn.Day("$1")}
                    where e.told = $2 and p.address <> '' and {SenderTurn.IsOpen("$1")}
                    order by e.id limit 1 for update of e skip locked),
                {SenderTurn.Of("one", "$1")},
                e as (
                    update round_end e set told = $3 from in_turn n
                    where e.book_id = n.book_id and e.id = n.id and (n.a_day is null or exists (select from counted)) returning e.*)
                select {Columns}, one.sender_id, one.address, one.time_zone from e join one on one.book_id = e.book_id and one.id = e.id
                    join round r on r.book_id = e.book_id and r.id = e.round_id
                """,
                now.ToUniversalTime(),
                ToBeTold,
                BeingTold
            )
            .FirstAsync(r => new EndToTell(Read(r), r.Int64("sender_id"), r.String("address"), r.String("time_zone")), cancel);

    /// <summary>Writes down what became of the message about an end.</summary>
    public Task ToldAsync(RoundEnd end, string words, CancellationToken cancel) =>
        source.Sql("update round_end set told = $3 where book_id = $1 and id = $2", end.Book, end.Id, words).RunAsync(cancel);

    /// <summary>What of a round did not go as it should, in the order of its parcels.</summary>
    public Task<List<WentAmiss>> AmissAsync(RoundEnd end, int most, CancellationToken cancel) =>
        source
            .Sql(
                """
                select p.name, p.state, coalesce(nullif(p.problem, ''), (select t.answer from delivery_attempt t
                    where t.book_id = p.book_id
                    and t.parcel_id = p.id order by t.id desc limit 1), '')
                from parcel p where p.book_id = $1 and p.round_id = $2 and p.card is not null
                    and p.state in ('refused', 'returned', 'unsure', 'held') order by p.position limit $3
                """,
                end.Book,
                end.Round,
                most
            )
            .ListAsync(r => new WentAmiss(r.GetString(0), r.GetString(1), r.GetString(2)), cancel);

    /// <summary>The ends that a person has not seen yet in a book, the newest first.</summary>
    public Task<List<RoundEnd>> UnseenAsync(long book, long person, CancellationToken cancel) =>
        source
            .Sql(
                $"select {Columns} from round_end e join round r on r.book_id = e.book_id and r.id = e.round_id where "
                    + "e.book_id = $1 and e.person_id = $2 and e.seen_at is null order by e.id desc limit 20",
                book,
                person
            )
            .ListAsync(Read, cancel);

    /// <summary>Notes that a person has seen the ends of a round.</summary>
    public Task SeenAsync(long book, long round, long person, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                "update round_end set seen_at = $4 where book_id = $1 and round_id = $2 and person_id = $3 and seen_at is null",
                book,
                round,
                person,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);

    private static RoundEnd Read(NpgsqlDataReader r) =>
        new(
            r.Int64("book_id"),
            r.Int64("id"),
            r.Int64("round_id"),
            r.String("name"),
            r.Value<DateTimeOffset>("ended_at"),
            StoreJson.Read<Dictionary<string, int>>(r.String("counts"))
        );
}
