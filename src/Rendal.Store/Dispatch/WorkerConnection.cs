using Npgsql;

namespace Rendal.Store.Dispatch;

/// <summary>The connection by which a worker is known to be alive.</summary>
public sealed class WorkerConnection : IAsyncDisposable
{
    private readonly NpgsqlConnection connection;

    /// <summary>The connection of a worker, which counts as alive while it is open.</summary>
    internal WorkerConnection(NpgsqlConnection connection, long number) => (this.connection, Number) = (connection, number);

    /// <summary>The number by which what the worker claimed is its own.</summary>
    public long Number { get; }

    /// <summary>Waits until something is released, or the time is up.</summary>
    /// <exception cref="NpgsqlException">The connection is gone: whoever held it is no longer this worker.</exception>
    public async Task WaitAsync(TimeSpan atMost, CancellationToken cancel) => await connection.WaitAsync(atMost, cancel);

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        // Closed for good: the next who gets it from the pool would be this worker, and hear what it heard.
        NpgsqlConnection.ClearPool(connection);
        await connection.DisposeAsync();
    }
}
