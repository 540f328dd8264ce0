using System.Runtime.CompilerServices;
using System.Security.Cryptography;
using Npgsql;
using Rendal.Core.Dispatch;

namespace Rendal.Store.Dispatch;

/// <summary>What is looked for in the log.</summary>
/// <param name="Text">What occurs in customer, subject, address, Message-ID, round or the server's words, or is the number of an item on
/// the statement; empty for all.</param>
/// <param name="Outcome">How the try ended, or <c>returned</c> for what came back later; empty for all.</param>
/// <param name="From">The first day of the book; null for no limit.</param>
/// <param name="To">The last day of the book; null for no limit.</param>
/// <param name="Round">The round; null for all.</param>
public sealed record LogSearch(string Text = "", string Outcome = "", DateOnly? From = null, DateOnly? To = null, long? Round = null);

/// <summary>The record of what went out of one book.</summary>
public sealed class DispatchLog(NpgsqlDataSource source, long book)
{
    private const string Columns = """
        select t.id, t.parcel_id, coalesce(r.rehearses, r.id) round_id, r.name round_name, p.customer, p.name, t.started_at,
            t.ended_at, t.outcome, t.answer,
            coalesce(m.message_id, '') message_id, coalesce(m.subject, a.name) subject, coalesce(m.sender_address, '') sender_address,
            coalesce(m.recipients, array[array_to_string(a.lines || nullif(a.country, ''), ', ')]) recipients, t.recipients answers,
            encode(coalesce(m.sha256, a.sha256), 'hex') sha256, octet_length(coalesce(m.bytes, a.bytes)) size,
            p.state = 'returned' and t.outcome in ('accepted', 'unanswered') came_back, r.repeat_of is not null is_repeat, t.gave_up,
            r.rehearses is not null is_rehearsal, t.message_index
        """;

    private const string Attempts = "from delivery_attempt t join parcel p on p.book_id = t.book_id and p.id = t.parcel_id";

    // Each by its key: behind a large release, before its rows are in the statistics, the server would go through all attempts, newest
    // first.
    private const string FoundAttempts = """
        from (
            select * from delivery_attempt where book_id = $1
                and (parcel_id = any ($8) or id = any (array(select id from delivery_attempt where book_id = $1 and outcome <> 'accepted'
                    and answer ilike $3))) offset 0) t
        cross join lateral (select p.* from parcel p where p.book_id = t.book_id and p.id = t.parcel_id offset 0) p
        """;

    private const string Conditions = """
        left join message m on m.book_id = t.book_id and m.parcel_id = t.parcel_id and m.message_index = t.message_index
            and t.outcome is distinct from 'printed'
        left join letter a on a.book_id = t.book_id and a.parcel_id = t.parcel_id and (t.outcome = 'printed' or p.channel = 'post')
        join round r on r.book_id = p.book_id and r.id = p.round_id join book b on b.id = t.book_id
        where t.book_id = $1 and (m.parcel_id is not null or a.parcel_id is not null)
            and ($4 = '' or t.outcome = $4 or ($4 = 'returned' and p.state = 'returned' and t.outcome in ('accepted', 'unanswered')))
            and ($5::date is null or t.started_at >= $5::timestamp at time zone b.time_zone)
                and ($6::date is null or t.started_at < ($6 + 1)::timestamp at time zone b.time_zone)
            and ($7::bigint is null or p.round_id = $7 or r.rehearses = $7)
        """;

    private const string NewestFirst = "order by t.started_at desc, t.id desc";

    // By what of them a text is in, each by an index of its own.
    private const string Parcels = $"""
        with numbered as materialized (select book_id, parcel_id from parcel_search where numbers @> array[$2])
        select s.parcel_id from addressee w join parcel_search s on s.book_id = w.book_id and s.addressee_id = w.id where w.book_id = $1
            and w.words ilike $3
        union all select parcel_id from numbered where book_id = $1
        union all select m.parcel_id from message m where m.book_id = $1 and {InMessage}
        union all select a.parcel_id from letter a where a.book_id = $1 and {InLetter}
        union all select p.id from round r join parcel p on p.book_id = r.book_id and p.round_id = r.id where r.book_id = $1
            and r.name ilike $3
        """;

