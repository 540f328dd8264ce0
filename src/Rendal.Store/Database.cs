using Npgsql;

namespace Rendal.Store;

/// <summary>Connections to a database of Rendal's.</summary>
public static class Database
{
    /// <summary>
    /// Connections whose sessions run in UTC, whatever the server, its role or the surroundings have for a time zone: a moment becomes a
    /// day only where a zone is named.
    /// </summary>
    /// <param name="connection">Where it is and as whom, as Npgsql writes it.</param>
    public static NpgsqlDataSource Source(string connection) => NpgsqlDataSource.Create(Settings(connection));

    /// <summary>The same for who has more to set.</summary>
    internal static NpgsqlConnectionStringBuilder Settings(string connection) => new(connection) { Timezone = "UTC" };
}
