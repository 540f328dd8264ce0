using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Core.Enclosures;
using Rendal.Core.Parcels;
using Rendal.Core.Review;
using Rendal.Core.Sealing;
using Rendal.Store.Layouts;

namespace Rendal.Store.Rounds;

/// <summary>How parcels stand in their table.</summary>
internal static class ParcelTable
{
    /// <summary>Whether it was released, and its message could not be made.</summary>
    public const string CanBeRetried = $"p.state = 'held' and p.card is not null and p.problem not in ('', '{RoundStore.GoesElsewhere}')";

    /// <summary>Whether it was not released, or is not any more, and was not taken over into another round.</summary>
    public const string IsUnreleased = $"p.status in ('prepared', 'needs-you', 'held') and p.problem <> '{RoundStore.GoesElsewhere}'";

    /// <summary>Whether it was refused or came back, and was not taken over into another round.</summary>
    public const string IsUndelivered = "p.status in ('refused', 'returned') and p.goes_on_in is null";

    /// <summary>Whether it did not go, and another round can be made of it.</summary>
    public const string IsLeft = $"({IsUnreleased} or {IsUndelivered})";

    /// <summary>
    /// The same as <see cref="ParcelStatus"/>, for who counts them; the column <c>status</c> is reckoned in the same way.
    /// </summary>
    public const string IsReady = "p.state = 'prepared' and p.problem = ''";

    /// <summary>The columns that <see cref="Read"/> wants, of a parcel <c>p</c>.</summary>
    public const string Columns = $"""
        p.id, p.customer, p.name, p.state, p.recipients, p.problem, p.sums, p.items,
        p.accounts, p.reminder_level, p.layout_id, p.layout_version, p.on_paper,
        coalesce(case when p.state = 'returned' then (select m.reason from returned_mail m where m.book_id = p.book_id
            and m.parcel_id = p.id and (m.kind = 'failed' or exists (select from returned_decision d where d.book_id = m.book_id
            and d.returned_id = m.id and d.is_failure)) order by m.id desc limit 1) end,
            case when p.state <> 'prepared' then (select t.answer from delivery_attempt t where t.book_id = p.book_id
                and t.parcel_id = p.id
                order by t.id desc limit 1) end, '') answer,
        {CanBeRetried} can_be_retried,
        case when p.state not in ('prepared', 'returned') then (select t.recipients from delivery_attempt t where t.book_id = p.book_id
            and t.parcel_id = p.id order by t.id desc limit 1) end answers,
        p.seal, p.changed, p.altered, p.enclosures, p.wording_id, p.remarks,
        case when p.state = 'held' then (select d.reason from round_decision d where d.book_id = p.book_id and d.round_id = p.round_id
            and d.customer = p.customer and d.decision = 'held') end hold_note
        """;

    /// <summary>Between the positions of two that follow each other, so that there is room for one in between.</summary>
    public const int Spacing = 1_024;

    private const string Written =
        "customer, name, position, state, recipients, problem, sums, items, accounts, reminder_level, layout_id, "
        + "layout_version, on_paper, seal, seen_seal, changed, altered, enclosures, message_count, wording_id, passages, remarks";

    /// <summary>
    /// Puts parcels in place of those that a round has. One that is the same as it was is not written again. False where all are.
    /// </summary>
    public static async Task<bool> PutAsync(
        NpgsqlConnection connection,
        long book,
        long id,
        IReadOnlyList<ParcelRecord> parcels,
        CancellationToken cancel
    )
    {
        // By their names and not by the table beside it: of a round that is new the server expects a row or two, and would look through
        // that for each.
        var gone = await connection
            .Sql(
                "delete from parcel p where p.book_id = $1 and p.round_id = $2 and p.customer <> all ($3)",
                book,
                id,
                parcels.Select(p => p.Customer).ToArray()
            )
            .RunAsync(cancel);
        var written = await WriteAsync(connection, book, id, [.. parcels.Select((p, i) => (p, i * Spacing))], cancel);
        return gone + written > 0;
    }

    /// <summary>Writes parcels of a round at their positions. One that is the same as it was is not written again.</summary>
    /// <returns>How many were written.</returns>
    public static async Task<int> WriteAsync(
        NpgsqlConnection connection,
        long book,
        long id,
        IReadOnlyList<(ParcelRecord Parcel, int Position)> parcels,
        CancellationToken cancel
    )
    {
        await connection
            .Sql($"create temporary table prepared on commit drop as select {Written} from parcel with no data")
            .RunAsync(cancel);
        await CopyAsync(connection, $"copy prepared ({Written}) from stdin (format binary)", parcels, cancel);

        // In time for the release, for which somebody waits: of a round of customers who are all new it would be a fifth.
        await Addressees.AddAsync(connection, book, "prepared", @"f.customer || E'\n' || f.name", cancel);
        return await connection
            .Sql(
                $"""
                insert into parcel as p (book_id, round_id, {Written}) select $1, $2, {Written} from prepared
                on conflict (book_id, round_id, customer) do update set ({Written}) = row ({Excluded(Written)})
                where ({Of("p", Written)}) is distinct from ({Excluded(Written)})
                """,
                book,
                id
            )
            .RunAsync(cancel);

        static string Excluded(string columns) => Of("excluded", columns);

        static string Of(string table, string columns) => string.Join(", ", columns.Split(", ").Select(c => $"{table}.{c}"));
    }