    // The same of one try.
    private const string IsFound = $"""
        (t.outcome <> 'accepted' and t.answer ilike $3 or r.name ilike $3 or {InMessage} or {InLetter}
            or exists (select from parcel_search s join addressee w on w.book_id = s.book_id and w.id = s.addressee_id
                where s.book_id = t.book_id and s.parcel_id = t.parcel_id and (w.words ilike $3 or s.numbers @> array[$2])))
        """;

    private const string InMessage = "m.subject || E'\\n' || m.message_id || E'\\n' || recipients_text(m.recipients) ilike $3";
    private const string InLetter = "a.name || E'\\n' || recipients_text(a.lines) ilike $3";

    /// <summary>
    /// So many parcels that a text is in are looked up one by one; where it is in more, attempts are gone through from the newest on.
    /// </summary>
    public int MostFound { get; init; } = 20_000;

    /// <summary>The attempts that are looked for, the newest first, and not more than so many.</summary>
    public async Task<List<DispatchEntry>> SearchAsync(LogSearch search, int most, CancellationToken cancel)
    {
        var (query, found) = await QueryAsync(search, cancel);
        return await source.Sql($"{query} limit $9", [.. Values(search), found, most]).ListAsync(Read, cancel);
    }

    /// <summary>All attempts that are looked for, the newest first, each read as it is asked for: for a file of any length.</summary>
    public async IAsyncEnumerable<DispatchEntry> AllAsync(LogSearch search, [EnumeratorCancellation] CancellationToken cancel)
    {
        var (query, found) = await QueryAsync(search, cancel);
        await using var command = source.Sql(query, [.. Values(search), found]);
        await using var reader = await command.ExecuteReaderAsync(cancel);
        while (await reader.ReadAsync(cancel))
        {
            yield return Read(reader);
        }
    }

    /// <summary>The exact message of a parcel; null where none was made.</summary>
    /// <param name="parcel">The parcel.</param>
    /// <param name="message">Which of its messages, from 0.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="InvalidDataException">The stored bytes do not have the hash that was written with them.</exception>
    public async Task<byte[]?> MessageAsync(long parcel, int message, CancellationToken cancel)
    {
        var found = await source
            .Sql("select bytes, sha256 from message where book_id = $1 and parcel_id = $2 and message_index = $3", book, parcel, message)
            .ListAsync(r => Checked(r, "message", parcel), cancel);
        return found.Count == 0 ? null : found[0];
    }

    /// <summary>The document that went to the customer of a parcel on paper; null where none did.</summary>
    /// <exception cref="InvalidDataException">The stored bytes do not have the hash that was written with them.</exception>
    public async Task<(string Name, byte[] Pdf)?> LetterAsync(long parcel, CancellationToken cancel)
    {
        var found = await source
            .Sql("select bytes, sha256, name from letter where book_id = $1 and parcel_id = $2", book, parcel)
            .ListAsync(r => (r.String("name"), Checked(r, "letter", parcel)), cancel);
        return found.Count == 0 ? null : found[0];
    }

    /// <summary>The stored copy in the columns <c>bytes</c> and <c>sha256</c>.</summary>
    internal static byte[] Checked(NpgsqlDataReader r, string what, long parcel)
    {
        var bytes = r.Value<byte[]>("bytes");
        return SHA256.HashData(bytes).AsSpan().SequenceEqual(r.Value<byte[]>("sha256"))
            ? bytes
            : throw new InvalidDataException($"The copy of the {what} of parcel {parcel} is not what was sent: its hash differs.");
    }

