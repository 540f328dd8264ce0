using Npgsql;
using Rendal.Core.Customers;
using Rendal.Core.Statements;

namespace Rendal.Store.Customers;

/// <summary>How cards stand in their table, and how many of them are written at once.</summary>
internal static class CardTable
{
    /// <summary>The columns of a card, in the order in which they are written.</summary>
    public const string Columns =
        "key, name, contacts, salutation, delivery, postal_lines, country, language, terms_days, terms_from_month_end, "
        + "head_office, groups, form, unit, minimum_balance, on_hold, own_wording, notes, extra, from_ledger, own_layout";

    private const short Values = 24;

    private static readonly RoundKind[] AllKinds = Enum.GetValues<RoundKind>();

    /// <summary>Reads all cards of a book, in a transaction that is going to add some: until it ends no other transaction does.</summary>
    public static async Task<Dictionary<string, Customer>> ReadToAddAsync(NpgsqlConnection connection, long book, CancellationToken cancel)
    {
        await connection.Sql("select pg_advisory_xact_lock(hashtext('customer'), $1::int)", book).RunAsync(cancel);
        return (
            await connection.Sql($"select {Columns} from customer where book_id = $1 for update", book).ListAsync(Read, cancel)
        ).ToDictionary(c => c.Key, StringComparer.Ordinal);
    }

    /// <summary>Writes cards, those in <paramref name="known"/> over what they were and the others as new ones.</summary>
    /// <param name="connection">In the transaction in which <paramref name="known"/> was read by <see cref="ReadToAddAsync"/>.</param>
    /// <param name="book">The book.</param>
    /// <param name="cards">The cards.</param>
    /// <param name="known">All cards of the book by key.</param>
    public static async Task WriteAsync(
        NpgsqlConnection connection,
        long book,
        IReadOnlyCollection<Customer> cards,
        Dictionary<string, Customer> known,
        CancellationToken cancel
    )
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
        await connection
            .Sql(
                $"insert into customer (book_id, {Columns}, search, reachable) select book_id, {Columns}, search, reachable "
                    + $"from card_in on conflict (book_id, key) do update set {set}"
            )
            .RunAsync(cancel);
        await connection.Sql("drop table card_in").RunAsync(cancel);
    }

    /// <summary>Writes rows in the order of their keys: in any other, the indexes take twice as long.</summary>
    private static async Task CopyAsync(
        NpgsqlConnection connection,
        string table,
        long book,
        IEnumerable<Customer> cards,
        CancellationToken cancel
    )
    {
        await using var copy = await BinaryCopy.BeginAsync(
            connection,
            $"copy {table} (book_id, {Columns}, search, reachable) from stdin (format binary)",
            cancel
        );
        foreach (var card in cards.OrderBy(c => c.Key, StringComparer.Ordinal))
        {
            copy.Row(Values);
            copy.Write(book);
            copy.Write(card.Key);
            copy.Write(card.Name);
            copy.WriteJson(StoreJson.Write(card.Contacts));
            copy.Write(card.Salutation);
            copy.Write(EnumText.Of(card.Delivery));
            copy.Write(card.PostalLines);
            copy.Write(card.Country);
            copy.Write(card.Language);
            copy.WriteOrNull(card.Terms?.Days);
            copy.Write(card.Terms?.FromMonthEnd ?? false);
            copy.Write(card.HeadOffice);
            copy.Write(EnumText.Of(card.Groups));
            copy.WriteOrNull(card.Form is { } form ? EnumText.Of(form) : null);
            copy.Write(card.Unit);
            copy.WriteOrNull(card.MinimumBalance);
            copy.Write(card.OnHold);
            copy.WriteOrNull(card.OwnWording);
            copy.Write(card.Notes);
            copy.WriteJson(StoreJson.Write(card.Extra));
            copy.Write(card.FromLedger);
            copy.WriteOrNull(card.OwnLayout);
            copy.Write(SearchText(card));
            copy.WriteOrNull(Reachable(card));
        }

        await copy.CompleteAsync(cancel);
    }

    /// <summary>Whether rounds of any kind reach the customer; null where it depends on the kind.</summary>
    private static bool? Reachable(Customer card)
    {
        var kinds = card.Contacts.All(c => c.Rounds.Count == 0) ? [default] : AllKinds;
        return kinds.All(card.IsReachedBy) ? true
            : kinds.Any(card.IsReachedBy) ? null
            : false;
    }

    /// <summary>The card in the row that the reader is at.</summary>
    public static Customer Read(NpgsqlDataReader r) =>
        new()
        {
            Key = r.String("key"),
            Name = r.String("name"),
            Contacts = StoreJson.Read<Contact[]>(r.String("contacts")),
            Salutation = r.String("salutation"),
            Delivery = EnumText.Parse<Delivery>(r.String("delivery")),
            PostalLines = r.Value<string[]>("postal_lines"),
            Country = r.String("country"),
            Language = r.String("language"),
            Terms = r.Nullable<int>("terms_days") is { } days ? new PaymentTerms(days, r.Boolean("terms_from_month_end")) : null,
            HeadOffice = r.String("head_office"),
            Groups = EnumText.Parse<GroupStatements>(r.String("groups")),
            Form = r.Text("form") is { } form ? EnumText.Parse<StatementForm>(form) : null,
            Unit = r.String("unit"),
            MinimumBalance = r.Nullable<decimal>("minimum_balance"),
            OnHold = r.Boolean("on_hold"),
            OwnWording = r.Nullable<long>("own_wording"),
            Notes = r.String("notes"),
            Extra = StoreJson.Read<Dictionary<string, string>>(r.String("extra")),
            FromLedger = r.Boolean("from_ledger"),
            OwnLayout = r.Nullable<long>("own_layout"),
        };

    /// <summary>Code, name, and the names and addresses of all contacts.</summary>
    private static string SearchText(Customer card) =>
        string.Join(
                '\n',
                card.Contacts.SelectMany(c => new[] { c.Name, c.Address }).Prepend(card.Name).Prepend(card.Key).Where(t => t.Length > 0)
            )
            .ToLowerInvariant();
}
