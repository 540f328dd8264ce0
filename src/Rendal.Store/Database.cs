using Npgsql;

namespace Rendal.Store;

/// <summary>Connections to a database of Rendal's.</summary>
public static class Database
{
    /// <summary>
    /// Connections whose sessions run in UTC, whatever the server, its role or the surroundings have for a time zone: a moment becomes a
    /// day only where a zone is named. Statements are not compiled: they are many and short, and to compile one takes longer than to run
    /// it.
    /// </summary>
    /// <param name="connection">Where it is and as whom, as Npgsql writes it.</param>
    public static NpgsqlDataSource Source(string connection) => NpgsqlDataSource.Create(Settings(connection));

    /// <summary>The same for who has more to set.</summary>
    internal static NpgsqlConnectionStringBuilder Settings(string connection)
    {
        var settings = new NpgsqlConnectionStringBuilder(connection) { Timezone = "UTC" };
        settings.Options = $"{settings.Options} -c jit=off".Trim();
        return settings;
    }
}
