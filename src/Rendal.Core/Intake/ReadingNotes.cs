using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>Counts the rows that are read by more than what stands in them, and tells of them once for the whole file.</summary>
internal sealed class ReadingNotes
{
    private int moved;
    private int firstMoved;
    private int dueDates;
    private int carried;

    /// <summary>Counts a row whose cells stand in the order of other headings than the first ones.</summary>
    /// <param name="row">Its number.</param>
    public void CountMoved(int row)
    {
        firstMoved = moved == 0 ? row : firstMoved;
        moved++;
    }

    /// <summary>Counts a row whose due date was worked out from its date and the terms.</summary>
    public void CountDueDate() => dueDates++;

    /// <summary>Counts a row that was taken to belong to the customer above it.</summary>
    public void CountCarried() => carried++;

    /// <summary>What there is to say of them, a note for each kind that there is.</summary>
    /// <param name="file">Where they stand.</param>
    /// <param name="dueHeading">The heading of the column of due dates; null where the file has none.</param>
    public IEnumerable<Finding> Findings(SourceRef file, string? dueHeading)
    {
        if (moved > 0)
        {
            yield return Note(
                FindingCodes.ColumnsMoved,
                file with
                {
                    Row = firstMoved,
                },
                null,
                $"From row {firstMoved} on the headings stand in another order; {(moved == 1 ? "one row was" : $"{moved} rows were")} "
                    + "read by the headings above them, and are shown under the first ones."
            );
        }

        if (dueDates > 0)
        {
            yield return Note(
                FindingCodes.DueDateDerived,
                file,
                dueHeading,
                dueDates == 1
                    ? "The due date of one row was worked out from its document date and the terms."
                    : $"The due dates of {dueDates} rows were worked out from their document dates and the terms."
            );
        }

        if (carried > 0)
        {
            yield return Note(
                FindingCodes.CustomerCarriedDown,
                file,
                null,
                carried == 1
                    ? "One row names no customer and was taken to belong to the one named above it."
                    : $"{carried} rows name no customer and were taken to belong to the one named above them."
            );
        }
    }

    private static Finding Note(string code, SourceRef source, string? column, string message) =>
        new(code, Severity.Note, source, column, null, message, "");
}
