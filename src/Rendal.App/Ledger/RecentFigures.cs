using Microsoft.Extensions.Caching.Memory;
using Rendal.App.Books;

namespace Rendal.App.Ledger;

/// <summary>
/// Figures that were reckoned from a whole ledger a while ago. They hold as long as the ledger, the day and the changes of the book
/// are the same; what of them depends on more says so. Each process keeps its own.
/// </summary>
internal static class RecentFigures
{
    // Of some thousand customers each.
    private const int MostKept = 50;
    private static readonly TimeSpan Unused = TimeSpan.FromMinutes(10);
    private static readonly MemoryCache Kept = new(new MemoryCacheOptions { SizeLimit = MostKept });

    /// <summary>The figures, reckoned where they are not at hand.</summary>
    /// <param name="stores">The book. What is reckoned may be newer than <see cref="Store.Books.Book.Changes"/> of it, and never older.</param>
    /// <param name="intake">The intake that brought the ledger.</param>
    /// <param name="asOf">The day.</param>
    /// <param name="beside">What they depend on beside these.</param>
    /// <param name="reckon">Reckons them.</param>
    public static async Task<T> OfAsync<T>(BookStores stores, long intake, DateOnly asOf, string beside, Func<Task<T>> reckon)
        where T : class
    {
        var key = (typeof(T), stores.Source, stores.Book.Id, stores.Book.Changes, intake, asOf, beside);
        if (!Kept.TryGetValue(key, out T? figures))
        {
            figures = await reckon();
            Kept.Set(key, figures, new MemoryCacheEntryOptions { Size = 1, SlidingExpiration = Unused });
        }

        return figures!;
    }
}
