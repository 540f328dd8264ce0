using Npgsql;
using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Statements;

namespace Rendal.Store.Customers;

/// <summary>By what the list of customers is ordered.</summary>
public enum CustomerOrder
{
    /// <summary>By name, case ignored.</summary>
    Name,

    /// <summary>By code.</summary>
    Key,

    /// <summary>By the first contact's address; those without one first.</summary>
    Address,

    /// <summary>By business unit.</summary>
    Unit,
}

/// <summary>The customers of one book.</summary>
public sealed class CustomerStore(NpgsqlDataSource source, long book)
{
    private const string Columns = CardTable.Columns;

    /// <summary>All customers by key.</summary>
    public async Task<Dictionary<string, Customer>> AllAsync(CancellationToken cancel) =>
        (await source.Sql($"select {Columns} from customer where book_id = $1", book).ListAsync(CardTable.Read, cancel)).ToDictionary(
            c => c.Key,
            StringComparer.Ordinal
        );

    /// <summary>Some customers by key; one that has no card is not among them.</summary>
    public async Task<Dictionary<string, Customer>> AllAsync(IEnumerable<string> keys, CancellationToken cancel) =>
        (
            await source
                .Sql($"select {Columns} from customer where book_id = $1 and key = any ($2)", book, keys.ToArray())
                .ListAsync(CardTable.Read, cancel)
        ).ToDictionary(c => c.Key, StringComparer.Ordinal);

    /// <summary>
    /// What choosing has to know of the customers of a ledger and their head offices, by key. Only those of whom something is to be known
    /// are in it; for all others <see cref="CustomerTraits.Usual"/> holds.
    /// </summary>
    public async Task<Dictionary<string, CustomerTraits>> TraitsAsync(long intake, RoundKind kind, CancellationToken cancel) =>
        (
            await source
                .Sql(
                    """
                    select key, on_hold, reachable, minimum_balance, head_office, groups, form, delivery,
                        case when reachable is null then contacts end contacts,
                        case when reachable is null then postal_lines end postal_lines
                    from customer
                    where book_id = $1 and (on_hold or reachable is distinct from true or minimum_balance is not null or head_office <> ''
                        or groups <> 'branches' or form is not null)
                    union all
                    select customer, false, false, null, '', 'branches', null, 'email', null, null
                    from (select customer from ledger_customer where book_id = $1 and intake_id = $2
                        except all select key from customer where book_id = $1) l
                    """,
                    book,
                    intake
                )
                .ListAsync(
                    r =>
                        (
                            Key: r.String("key"),
                            Traits: new CustomerTraits(
                                r.Boolean("on_hold"),
                                r.Nullable<bool>("reachable")
                                    ?? new Customer
                                    {
                                        Key = "",
                                        Name = "",
                                        Delivery = EnumText.Parse<Delivery>(r.String("delivery")),
                                        Contacts = StoreJson.Read<Contact[]>(r.String("contacts")),
                                        PostalLines = r.Value<string[]>("postal_lines"),
                                    }.IsReachedBy(kind),
                                r.Nullable<decimal>("minimum_balance"),
                                r.String("head_office"),
                                EnumText.Parse<GroupStatements>(r.String("groups")),
                                r.Text("form") is { } form ? EnumText.Parse<StatementForm>(form) : null
                            )
                        ),
                    cancel
                )
        ).ToDictionary(t => t.Key, t => t.Traits, StringComparer.Ordinal);

