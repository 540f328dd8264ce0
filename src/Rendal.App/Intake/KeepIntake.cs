using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.Core.Intake;
using Rendal.Store.Intake;

namespace Rendal.App.Intake;

/// <summary>What an intake kept.</summary>
/// <param name="Id">The intake.</param>
/// <param name="Rows">How many rows of a ledger, or customers of a list.</param>
public sealed record KeptIntake(long Id, int Rows);

/// <summary>Keeps a file as it was looked at: as the book's ledger, or on the cards of its customers.</summary>
public sealed class KeepIntake(BookStores stores, OpenedFiles files, TimeProvider clock)
{
    private static readonly TimeSpan InUse = TimeSpan.FromDays(1);

    /// <summary>Reads the file once more from its first row to its last and keeps what is read, all of it or nothing.</summary>
    /// <param name="id">The intake.</param>
    /// <param name="sure">Whether it is kept though it is doubtful that it is the next ledger of the book.</param>
    /// <param name="emptyClears">Whether an empty cell of a customer list empties the field of the card.</param>
    /// <param name="meter">Is told how far it has come.</param>
    /// <param name="cancel">Stops it; nothing is kept then.</param>
    /// <exception cref="ProblemException">There is no intake of this number, it was kept or undone, it cannot be read, it is doubtful, or
    /// customers would be under each other in a circle.</exception>
    /// <param name="insteadOf">What is put right by it; null for the next ledger of the book.</param>
    public async Task<KeptIntake> RunAsync(
        long id,
        bool sure,
        bool emptyClears,
        ProgressMeter meter,
        CancellationToken cancel,
        PutRightIntake? insteadOf = null
    )
    {
        var intake = await TheIntake.OfAsync(stores, id, cancel);
        if (intake.State != "looked-at")
        {
            throw KeptAlready();
        }

        return
            (
                intake.Kind == IntakeKind.Customers
                    ? await CustomersAsync(intake, emptyClears, meter, cancel)
                    : await LedgerAsync(intake, sure, insteadOf, meter, cancel)
            )
                is { } rows
            ? new KeptIntake(id, rows)
            : throw (
                insteadOf is null
                    ? KeptAlready()
                    : ProblemException.Conflict(
                        "Somebody else kept a ledger or released the round in this moment, so nothing was changed. Look at it again."
                    )
            );
    }

    private async Task<int?> LedgerAsync(
        IntakeRecord intake,
        bool sure,
        PutRightIntake? insteadOf,
        ProgressMeter meter,
        CancellationToken cancel
    )
    {
        var look = await LedgerLook.OpenAsync(stores, intake, files, meter, cancel);
        if (!sure && look.SeemsToBe is { } other)
        {
            throw ProblemException.Conflict(other.Says);
        }

        var isFirst = await stores.Intakes.CurrentAsync(cancel) is null;
        if (!sure && !isFirst && (await look.ReadAsync(meter, cancel)).Doubts is [var doubt, ..])
        {
            throw ProblemException.Conflict(doubt);
        }

        var reader = look.Reader(meter, "keeping the rows", cancel);
        var reading = SavedReading.Of(look.Recognised!.Reading, intake.Change);

        // Before it is kept: who is told of an error, or stops it, is right to think that nothing was.
        await stores.Intakes.LetGoOfSpareRowsAsync(clock.GetUtcNow() - InUse, cancel);
        return await stores.Intakes.KeepAsync(
            intake.Id,
            reader,
            await stores.Customers.ReachableAsync(cancel),
            reading,
            clock.GetUtcNow(),
            cancel,
            insteadOf
        )
            ? reader.RowsKept
            : null;
    }

    private async Task<int?> CustomersAsync(IntakeRecord intake, bool emptyClears, ProgressMeter meter, CancellationToken cancel)
    {
        var look = CustomerListLook.Open(stores, intake, files, meter, cancel);
        var list = (await look.ReadAsync(meter, cancel)).List;
        if (list.Findings.Listed().FirstOrDefault(f => f.Code == FindingCodes.HeadOfficeLoop) is { } loop)
        {
            throw ProblemException.Conflict($"{loop.Message} {loop.Remedy}");
        }

        var reading = SavedReading.Of(look.Reading!, intake.Change);
        return await stores.Intakes.KeepCustomersAsync(
            intake.Id,
            list,
            look.Table.Sheet,
            emptyClears,
            await stores.Corrections.HoldingAsync(cancel),
            reading,
            clock.GetUtcNow(),
            cancel
        )
            ? list.Customers.Count
            : null;
    }

    private static ProblemException KeptAlready() => ProblemException.Conflict("This file was kept or undone already.");
}
