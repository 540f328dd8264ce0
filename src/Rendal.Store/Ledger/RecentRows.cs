using Microsoft.Extensions.Caching.Memory;
using Npgsql;
using Rendal.Core.Ledger;

namespace Rendal.Store.Ledger;

/// <summary>
/// The rows of ledgers that were gone through a moment ago: whoever tries one choice after the other goes through the same rows
/// each time, and rows never change. Each process keeps its own.
/// </summary>
internal static class RecentRows
{
    // About a hundred megabytes. A ledger with more rows is read each time.
    private const int MostRows = 200_000;
    private static readonly TimeSpan Unused = TimeSpan.FromMinutes(2);
    private static readonly MemoryCache Kept = new(new MemoryCacheOptions { SizeLimit = MostRows });

    /// <summary>The rows of an intake, read where they are not at hand.</summary>
    public static async Task<IReadOnlyList<LedgerRow>> OfAsync(
        NpgsqlDataSource source,
        long book,
        long intake,
        Func<Task<List<LedgerRow>>> read
    )
    {
        var key = (source, book, intake);
        if (Kept.TryGetValue(key, out IReadOnlyList<LedgerRow>? known))
        {
            return known!;
        }

        var rows = await read();

        // An intake that is not kept yet has none.
        if (rows.Count > 0)
        {
            Kept.Set<IReadOnlyList<LedgerRow>>(key, rows, new MemoryCacheEntryOptions { Size = rows.Count, SlidingExpiration = Unused });
        }

        return rows;
    }
}
