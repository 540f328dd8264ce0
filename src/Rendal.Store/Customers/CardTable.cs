using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Customers;
using Rendal.Core.Statements;

namespace Rendal.Store.Customers;

/// <summary>How cards stand in their table, and how many of them are written at once.</summary>
internal static class CardTable
{
    public const string Columns = "key, name, contacts, salutation, delivery, postal_lines, country, language, terms_days, terms_from_month_end, head_office, groups, form, unit, minimum_balance, on_hold, own_wording, notes, extra, from_ledger, own_layout";

    /// <summary>Reads all cards of a book, in a transaction that is going to add some: until it ends no other transaction does.</summary>
    public static async Task<Dictionary<string, Customer>> ReadToAddAsync(NpgsqlConnection connection, long book, CancellationToken cancel)
    {
        await connection.Sql("select pg_advisory_xact_lock(hashtext('customer'), $1::int)", book).RunAsync(cancel);
        return (await connection.Sql($"select {Columns} from customer where book_id = $1 for update", book).ListAsync(Read, cancel)).ToDictionary(c => c.Key, StringComparer.Ordinal);
    }

    /// <summary>Writes cards, those in <paramref name="known"/> over what they were and the others as new ones.</summary>
    /// <param name="connection">In the transaction in which <paramref name="known"/> was read by <see cref="ReadToAddAsync"/>.</param>
    /// <param name="book">The book.</param>
    /// <param name="cards">The cards.</param>
    /// <param name="known">All cards of the book by key.</param>
    public static async Task WriteAsync(NpgsqlConnection connection, long book, IReadOnlyCollection<Customer> cards, Dictionary<string, Customer> known, CancellationToken cancel)
    {
        await CopyAsync(connection, "customer", book, cards.Where(c => !known.ContainsKey(c.Key)), cancel);
        await WriteAsync(connection, book, cards.Where(c => known.ContainsKey(c.Key)), cancel);
    }

    /// <summary>Writes cards over those that are there, by one binary COPY and one statement.</summary>
    public static async Task WriteAsync(NpgsqlConnection connection, long book, IEnumerable<Customer> cards, CancellationToken cancel)
    {
        await connection.Sql("create temp table card_in (like customer including defaults) on commit drop").RunAsync(cancel);
        await CopyAsync(connection, "card_in", book, cards, cancel);
        var set = string.Join(", ", Columns.Split(", ").Skip(1).Append("search").Append("reachable").Select(c => $"{c} = excluded.{c}"));
        await connection.Sql($"insert into customer (book_id, {Columns}, search, reachable) select book_id, {Columns}, search, reachable from card_in on conflict (book_id, key) do update set {set}").RunAsync(cancel);
        await connection.Sql("drop table card_in").RunAsync(cancel);
    }

    private static async Task CopyAsync(NpgsqlConnection connection, string table, long book, IEnumerable<Customer> cards, CancellationToken cancel)
    {
        await using var copy = await connection.BeginBinaryImportAsync($"copy {table} (book_id, {Columns}, search, reachable) from stdin (format binary)", cancel);
        foreach (var card in cards)
        {
            await copy.StartRowAsync(cancel);
            await copy.WriteAsync(book, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(card.Key, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(card.Name, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(StoreJson.Write(card.Contacts), NpgsqlDbType.Jsonb, cancel);
            await copy.WriteAsync(card.Salutation, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(EnumText.Of(card.Delivery), NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(card.PostalLines.ToArray(), NpgsqlDbType.Array | NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(card.Country, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(card.Language, NpgsqlDbType.Text, cancel);
            await WriteAsync(copy, card.Terms?.Days, NpgsqlDbType.Integer, cancel);
            await copy.WriteAsync(card.Terms?.FromMonthEnd ?? false, NpgsqlDbType.Boolean, cancel);
            await copy.WriteAsync(card.HeadOffice, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(EnumText.Of(card.Groups), NpgsqlDbType.Text, cancel);
            if (card.Form is { } form)
            {
                await copy.WriteAsync(EnumText.Of(form), NpgsqlDbType.Text, cancel);
            }
            else
            {
                await copy.WriteNullAsync(cancel);
            }

            await copy.WriteAsync(card.Unit, NpgsqlDbType.Text, cancel);
            await WriteAsync(copy, card.MinimumBalance, NpgsqlDbType.Numeric, cancel);
            await copy.WriteAsync(card.OnHold, NpgsqlDbType.Boolean, cancel);
            await WriteAsync(copy, card.OwnWording, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(card.Notes, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(StoreJson.Write(card.Extra), NpgsqlDbType.Jsonb, cancel);
            await copy.WriteAsync(card.FromLedger, NpgsqlDbType.Boolean, cancel);
            await WriteAsync(copy, card.OwnLayout, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(SearchText(card), NpgsqlDbType.Text, cancel);
            await WriteAsync(copy, Reachable(card), NpgsqlDbType.Boolean, cancel);
        }

        await copy.CompleteAsync(cancel);
    }

    /// <summary>Whether rounds of any kind reach the customer; null where it depends on the kind.</summary>
    private static bool? Reachable(Customer card)
    {
        var kinds = Enum.GetValues<RoundKind>();
        return kinds.All(card.IsReachedBy) ? true : kinds.Any(card.IsReachedBy) ? null : false;
    }

    public static Customer Read(NpgsqlDataReader r) => new()
    {
        Key = r.GetString(0),
        Name = r.GetString(1),
        Contacts = StoreJson.Read<Contact[]>(r.GetString(2)),
        Salutation = r.GetString(3),
        Delivery = EnumText.Parse<Delivery>(r.GetString(4)),
        PostalLines = r.GetFieldValue<string[]>(5),
        Country = r.GetString(6),
        Language = r.GetString(7),
        Terms = r.Nullable<int>(8) is { } days ? new PaymentTerms(days, r.GetBoolean(9)) : null,
        HeadOffice = r.GetString(10),
        Groups = EnumText.Parse<GroupStatements>(r.GetString(11)),
        Form = r.Text(12) is { } form ? EnumText.Parse<StatementForm>(form) : null,
        Unit = r.GetString(13),
        MinimumBalance = r.Nullable<decimal>(14),
        OnHold = r.GetBoolean(15),
        OwnWording = r.Nullable<long>(16),
        Notes = r.GetString(17),
        Extra = StoreJson.Read<Dictionary<string, string>>(r.GetString(18)),
        FromLedger = r.GetBoolean(19),
        OwnLayout = r.Nullable<long>(20),
    };

    /// <summary>Code, name, and the names and addresses of all contacts.</summary>
    private static string SearchText(Customer card) =>
        string.Join('\n', card.Contacts.SelectMany(c => new[] { c.Name, c.Address }).Prepend(card.Name).Prepend(card.Key).Where(t => t.Length > 0)).ToLowerInvariant();

    private static Task WriteAsync<T>(NpgsqlBinaryImporter copy, T? value, NpgsqlDbType type, CancellationToken cancel)
        where T : struct => value is { } known ? copy.WriteAsync(known, type, cancel) : copy.WriteNullAsync(cancel);
}
