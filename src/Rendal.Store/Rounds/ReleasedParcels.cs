using Npgsql;
using Rendal.Core.Dispatch;

namespace Rendal.Store.Rounds;

/// <summary>Lets parcels of a round go within the transaction that releases it, one after the other: however many there are, none is kept in memory.</summary>
internal static class ReleasedParcels
{
    /// <summary>Writes what they are frozen with. False where one of them is no longer ready, or is not sealed as it was: then nothing may be committed.</summary>
    public static async Task<bool> PutAsync(NpgsqlConnection connection, long book, long round, IEnumerable<FrozenParcel> parcels, DateTimeOffset from, Way way, CancellationToken cancel)
    {
        await connection.Sql("create temporary table frozen (id bigint, subject text, body text, card jsonb, letterhead jsonb, sent_as jsonb, seal bytea, words text, numbers text[], accounts text[], items text[], levels int[]) on commit drop").RunAsync(cancel);
        var count = await CopyAsync(connection, parcels, cancel);
        var released = await connection.Sql(
            $$"""
            update parcel p set state = 'released', subject = f.subject, body = f.body, card = f.card, letterhead = f.letterhead, sent_as = f.sent_as, try_from = $3, way = case when p.recipients = '{}' then 'post' else $4 end
            from frozen f
            where p.book_id = $1 and p.round_id = $2 and p.id = f.id and p.seal is not distinct from f.seal and {{ParcelTable.IsReady}}
                and not exists (select from round_decision d where d.book_id = p.book_id and d.round_id = p.round_id and d.customer = p.customer and d.decision in ('held', 'removed'))
            """,
            book, round, from.ToUniversalTime(), way.ToString().ToLowerInvariant()).RunAsync(cancel);
        if (released != count)
        {
            return false;
        }

        await connection.Sql("insert into addressee (book_id, words) select $1, words from frozen f where not exists (select from addressee a where a.book_id = $1 and md5(a.words) = md5(f.words)) order by 2 on conflict (book_id, md5(words)) do nothing", book).RunAsync(cancel);
        await connection.Sql(
            """
            insert into parcel_search (book_id, parcel_id, addressee_id, numbers, accounts)
            select $1, f.id, w.id, f.numbers, f.accounts from frozen f join addressee w on w.book_id = $1 and md5(w.words) = md5(f.words)
            on conflict (book_id, parcel_id) do update set addressee_id = excluded.addressee_id, numbers = excluded.numbers, accounts = excluded.accounts
            """,
            book).RunAsync(cancel);
        await connection.Sql(
            """
            insert into item_reminded (book_id, parcel_id, item, level) select $1, f.id, i.item, i.level from frozen f cross join lateral unnest(f.items, f.levels) as i (item, level)
            on conflict (book_id, item, parcel_id) do update set level = excluded.level
            """,
            book).RunAsync(cancel);
        return true;
    }

    private static async Task<int> CopyAsync(NpgsqlConnection connection, IEnumerable<FrozenParcel> parcels, CancellationToken cancel)
    {
        var count = 0;
        await using var copy = await BinaryCopy.BeginAsync(connection, "copy frozen from stdin (format binary)", cancel);
        foreach (var parcel in parcels)
        {
            cancel.ThrowIfCancellationRequested();
            count++;
            copy.Row(12);
            copy.Write(parcel.Id);
            copy.Write(parcel.Subject);
            copy.Write(parcel.Body);
            copy.WriteJson(StoreJson.Write(parcel.Card));
            copy.WriteJson(StoreJson.Write(parcel.Letterhead));
            copy.WriteJson(StoreJson.Write(parcel.SentAs));
            copy.WriteOrNull(parcel.Seal?.ToBytes());
            copy.Write($"{parcel.Card.Key}\n{parcel.Card.Name}");
            copy.Write(parcel.Numbers);
            copy.Write([.. parcel.Accounts.Append(parcel.Card.Key).Distinct(StringComparer.Ordinal)]);
            copy.Write([.. parcel.Reminded.Select(r => r.Item)]);
            copy.Write([.. parcel.Reminded.Select(r => r.Level)]);
        }

        await copy.CompleteAsync(cancel);
        return count;
    }
}
