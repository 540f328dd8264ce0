using Microsoft.Extensions.Caching.Memory;
using Rendal.App.Books;
using Rendal.Store.Books;

namespace Rendal.App.Ledger;

/// <summary>
/// Figures that were reckoned for a whole book a while ago. They hold as long as what they depend on is the same, which is part of their
/// key. Each process keeps its own.
/// </summary>
internal static class RecentFigures
{
    // Of all figures together; about a hundred megabytes.
    private const int MostKept = 1_000_000;
    private static readonly TimeSpan Unused = TimeSpan.FromMinutes(10);
    private static readonly MemoryCache Kept = new(new MemoryCacheOptions { SizeLimit = MostKept });

    /// <summary>The figures, reckoned where they are not at hand.</summary>
    /// <param name="stores">The book. What is reckoned may be newer than <see cref="Book.ChangesByKind"/> of it, and never older.</param>
    /// <param name="kinds">The kinds of changes that they depend on.</param>
    /// <param name="beside">What they depend on beside these.</param>
    /// <param name="reckon">Reckons them.</param>
    /// <param name="count">How many they are.</param>
    public static async Task<T> OfAsync<T>(BookStores stores, ContentKind[] kinds, object beside, Func<Task<T>> reckon, Func<T, int> count)
        where T : class
    {
        var key = (typeof(T), stores.Source, stores.Book.Id, stores.Book.ChangesOf(kinds), beside);
        if (!Kept.TryGetValue(key, out T? figures))
        {
            figures = await reckon();
            Kept.Set(key, figures, new MemoryCacheEntryOptions { Size = 1 + count(figures), SlidingExpiration = Unused });
        }

        return figures!;
    }
}
