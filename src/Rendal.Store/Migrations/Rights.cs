using Npgsql;
using Rendal.Store.Cluster;

namespace Rendal.Store.Migrations;

/// <summary>What the role that Rendal works as may do with the tables, which belong to another.</summary>
public static class Rights
{
    /// <summary>
    /// Tables to which one can only add: what went out, what came back, what people decided or noted about it, and what all of it was made
    /// from.
    /// </summary>
    private const string Record = "message, letter, returned_mail, returned_decision, dispatch_note, content_change, changed_content";

    /// <summary>
    /// The tables of the schema, without those that the rows of each intake are in: they are reached by way of the ledger's.
    /// </summary>
    private const string Tables =
        "pg_class c where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and not c.relispartition and "
        + "c.relname !~ '^ledger_row_[0-9]'";

    /// <summary>What is done in the name of the owner.</summary>
    private static readonly string[] Functions =
    [
        "make_ledger_rows(bigint)",
        "place_ledger_rows(bigint)",
        "drop_spare_ledger_rows(bigint, int, timestamptz)",
    ];

    /// <summary>
    /// Gives the application's role what its work needs, and takes from it what it has beyond that. Nothing where it owns the tables.
    /// </summary>
    /// <exception cref="PostgresException">The owner may not give rights, or there is no such role.</exception>
    internal static async Task GiveAsync(DatabaseAccess access)
    {
        var role = new NpgsqlConnectionStringBuilder(access.Application).Username ?? "";
        if (role == new NpgsqlConnectionStringBuilder(access.Owner).Username)
        {
            return;
        }

        await using var source = NpgsqlDataSource.Create($"{access.Owner};Pooling=false");
        await using var connection = await source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();

        // Two that start at the same time would give the same rights at the same time, which PostgreSQL refuses to one.
        await connection.Sql("select pg_advisory_xact_lock(hashtext('rights'))").RunAsync(CancellationToken.None);
        if (
            await connection
                .Sql(
                    $"select exists (select from {Tables} and not has_table_privilege($1, c.oid, 'select')) or exists (select "
                        + "from unnest($2::text[]) f where not has_function_privilege($1, f, 'execute'))",
                    role,
                    Functions
                )
                .OneAsync<bool>(CancellationToken.None)
        )
        {
            var tables = string.Join(
                ", ",
                await connection.Sql($"select quote_ident(c.relname) from {Tables}").ListAsync(r => r.GetString(0), CancellationToken.None)
            );
            var to = $"\"{role.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";
            await connection
                .Sql(
                    $"""
                    grant usage on schema public to {to};
                    grant select, insert, update, delete on {tables} to {to};
                    grant usage on all sequences in schema public to {to};
                    grant execute on function {string.Join(", ", Functions)} to {to};
                    revoke update, delete on {Record}, delivery_attempt from {to};
                    revoke insert, update, delete on schemaversions from {to};
                    -- What changed is written by triggers, in the name of the owner.
                    revoke insert on content_change, changed_content from {to};
                    -- A try that is under way gets its end.
                    grant update (end_of_data_at, ended_at, outcome, answer, recipients, gave_up) on delivery_attempt to {to};
                    """
                )
                .RunAsync(CancellationToken.None);
        }

        await transaction.CommitAsync();
    }

    /// <summary>
    /// Whether a role could alter or remove what stands in the record of what went out, if it first took away the triggers that refuse it.
    /// </summary>
    /// <param name="application">The connection string of the role that Rendal works as.</param>
    public static async Task<bool> ReachTheRecordAsync(string application)
    {
        await using var source = NpgsqlDataSource.Create($"{application};Pooling=false");
        return await source
            .Sql(
                "select bool_or(has_table_privilege(t, 'update, delete, truncate')) from unnest($1::text[]) t",
                (object)Record.Split(", ")
            )
            .OneAsync<bool>(CancellationToken.None);
    }
}