    /// <summary>
    /// The names and customers of the first parcels between two positions, in their order, by the index that has them by status and
    /// position.
    /// </summary>
    public static Task<List<(int Position, (string Name, string Customer) Parcel)>> BetweenAsync(
        NpgsqlConnection connection,
        long book,
        long id,
        int from,
        int to,
        int most,
        CancellationToken cancel
    ) =>
        connection
            .Sql(
                """
                select p.position, p.name, p.customer from unnest($6::text[]) s cross join lateral (
                    select * from parcel p where p.book_id = $1 and p.round_id = $2 and p.status = s and p.position > $3
                        and p.position < $4 order by p.position limit $5) p
                order by p.position limit $5
                """,
                book,
                id,
                from,
                to,
                most,
                ParcelStatus.ListOrder.ToArray()
            )
            .ListAsync(r => (r.GetInt32(0), (r.GetString(1), r.GetString(2))), cancel);

    private static async Task CopyAsync(
        NpgsqlConnection connection,
        string statement,
        IReadOnlyList<(ParcelRecord Parcel, int Position)> parcels,
        CancellationToken cancel
    )
    {
        await using var copy = await BinaryCopy.BeginAsync(connection, statement, cancel);
        foreach (var (parcel, position) in parcels)
        {
            copy.Row(22);
            copy.Write(parcel.Customer);
            copy.Write(parcel.Name);
            copy.Write(position);
            copy.Write(parcel.State.Code());
            copy.Write(parcel.Recipients);
            copy.Write(parcel.Problem);
            copy.WriteJson(StoreJson.Write(parcel.Sums));
            copy.Write(parcel.Items);
            copy.WriteJson(StoreJson.Write(parcel.Accounts));
            copy.WriteOrNull((short?)parcel.ReminderLevel);
            copy.WriteOrNull(parcel.Layout?.Id);
            copy.WriteOrNull(parcel.Layout?.Version);
            copy.Write(parcel.OnPaper);
            copy.WriteOrNull(parcel.Seal?.ToBytes());
            copy.WriteOrNull(parcel.Changed.Count == 0 ? null : parcel.SeenSeal?.ToBytes());
            copy.Write([.. parcel.Changed.Select(EnumText.Of)]);
            copy.Write([.. parcel.Altered.Select(EnumText.Of)]);
            copy.WriteJson(parcel.Enclosures.Count == 0 ? "[]" : StoreJson.Write(parcel.Enclosures));
            copy.Write((short)parcel.Messages);
            copy.WriteOrNull(parcel.Wording);
            copy.Write(parcel.Passages);
            copy.WriteJson(parcel.Remarks.Count == 0 ? "[]" : StoreJson.Write(parcel.Remarks));
        }

        await copy.CompleteAsync(cancel);
    }

    /// <summary>The parcel in the row that the reader is at.</summary>
    public static ParcelRecord Read(NpgsqlDataReader r) =>
        new(
            r.Int64("id"),
            r.String("customer"),
            r.String("name"),
            StoreJson.Read<List<ParcelAccount>>(r.String("accounts")),
            ParcelStates.Parse(r.String("state")),
            r.Value<string[]>("recipients"),
            r.String("problem"),
            StoreJson.Read<List<ParcelSum>>(r.String("sums")),
            r.Int32("items"),
            r.IsNull("answers")
                ? r.String("answer")
                : Outcome.Told(r.String("answer"), StoreJson.Read<List<RecipientAnswer>>(r.String("answers")))
        )
        {
            ReminderLevel = r.Nullable<short>("reminder_level"),
            OnPaper = r.Boolean("on_paper"),
            CanBeRetried = r.Boolean("can_be_retried"),
            HoldNote = r.Text("hold_note") ?? "",
            Seal = SealIn(r, "seal"),
            Changed = [.. r.Value<string[]>("changed").Select(EnumText.Parse<SealPart>)],
            Enclosures = EnclosuresIn(r.String("enclosures")),
            Wording = r.Nullable<long>("wording_id"),
            Remarks = r.String("remarks") is var remarks and not "[]" ? StoreJson.Read<List<Remark>>(remarks) : [],
            Altered = [.. r.Value<string[]>("altered").Select(EnumText.Parse<ParcelChangePart>)],
            Layout = r.Nullable<long>("layout_id") is { } layout ? new LayoutRef(layout, r.Int32("layout_version")) : null,
        };

    /// <summary>The files in a column; most parcels have none.</summary>
    public static IReadOnlyList<ParcelEnclosure> EnclosuresIn(string json) =>
        json == "[]" ? [] : StoreJson.Read<List<ParcelEnclosure>>(json);

    /// <summary>A seal in a column; null where there is none.</summary>
    public static ParcelSeal? SealIn(NpgsqlDataReader r, string column) =>
        r.IsNull(column) ? null : ParcelSeal.Of(r.Value<byte[]>(column));
}