    /// <summary>A part of the customers whose code, name, contacts or addresses hold a text, with how many there are in all.</summary>
    /// <param name="text">The text, case ignored; empty for all.</param>
    /// <param name="order">The order.</param>
    /// <param name="descending">Whether it runs backwards.</param>
    /// <param name="from">How many are passed over; with a text that fewer are found by, the number in all is given as 0.</param>
    /// <param name="most">How many are given at most.</param>
    public async Task<(List<Customer> Customers, int Count)> SearchAsync(
        string text,
        CustomerOrder order,
        bool descending,
        int from,
        int most,
        CancellationToken cancel
    )
    {
        var by = order switch
        {
            CustomerOrder.Key => "key",
            CustomerOrder.Address => "left(coalesce(contacts -> 0 ->> 'address', ''), 200)",
            CustomerOrder.Unit => "left(unit, 200)",
            _ => "left(lower(name), 200)",
        };
        var way = descending ? "desc" : "asc";
        if (text.Length == 0)
        {
            var all = await source.Sql("select count(*)::int from customer where book_id = $1", book).OneAsync<int>(cancel);
            return (
                await source
                    .Sql(
                        $"select {Columns} from customer where book_id = $1 order by {by} {way}, key {way} offset $2 limit $3",
                        book,
                        from,
                        most
                    )
                    .ListAsync(CardTable.Read, cancel),
                all
            );
        }

        // One look at all cards for both the number and the part.
        var found = await source
            .Sql(
                $"""
                with found as materialized (select key, {by} as place from customer where book_id = $1 and search like $2),
                    part as (select key, place from found order by place {way}, key {way} offset $3 limit $4)
                select {Columns}, (select count(*)::int from found) found_in_all from part join customer using (key) where book_id = $1
                    order by place {way}, key {way}
                """,
                book,
                Pattern.Holding(text.ToLowerInvariant()),
                from,
                most
            )
            .ListAsync(r => (Card: CardTable.Read(r), Count: r.GetInt32(r.GetOrdinal("found_in_all"))), cancel);
        return (found.ConvertAll(f => f.Card), found.Count > 0 ? found[0].Count : 0);
    }

    /// <summary>A customer; null where there is none of this key.</summary>
    public Task<Customer?> FindAsync(string key, CancellationToken cancel) =>
        source.Sql($"select {Columns} from customer where book_id = $1 and key = $2", book, key).FirstAsync(CardTable.Read, cancel);

    /// <summary>The customers' own terms, by key, where they have any.</summary>
    public async Task<Dictionary<string, PaymentTerms>> TermsAsync(CancellationToken cancel) =>
        (
            await source
                .Sql("select key, terms_days, terms_from_month_end from customer where book_id = $1 and terms_days is not null", book)
                .ListAsync(r => (Key: r.GetString(0), Terms: new PaymentTerms(r.GetInt32(1), r.GetBoolean(2))), cancel)
        ).ToDictionary(t => t.Key, t => t.Terms, StringComparer.Ordinal);

    /// <summary>The head office of each customer that has one, by key.</summary>
    public async Task<Dictionary<string, string>> HeadOfficesAsync(CancellationToken cancel) =>
        (
            await source
                .Sql("select key, head_office from customer where book_id = $1 and head_office <> ''", book)
                .ListAsync(r => (Key: r.GetString(0), Office: r.GetString(1)), cancel)
        ).ToDictionary(h => h.Key, h => h.Office, StringComparer.Ordinal);

    /// <summary>The codes of the languages that customers are written to in, in order.</summary>
    public Task<List<string>> LanguagesAsync(CancellationToken cancel) =>
        source
            .Sql("select distinct language from customer where book_id = $1 order by language", book)
            .ListAsync(r => r.GetString(0), cancel);

    /// <summary>The customers at the top of a group, with their names, in order of name.</summary>
    /// <remarks>
    /// Each is looked up by its key; <c>offset 0</c> leaves the server no choice. Of cards that were written a moment ago it knows
    /// nothing, and compared each of ten thousand with each.
    /// </remarks>
    public Task<List<(string Key, string Name)>> OfficesAsync(CancellationToken cancel) =>
        source
            .Sql(
                """
                select o.key, o.name from (select distinct b.head_office from customer b where b.book_id = $1 and b.head_office <> '') top
                cross join lateral (select o.key, o.name from customer o where o.book_id = $1 and o.key = top.head_office
                    and o.head_office = '' offset 0) o
                order by lower(o.name), o.key
                """,
                book
            )
            .ListAsync(r => (r.GetString(0), r.GetString(1)), cancel);

    /// <summary>The names of some customers by key; those that are on no card are not in it.</summary>
    public async Task<Dictionary<string, string>> NamesAsync(string[] keys, CancellationToken cancel) =>
        (
            await source
                .Sql("select key, name from customer where book_id = $1 and key = any ($2)", book, keys)
                .ListAsync(r => (Key: r.GetString(0), Name: r.GetString(1)), cancel)
        ).ToDictionary(c => c.Key, c => c.Name, StringComparer.Ordinal);

