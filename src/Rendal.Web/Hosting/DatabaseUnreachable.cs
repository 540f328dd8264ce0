using Npgsql;
using Rendal.Store.Dispatch;

namespace Rendal.Web.Hosting;

/// <summary>The database cannot be reached or written, for the moment.</summary>
internal static class DatabaseUnreachable
{
    /// <summary>What a person is told.</summary>
    public const string Words =
        "The database cannot be reached at the moment. Nothing that was kept is lost, and what you typed is still here; it "
        + "goes on by itself when the database is back.";

    /// <summary>
    /// Whether that is what an exception says: away, starting or stopping, without room, or without a connection to spare.
    /// </summary>
    public static bool Is(NpgsqlException e) =>
        DispatchQueue.MayPass(e) || e.InnerException is TimeoutException or System.Net.Sockets.SocketException or IOException;
}
