using Npgsql;
using NpgsqlTypes;

namespace Rendal.Store;

/// <summary>Short ways to run SQL with positional parameters.</summary>
internal static class Commands
{
    /// <summary>A command over a connection of its own, with its parameters <c>$1</c>, <c>$2</c> and so on.</summary>
    public static NpgsqlCommand Sql(this NpgsqlDataSource source, string sql, params object?[] values) =>
        With(source.CreateCommand(sql), values);

    /// <summary>A command over a connection that is open, in its transaction if there is one.</summary>
    public static NpgsqlCommand Sql(this NpgsqlConnection connection, string sql, params object?[] values) =>
        With(new NpgsqlCommand(sql, connection), values);

    /// <summary>Adds a command to those that are run together, which without a transaction of their own are one.</summary>
    public static void Sql(this NpgsqlBatch batch, string sql, params object?[] values)
    {
        var command = new NpgsqlBatchCommand(sql);
        Add(command.Parameters, values);
        batch.BatchCommands.Add(command);
    }

    /// <summary>A value for a jsonb column.</summary>
    public static NpgsqlParameter Json<T>(T value) => new() { Value = StoreJson.Write(value), NpgsqlDbType = NpgsqlDbType.Jsonb };

    /// <summary>A value for a bigint column that may be empty.</summary>
    public static NpgsqlParameter Whole(long? value) =>
        new NpgsqlParameter<long?> { TypedValue = value, NpgsqlDbType = NpgsqlDbType.Bigint };

    /// <summary>Runs a command, and gives how many rows it changed.</summary>
    public static async Task<int> RunAsync(this NpgsqlCommand command, CancellationToken cancel)
    {
        await using (command)
        {
            return await command.ExecuteNonQueryAsync(cancel);
        }
    }

    /// <summary>The one value that a query gives.</summary>
    /// <exception cref="InvalidOperationException">It gives no row.</exception>
    public static async Task<T> OneAsync<T>(this NpgsqlCommand command, CancellationToken cancel)
    {
        await using (command)
        {
            return (T)(await command.ExecuteScalarAsync(cancel) ?? throw new InvalidOperationException("A row was expected."));
        }
    }

    /// <summary>All rows of a query; the function must not keep the reader.</summary>
    public static async Task<List<T>> ListAsync<T>(this NpgsqlCommand command, Func<NpgsqlDataReader, T> read, CancellationToken cancel)
    {
        await using (command)
        {
            var list = new List<T>();
            await using var reader = await command.ExecuteReaderAsync(cancel);
            while (await reader.ReadAsync(cancel))
            {
                list.Add(read(reader));
            }

            return list;
        }
    }

    /// <summary>The first row of a query; null where there is none.</summary>
    public static async Task<T?> FirstAsync<T>(this NpgsqlCommand command, Func<NpgsqlDataReader, T> read, CancellationToken cancel)
        where T : class
    {
        await using (command)
        {
            await using var reader = await command.ExecuteReaderAsync(cancel);
            return await reader.ReadAsync(cancel) ? read(reader) : null;
        }
    }

    /// <summary>Says who makes the changes of this transaction; what they change is kept by version with their name.</summary>
    public static Task ActsAsync(this NpgsqlConnection connection, long person, CancellationToken cancel) =>
        connection.Sql("select set_config('rendal.person', $1::text, true)", person).RunAsync(cancel);

    /// <summary>Does something in a transaction in which a person acts.</summary>
    public static async Task<T> ByAsync<T>(
        this NpgsqlDataSource source,
        long person,
        Func<NpgsqlConnection, Task<T>> work,
        CancellationToken cancel
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        var result = await work(connection);
        await transaction.CommitAsync(cancel);
        return result;
    }

    /// <summary>A value, or null.</summary>
    public static T? Nullable<T>(this NpgsqlDataReader reader, int column)
        where T : struct => reader.IsDBNull(column) ? null : reader.GetFieldValue<T>(column);

    /// <summary>A text, or null.</summary>
    public static string? Text(this NpgsqlDataReader reader, int column) => reader.IsDBNull(column) ? null : reader.GetString(column);

    private static NpgsqlCommand With(NpgsqlCommand command, object?[] values)
    {
        Add(command.Parameters, values);
        return command;
    }

    private static void Add(NpgsqlParameterCollection parameters, object?[] values)
    {
        foreach (var value in values)
        {
            parameters.Add(value as NpgsqlParameter ?? new NpgsqlParameter { Value = value ?? DBNull.Value });
        }
    }
}