    /// <summary>What people added to the record of a parcel, the oldest first.</summary>
    public Task<List<DispatchNote>> NotesAsync(long parcel, CancellationToken cancel) =>
        source
            .Sql(
                "select n.written_at, p.name, n.text from dispatch_note n join person p on p.id = n.person_id where n.book_id "
                    + "= $1 and n.parcel_id = $2 order by n.id",
                book,
                parcel
            )
            .ListAsync(r => new DispatchNote(r.GetFieldValue<DateTimeOffset>(0), r.GetString(1), r.GetString(2)), cancel);

    /// <summary>Adds to the record of a parcel. False where nothing of this parcel went out.</summary>
    public async Task<bool> AddNoteAsync(long parcel, string text, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        return await NoteAsync(connection, book, parcel, text, person, now, cancel) == 1;
    }

    /// <summary>Adds a note to a parcel that went out; 0 where nothing of it is on record.</summary>
    internal static Task<int> NoteAsync(
        NpgsqlConnection connection,
        long book,
        long parcel,
        string text,
        long person,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        connection
            .Sql(
                "insert into dispatch_note (book_id, parcel_id, person_id, written_at, text) select $1, $2, $3, $4, $5 where "
                    + "exists (select from message where book_id = $1 and parcel_id = $2) or exists (select from letter where "
                    + "book_id = $1 and parcel_id = $2)",
                book,
                parcel,
                person,
                now.ToUniversalTime(),
                text
            )
            .RunAsync(cancel);

    /// <summary>The statement that finds attempts, the newest first, and the parcels that the text is in.</summary>
    private async Task<(string Sql, long[] Parcels)> QueryAsync(LogSearch search, CancellationToken cancel)
    {
        if (search.Text.Length == 0)
        {
            return ($"{Columns} {Attempts} {Conditions} {NewestFirst}", []);
        }

        var found = await source
            .Sql($"{Parcels} limit {MostFound + 1}", book, search.Text, Pattern.Holding(search.Text))
            .ListAsync(r => r.GetInt64(0), cancel);
        return found.Count > MostFound
            ? ($"{Columns} {Attempts} {Conditions} and {IsFound} {NewestFirst}", [])
            : ($"{Columns} {FoundAttempts} {Conditions} {NewestFirst}", [.. found.Distinct()]);
    }

    private object?[] Values(LogSearch search) =>
        [
            book,
            search.Text,
            Pattern.Holding(search.Text),
            search.Outcome,
            Day(search.From),
            Day(search.To),
            new NpgsqlParameter { Value = (object?)search.Round ?? DBNull.Value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Bigint },
        ];

    private static NpgsqlParameter Day(DateOnly? day) =>
        new() { Value = (object?)day ?? DBNull.Value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Date };

    private static List<RecipientAnswer> Answers(NpgsqlDataReader r) => StoreJson.Read<List<RecipientAnswer>>(r.String("answers"));

    private static DispatchEntry Read(NpgsqlDataReader r) =>
        new(
            r.Int64("id"),
            r.Int64("parcel_id"),
            r.Int64("round_id"),
            r.String("round_name"),
            r.String("customer"),
            r.String("name"),
            r.Value<DateTimeOffset>("started_at"),
            r.Nullable<DateTimeOffset>("ended_at"),
            r.Text("outcome") is { } outcome ? EnumText.Parse<OutcomeKind>(outcome) : null,
            Outcome.Told(r.String("answer"), Answers(r)),
            r.String("message_id"),
            r.String("subject"),
            r.String("sender_address"),
            r.Value<string[]>("recipients"),
            Answers(r),
            r.String("sha256"),
            r.Int32("size")
        )
        {
            GaveUp = r.Boolean("gave_up"),
            IsRehearsal = r.Boolean("is_rehearsal"),
            IsRepeat = r.Boolean("is_repeat"),
            Message = r.Value<short>("message_index"),
            CameBack = r.Nullable<bool>("came_back") == true,
        };
}
