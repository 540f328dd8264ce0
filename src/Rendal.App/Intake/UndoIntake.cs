using Rendal.App.Books;
using Rendal.Store.Intake;

namespace Rendal.App.Intake;

/// <summary>Takes a file back that was kept last of its kind: the ledger before it holds again, or the cards are what they were.</summary>
public sealed class UndoIntake(BookStores stores)
{
    /// <summary>Undoes an intake by its number. It stays on record as undone, with its file.</summary>
    /// <exception cref="ProblemException">There is no intake of this number, or it was not kept last.</exception>
    public async Task RunAsync(long id, CancellationToken cancel)
    {
        var intake = await TheIntake.OfAsync(stores, id, cancel);
        var undone =
            intake.Kind == IntakeKind.Ledger
                ? await stores.Intakes.UndoAsync(id, cancel)
                : await stores.Intakes.UndoCustomersAsync(id, await stores.Corrections.HoldingAsync(cancel), stores.Person, cancel);
        if (!undone)
        {
            throw ProblemException.Conflict("Only the last file that was kept can be undone.");
        }
    }
}
