using Rendal.App.Books;
using Rendal.Core.Ledger;

namespace Rendal.App.Accounts;

/// <summary>An item of a ledger that somebody asks for.</summary>
internal static class KnownItem
{
    /// <summary>The row of an item in a ledger.</summary>
    /// <param name="stores">The book.</param>
    /// <param name="intake">The ledger.</param>
    /// <param name="customer">Whose item it is.</param>
    /// <param name="item">The item, by its <see cref="ItemKey"/> as text.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The customer has no such item in it.</exception>
    public static async Task<LedgerRow> OfAsync(BookStores stores, long intake, string customer, string item, CancellationToken cancel) =>
        (await stores.Ledger.RowsAsync(intake, [customer], cancel)).Find(r => ItemKey.Of(r).Text == item)
        ?? throw ProblemException.NotFound("This item");
}