    /// <summary>The headings of the columns of customer lists that mean nothing to the rules, in ordinal order.</summary>
    public Task<List<string>> ExtraHeadingsAsync(CancellationToken cancel) =>
        source
            .Sql(
                """
                select distinct heading collate "C" heading from customer c cross join lateral jsonb_object_keys(c.extra) heading
                where c.book_id = $1 and c.extra <> '{}' order by heading
                """,
                book
            )
            .ListAsync(r => r.GetString(0), cancel);

    /// <summary>The names on all cards, each once.</summary>
    public Task<List<string>> AllNamesAsync(CancellationToken cancel) =>
        source.Sql("select distinct name from customer where book_id = $1", book).ListAsync(r => r.GetString(0), cancel);

    /// <summary>The keys of the customers whose card has at least one address that can be written to, or who get post.</summary>
    public async Task<HashSet<string>> ReachableAsync(CancellationToken cancel)
    {
        var cards = await source
            .Sql(
                """
                select key, contacts, delivery, postal_lines from customer
                where book_id = $1 and (contacts <> '[]' or delivery in ('post', 'both'))
                """,
                book
            )
            .ListAsync(
                r => new Customer
                {
                    Key = r.String("key"),
                    Name = "",
                    Contacts = StoreJson.Read<Contact[]>(r.String("contacts")),
                    Delivery = EnumText.Parse<Delivery>(r.String("delivery")),
                    PostalLines = r.Value<string[]>("postal_lines"),
                },
                cancel
            );
        var reached = cards.Where(c => c.GoesByPost || c.Contacts.Any(contact => AddressList.Read(contact.Address).Good.Count > 0));
        return reached.Select(c => c.Key).ToHashSet(StringComparer.Ordinal);
    }

    /// <summary>The version of a card; null where there is none of this key.</summary>
    public async Task<long?> VersionAsync(string key, CancellationToken cancel) =>
        await source.Sql("select version from customer where book_id = $1 and key = $2", book, key).ListAsync(r => r.GetInt64(0), cancel)
            is [var version]
            ? version
            : null;

    /// <summary>Who put something right on a card last; null where nobody did.</summary>
    public async Task<string?> ChangedByAsync(string key, CancellationToken cancel) =>
        await source
            .Sql(
                "select p.name from correction c join person p on p.id = c.made_by where c.book_id = $1 and c.kind = 'card' "
                    + "and c.concerns = $2 order by c.made_at desc, c.id desc limit 1",
                book,
                key
            )
            .ListAsync(r => r.GetString(0), cancel)
            is [var name]
            ? name
            : null;

    /// <summary>
    /// Puts right a customer's card, and remembers each field that a list could bring back as a correction, in one
    /// transaction.
    /// </summary>
    /// <param name="customer">The card as it is to be.</param>
    /// <param name="version">The version of the card that it was put right on.</param>
    /// <param name="person">Who puts it right.</param>
    /// <param name="now">The time.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<Update> UpdateAsync(Customer customer, long version, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        if (
            await connection
                .Sql($"select {Columns} from customer where book_id = $1 and key = $2 for update", book, customer.Key)
                .FirstAsync(CardTable.Read, cancel)
            is not { } before
        )
        {
            return Update.NotThere;
        }

        if (
            await connection.Sql("select version from customer where book_id = $1 and key = $2", book, customer.Key).OneAsync<long>(cancel)
            != version
        )
        {
            return Update.Stale;
        }

        await CardTable.WriteAsync(connection, book, [customer with { FromLedger = false, Extra = before.Extra }], cancel);
        foreach (var field in Enum.GetValues<CardField>())
        {
            var (was, becomes) = (CardText.Of(before, field), CardText.Of(customer, field));
            if (was != becomes)
            {
                await Corrections.CorrectionStore.AddAsync(
                    connection,
                    book,
                    new Correction
                    {
                        Kind = CorrectionKind.Card,
                        Column = field.ToString(),
                        Of = customer.Key,
                        Was = was,
                        Becomes = becomes,
                    },
                    default,
                    person,
                    now,
                    cancel
                );
            }
        }

        await transaction.CommitAsync(cancel);
        return Update.Done;
    }
}
