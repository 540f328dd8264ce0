using Rendal.App.Books;
using Rendal.Store.Intake;

namespace Rendal.App.Ledger;

/// <summary>The ledger that holds: what was kept last and not undone.</summary>
public static class TheLedger
{
    /// <summary>The intake that brought the ledger.</summary>
    /// <exception cref="ProblemException">None was kept yet, or all were undone.</exception>
    public static async Task<IntakeRecord> OfAsync(BookStores stores, CancellationToken cancel) =>
        await stores.Intakes.CurrentAsync(cancel) ?? throw ProblemException.Conflict("There is no ledger. Take in a ledger file first.");
}
