using Rendal.App.Books;
using Rendal.Store.Intake;

namespace Rendal.App.Rounds;

/// <summary>Whether the ledger that a round was made from still is the ledger.</summary>
public static class LedgerDoubt
{
    /// <summary>What is doubtful about it, a sentence for whoever is about to send; empty for nothing.</summary>
    public static async Task<string> OfAsync(IntakeRecord intake, BookStores stores, CancellationToken cancel) =>
        intake.State == "undone" ? $"This round is from {intake.FileName}, which was undone since."
        : await stores.Intakes.CurrentAsync(cancel) is { } current && current.Id != intake.Id
            ? $"This round is from {intake.FileName}, and a newer file, {current.FileName}, is the ledger now."
        : "";
}
