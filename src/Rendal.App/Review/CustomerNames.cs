using Microsoft.Extensions.Caching.Memory;
using Rendal.App.Books;
using Rendal.Core.Review;
using Rendal.Store.Books;

namespace Rendal.App.Review;

/// <summary>
/// The names of the customers of books, for messages in which they should not stand. Each process keeps those of a few books, until a card
/// is changed.
/// </summary>
internal static class CustomerNames
{
    private const int MostKept = 20;
    private static readonly MemoryCache Kept = new(new MemoryCacheOptions { SizeLimit = MostKept });

    /// <summary>The names in a book.</summary>
    /// <param name="stores">The stores of the book.</param>
    /// <param name="book">The book as it was before anything of this was loaded.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task<NameIndex> OfAsync(BookStores stores, Book book, CancellationToken cancel)
    {
        var cards = book.ChangesOf(ContentKind.Card);
        if (Kept.TryGetValue(book.Id, out (string Cards, NameIndex Names) known) && known.Cards == cards)
        {
            return known.Names;
        }

        var names = new NameIndex(await stores.Customers.AllNamesAsync(cancel));
        Kept.Set(book.Id, (cards, names), new MemoryCacheEntryOptions { Size = 1, SlidingExpiration = TimeSpan.FromMinutes(10) });
        return names;
    }
}
