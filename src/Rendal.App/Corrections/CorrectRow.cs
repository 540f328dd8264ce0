using Rendal.App.Books;
using Rendal.App.Intake;
using Rendal.Core.Intake;
using Rendal.Store.Intake;

namespace Rendal.App.Corrections;

/// <summary>Puts something right in a ledger file that is looked at, over the source: the file stays what it is.</summary>
public sealed class CorrectRow(BookStores stores, OpenedFiles files, TimeProvider clock)
{
    /// <summary>Has another value hold in a cell, or wherever the same value stands in its column.</summary>
    /// <param name="intake">The intake.</param>
    /// <param name="row">The row, as a spreadsheet numbers it.</param>
    /// <param name="column">The column from 0.</param>
    /// <param name="becomes">What holds instead.</param>
    /// <param name="everywhere">Whether the same value is put right wherever it stands in the column.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The intake is not there or was kept, there is no such row or column, or an empty value is to be
    /// filled in everywhere.</exception>
    public async Task PutRightAsync(long intake, int row, int column, string becomes, bool everywhere, CancellationToken cancel)
    {
        var at = await RowAsync(intake, row, cancel);
        var of = at.Reading.Columns.FirstOrDefault(c => c.Index == column)
            ?? throw ProblemException.Invalid("Only values below a heading can be put right.");
        var was = at.Row[of.Index].Text;
        if (everywhere && was.Length == 0)
        {
            throw ProblemException.Invalid(
                $"Nothing is filled in here; to fill in every empty “{of.Heading}” would be a guess. Fill in the rows one by one."
            );
        }

        await AddAsync(
            at,
            everywhere
                ? new Correction
                {
                    Kind = CorrectionKind.Everywhere,
                    Column = of.Heading,
                    Was = was,
                    Becomes = Cell.Of(becomes).Text,
                }
                : at.PutRight(of, becomes),
            cancel
        );
    }

    /// <summary>Leaves a row out of the ledger. What the rows left out come to is told beside the sums of the file.</summary>
    /// <param name="intake">The intake.</param>
    /// <param name="row">The row, as a spreadsheet numbers it.</param>
    /// <param name="reason">Why; needed.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The intake is not there or was kept, there is no such row, or the reason is missing.</exception>
    public async Task LeaveOutAsync(long intake, int row, string reason, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(reason))
        {
            throw ProblemException.Invalid("Say why the row is left out; whoever looks at the figures later will ask.");
        }

        var at = await RowAsync(intake, row, cancel);
        await AddAsync(
            at,
            new Correction
            {
                Kind = CorrectionKind.RowLeftOut,
                Of = RowKey.Of(at.Row, at.Reading),
                Reason = reason.Trim(),
            },
            cancel
        );
    }

    private Task AddAsync(RowInFile at, Correction correction, CancellationToken cancel) =>
        stores.Corrections.AddAsync(correction, at.Source, stores.Person, clock.GetUtcNow(), cancel);

    private async Task<RowInFile> RowAsync(long id, int number, CancellationToken cancel)
    {
        var intake = await TheIntake.OfAsync(stores, id, cancel);
        if (intake.Kind != IntakeKind.Ledger || intake.State != "looked-at")
        {
            throw ProblemException.Conflict(
                "Values are corrected in a ledger file before it is kept. Take the file in again to correct something in it."
            );
        }

        return RowInFile.Open(stores, files, intake, number, cancel);
    }
}
