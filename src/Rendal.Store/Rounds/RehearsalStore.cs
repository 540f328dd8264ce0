using Npgsql;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;

namespace Rendal.Store.Rounds;

/// <summary>A message of a rehearsal.</summary>
/// <param name="Parcel">The parcel of the rehearsal, by which the log has the message.</param>
/// <param name="Of">The parcel that it stands for.</param>
/// <param name="Name">The customer's name.</param>
/// <param name="Status">Where it stands.</param>
/// <param name="IsAsNow">Whether the parcel is still what was rehearsed.</param>
/// <param name="LookedAtBy">The names of those who said that they have looked at it, in order.</param>
public sealed record RehearsedParcel(long Parcel, long Of, string Name, string Status, bool IsAsNow, IReadOnlyList<string> LookedAtBy);

/// <summary>Chosen parcels of a round, sent to oneself first.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Address">Where the messages went.</param>
/// <param name="At">When it was begun.</param>
/// <param name="By">Who began it.</param>
/// <param name="Parcels">The messages, in the order of the list.</param>
public sealed record RehearsalRecord(long Id, string Address, DateTimeOffset At, string By, IReadOnlyList<RehearsedParcel> Parcels);

/// <summary>The rehearsals of the rounds of one book.</summary>
public sealed class RehearsalStore(NpgsqlDataSource source, long book)
{
    /// <summary>
    /// Sends parcels of a round to an address: copies of them are released by a round of their own, with what they are made from frozen as
    /// for a release. Null where the round is of another revision than the one that the person saw, or a parcel is not sealed as it was.
    /// </summary>
    /// <param name="round">The round.</param>
    /// <param name="revision">The revision that the person saw.</param>
    /// <param name="parcels">What the parcels are made from; each by the number of the parcel that it stands for.</param>
    /// <param name="hand">What was decided by hand.</param>
    /// <param name="rules">What the book has settled for its statements.</param>
    /// <param name="address">Where they go.</param>
    /// <param name="person">Who.</param>
    /// <param name="now">The moment.</param>
    /// <param name="cancel">Stops it; nothing is kept then.</param>
    /// <returns>The number of the rehearsal.</returns>
    public async Task<long?> BeginAsync(
        long round,
        long revision,
        IReadOnlyList<FrozenParcel> parcels,
        ByHand hand,
        StatementRules rules,
        string address,
        long person,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        var made = await connection
            .Sql(
                """
                insert into round (book_id, name, intake_id, choice, wording_id, sender_id, made_by, rules, picked_layout,
                    enclosing, repeat_of, by_hand, prepared_at, released_at, released_by, to_be_prepared, rehearses, rehearsed_to)
                select book_id, name, intake_id, choice, wording_id, sender_id, $4, $5, picked_layout, enclosing, repeat_of, $6, $7, $7,
                    $4, false, id, $8 from round where book_id = $1 and id = $2 and revision = $3
                returning id
                """,
                book,
                round,
                revision,
                person,
                Commands.Json(rules),
                Commands.Json(hand),
                now.ToUniversalTime(),
                address
            )
            .ListAsync(r => r.GetInt64(0), cancel);
        if (made.Count == 0)
        {
            return null;
        }

        foreach (var parcel in parcels)
        {
            if (
                await connection
                    .Sql(
                        """
                        insert into parcel (book_id, round_id, customer, name, position, state, recipients, sums, items, accounts,
                            reminder_level, layout_id, layout_version, on_paper, seal, altered, enclosures, message_count, subject, body,
                            card, letterhead, sent_as, change, next_attempt_at, channel)
                        select book_id, $3, customer, name, position, 'released', $4, sums, items, accounts, reminder_level, layout_id,
                            layout_version, false, seal, altered, enclosures, message_count, $5, $6, $7, $8, $9, $10, $11, 'mail'
                        from parcel where book_id = $1 and id = $2 and round_id = $12 and seal is not distinct from $13
                        """,
                        book,
                        parcel.Id,
                        made[0],
                        new[] { address },
                        parcel.Subject,
                        parcel.Body,
                        Commands.Json(parcel.Card),
                        Commands.Json(parcel.Letterhead),
                        Commands.Json(parcel.SentAs),
                        Commands.Json(parcel.Change!),
                        now.ToUniversalTime(),
                        round,
                        parcel.Seal?.ToBytes()
                    )
                    .RunAsync(cancel) == 0
            )
            {
                return null;
            }
        }

        await connection.Sql($"notify {RoundStore.ReleasedChannel}").RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return made[0];
    }

    /// <summary>The rehearsals of a round, the newest first.</summary>
    public async Task<List<RehearsalRecord>> OfAsync(long round, CancellationToken cancel)
    {
        var rows = await source
            .Sql(
                """
                select r.id, r.rehearsed_to, r.made_at, by.name by_name, p.id parcel, o.id of, p.name, p.status,
                    coalesce(o.seal = p.seal, false) is_as_now,
                    array(select w.name from rehearsal_look l join person w on w.id = l.person_id
                        where l.book_id = p.book_id and l.parcel_id = p.id order by l.looked_at) looked_at_by
                from round r join person by on by.id = r.made_by
                    join parcel p on p.book_id = r.book_id and p.round_id = r.id
                    left join parcel o on o.book_id = p.book_id and o.round_id = r.rehearses and o.customer = p.customer
                where r.book_id = $1 and r.rehearses = $2 order by r.id desc, p.position
                """,
                book,
                round
            )
            .ListAsync(
                r =>
                    (
                        Id: r.Int64("id"),
                        Address: r.String("rehearsed_to"),
                        At: r.Value<DateTimeOffset>("made_at"),
                        By: r.String("by_name"),
                        Parcel: new RehearsedParcel(
                            r.Int64("parcel"),
                            r.Nullable<long>("of") ?? 0,
                            r.String("name"),
                            r.String("status"),
                            r.Boolean("is_as_now"),
                            r.Value<string[]>("looked_at_by")
                        )
                    ),
                cancel
            );
        return
        [
            .. rows.GroupBy(r => r.Id)
                .Select(g => new RehearsalRecord(g.Key, g.First().Address, g.First().At, g.First().By, [.. g.Select(r => r.Parcel)])),
        ];
    }

    /// <summary>
    /// Notes that a person has looked at the messages of a rehearsal, at all or one of them. False where there is no such rehearsal of the
    /// round.
    /// </summary>
    /// <param name="round">The round that was rehearsed.</param>
    /// <param name="rehearsal">The rehearsal.</param>
    /// <param name="parcel">The message by its parcel; null for all.</param>
    /// <param name="person">Who.</param>
    /// <param name="now">The moment.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<bool> LookedAtAsync(
        long round,
        long rehearsal,
        long? parcel,
        long person,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        (
            await source
                .Sql(
                    """
                    with of as (
                        select p.book_id, p.id from parcel p join round r on r.book_id = p.book_id and r.id = p.round_id
                        where p.book_id = $1 and r.id = $3 and r.rehearses = $2 and ($4::bigint is null or p.id = $4)
                    ), noted as (
                        insert into rehearsal_look (book_id, parcel_id, person_id, looked_at) select book_id, id, $5, $6 from of
                        on conflict do nothing)
                    select count(*) from of
                    """,
                    book,
                    round,
                    rehearsal,
                    new NpgsqlParameter<long?> { TypedValue = parcel, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Bigint },
                    person,
                    now.ToUniversalTime()
                )
                .OneAsync<long>(cancel)
        ) > 0;
}
