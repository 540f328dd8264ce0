using Npgsql;

namespace Rendal.Store.Senders;

/// <summary>The mail account and identity that messages go out under.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Name">The name that recipients see.</param>
/// <param name="Address">The address that recipients see and answer to.</param>
/// <param name="Host">The mail server's name.</param>
/// <param name="Port">Its port.</param>
/// <param name="Security"><c>none</c> (on loopback only), <c>starttls</c> or <c>tls</c>.</param>
/// <param name="UserName">Who signs in; empty where nobody has to.</param>
/// <param name="ProtectedPassword">The password, encrypted; null where there is none.</param>
/// <param name="Paused">Why nothing is sent under it until a person has seen to it; empty when it may send.</param>
public sealed record Sender(long Id, string Name, string Address, string Host, int Port, string Security, string UserName, byte[]? ProtectedPassword, string Paused);

/// <summary>The senders of one book.</summary>
public sealed class SenderStore(NpgsqlDataSource source, long book)
{
    private const string Columns = "id, name, address, host, port, security, user_name, password, paused";

    /// <summary>All senders, in the order in which they were made.</summary>
    public Task<List<Sender>> ListAsync(CancellationToken cancel) => source.Sql($"select {Columns} from sender where book_id = $1 order by id", book).ListAsync(Read, cancel);

    /// <summary>A sender; null where there is none of this number.</summary>
    public Task<Sender?> FindAsync(long id, CancellationToken cancel) => source.Sql($"select {Columns} from sender where book_id = $1 and id = $2", book, id).FirstAsync(Read, cancel);

    /// <summary>Adds a sender; its number is given.</summary>
    public Task<long> AddAsync(Sender sender, CancellationToken cancel) =>
        source.Sql("insert into sender (book_id, name, address, host, port, security, user_name, password) values ($1, $2, $3, $4, $5, $6, $7, $8) returning id",
            book, sender.Name, sender.Address, sender.Host, sender.Port, sender.Security, sender.UserName, Bytes(sender.ProtectedPassword)).OneAsync<long>(cancel);

    /// <summary>Changes a sender and lets it send again. Without a password the one that was there stays.</summary>
    public async Task<bool> UpdateAsync(Sender sender, CancellationToken cancel) =>
        await source.Sql(
            "update sender set name = $3, address = $4, host = $5, port = $6, security = $7, user_name = $8, password = coalesce($9, password), paused = '' where book_id = $1 and id = $2",
            book, sender.Id, sender.Name, sender.Address, sender.Host, sender.Port, sender.Security, sender.UserName, Bytes(sender.ProtectedPassword)).RunAsync(cancel) == 1;

    internal static Sender Read(NpgsqlDataReader r) => new(
        r.GetInt64(0), r.GetString(1), r.GetString(2), r.GetString(3), r.GetInt32(4), r.GetString(5), r.GetString(6), r.IsDBNull(7) ? null : r.GetFieldValue<byte[]>(7), r.GetString(8));

    private static NpgsqlParameter Bytes(byte[]? value) => new() { Value = (object?)value ?? DBNull.Value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Bytea };
}
