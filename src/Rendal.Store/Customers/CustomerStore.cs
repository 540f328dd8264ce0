using Npgsql;
using Rendal.Core.Customers;
using Rendal.Core.Intake;

namespace Rendal.Store.Customers;

/// <summary>The customers of one book.</summary>
public sealed class CustomerStore(NpgsqlDataSource source, long book)
{
    private const string Columns = "key, name, contact, title, postal_lines, country, email, language, on_hold, from_ledger";

    /// <summary>All customers by key.</summary>
    public async Task<Dictionary<string, Customer>> AllAsync(CancellationToken cancel) =>
        (await source.Sql($"select {Columns} from customer where book_id = $1", book).ListAsync(Read, cancel)).ToDictionary(c => c.Key, StringComparer.Ordinal);

    /// <summary>The customers whose key, name, contact or address holds a text, by name.</summary>
    public Task<List<Customer>> SearchAsync(string text, int most, CancellationToken cancel) =>
        source.Sql(
            $"select {Columns} from customer where book_id = $1 and ($2 = '' or key ilike $3 or name ilike $3 or contact ilike $3 or email ilike $3) order by lower(name), key limit $4",
            book, text, Pattern.Holding(text), most).ListAsync(Read, cancel);

    /// <summary>A customer; null where there is none of this key.</summary>
    public Task<Customer?> FindAsync(string key, CancellationToken cancel) => source.Sql($"select {Columns} from customer where book_id = $1 and key = $2", book, key).FirstAsync(Read, cancel);

    /// <summary>The customers' own terms in days, by key, where they have any.</summary>
    public async Task<Dictionary<string, int>> TermsAsync(CancellationToken cancel) =>
        (await source.Sql("select key, terms_days from customer where book_id = $1 and terms_days is not null", book).ListAsync(r => (Key: r.GetString(0), Days: r.GetInt32(1)), cancel)).ToDictionary(t => t.Key, t => t.Days, StringComparer.Ordinal);

    /// <summary>The keys of the customers whose card has at least one address that can be written to.</summary>
    public async Task<HashSet<string>> ReachableAsync(CancellationToken cancel) =>
        (await source.Sql("select key, email from customer where book_id = $1 and email <> ''", book).ListAsync(r => (Key: r.GetString(0), Email: r.GetString(1)), cancel))
            .Where(c => AddressList.Read(c.Email).Good.Count > 0).Select(c => c.Key).ToHashSet(StringComparer.Ordinal);

    /// <summary>Takes in a customer list in one transaction. A field that is empty in the list leaves what the card says.</summary>
    public async Task TakeInAsync(IReadOnlyList<ListedCustomer> list, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await using var batch = new NpgsqlBatch(connection);
        foreach (var (customer, terms) in list)
        {
            var command = new NpgsqlBatchCommand(
                """
                insert into customer (book_id, key, name, contact, title, postal_lines, country, email, language, on_hold, terms_days)
                values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)
                on conflict (book_id, key) do update set from_ledger = false, name = excluded.name,
                    contact = coalesce(nullif(excluded.contact, ''), customer.contact), title = coalesce(nullif(excluded.title, ''), customer.title),
                    postal_lines = case when cardinality(excluded.postal_lines) > 0 then excluded.postal_lines else customer.postal_lines end,
                    country = coalesce(nullif(excluded.country, ''), customer.country), email = coalesce(nullif(excluded.email, ''), customer.email),
                    language = excluded.language, on_hold = excluded.on_hold, terms_days = coalesce(excluded.terms_days, customer.terms_days)
                """);
            foreach (var value in new object?[] { book, customer.Key, customer.Name, customer.Contact, customer.Title, customer.PostalLines.ToArray(), customer.Country, customer.Email, customer.Language, customer.OnHold, terms })
            {
                command.Parameters.Add(new NpgsqlParameter { Value = value ?? DBNull.Value });
            }

            batch.BatchCommands.Add(command);
        }

        if (batch.BatchCommands.Count > 0)
        {
            await batch.ExecuteNonQueryAsync(cancel);
        }

        await transaction.CommitAsync(cancel);
    }

    /// <summary>Puts right a customer's card. False where there is no such customer.</summary>
    public async Task<bool> UpdateAsync(Customer customer, CancellationToken cancel) =>
        await source.Sql(
            "update customer set name = $3, contact = $4, title = $5, postal_lines = $6, country = $7, email = $8, language = $9, on_hold = $10, from_ledger = false where book_id = $1 and key = $2",
            book, customer.Key, customer.Name, customer.Contact, customer.Title, customer.PostalLines.ToArray(), customer.Country, customer.Email, customer.Language, customer.OnHold).RunAsync(cancel) == 1;

    private static Customer Read(NpgsqlDataReader r) => new()
    {
        Key = r.GetString(0),
        Name = r.GetString(1),
        Contact = r.GetString(2),
        Title = r.GetString(3),
        PostalLines = r.GetFieldValue<string[]>(4),
        Country = r.GetString(5),
        Email = r.GetString(6),
        Language = r.GetString(7),
        OnHold = r.GetBoolean(8),
        FromLedger = r.GetBoolean(9),
    };
}
