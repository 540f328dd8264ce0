using Rendal.App.Books;
using Rendal.App.Ledger;
using Rendal.Core.Enclosures;

namespace Rendal.App.Enclosures;

/// <summary>The document numbers of a ledger, kept for a while: rows of an intake never change.</summary>
internal static class LedgerNumbers
{
    /// <summary>The numbers of an intake.</summary>
    public static Task<DocumentNumbers> OfAsync(BookStores stores, long intake, CancellationToken cancel) =>
        RecentFigures.OfAsync(
            stores,
            [],
            intake,
            async () => new DocumentNumbers(await stores.Ledger.DocumentsAsync(intake, cancel)),
            numbers => numbers.Count
        );
}
