using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.Core.Ledger;
using Rendal.Store.Intake;

namespace Rendal.App.Intake;

/// <summary>Says what a newer ledger file changes.</summary>
public sealed class CompareWithLedger(BookStores stores, OpenedFiles files)
{
    /// <summary>Compares it with the ledger that holds, which is named with what changed.</summary>
    /// <exception cref="ProblemException">There is no intake of this number, there is no ledger, or the file is it.</exception>
    public async Task<(IntakeRecord Before, LedgerComparison Changes)> RunAsync(long id, ProgressMeter meter, CancellationToken cancel)
    {
        var intake = await TheIntake.OfAsync(stores, id, cancel);
        var current = await stores.Intakes.CurrentAsync(cancel)
            ?? throw ProblemException.Conflict("There is no ledger yet that this file could be compared with.");
        if (intake.Kind != IntakeKind.Ledger || current.Id == id)
        {
            throw ProblemException.Conflict("This file is the ledger; there is nothing to compare it with.");
        }

        var look = await LedgerLook.OpenAsync(stores, intake, files, meter, cancel);
        var before = await stores.Ledger.RowsAsync(current.Id, cancel);
        var reader = look.Reader(meter, "comparing the rows", cancel);
        return (
            current,
            LedgerComparison.Of(before, reader.Rows().Where(r => r.Row is not null).Select(r => r.Row!), reader.HasOutstanding)
        );
    }
}
