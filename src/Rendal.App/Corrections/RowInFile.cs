using Rendal.App.Books;
using Rendal.App.Intake;
using Rendal.App.Progress;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Files;
using Rendal.Store.Intake;

namespace Rendal.App.Corrections;

/// <summary>A row of a ledger file as the file says it, with the reading of the file.</summary>
/// <param name="Table">The file.</param>
/// <param name="Reading">What its columns are.</param>
/// <param name="Row">The row.</param>
internal sealed record RowInFile(LedgerTable Table, Reading Reading, FileRow Row)
{
    /// <summary>Where it stands.</summary>
    public SourceRef Source => new(Table.File, Table.Sheet, Row.Number);

    /// <summary>Opens the file of an intake at a row.</summary>
    /// <exception cref="ProblemException">There is no such row below the headings.</exception>
    public static RowInFile Open(BookStores stores, OpenedFiles files, IntakeRecord intake, int number, CancellationToken cancel)
    {
        var table = files.Open(stores, intake, intake.Change.Opening, new ProgressMeter(), cancel);
        var reading = Recognition.Outline(table, intake.Change)
            ?? throw ProblemException.Invalid("No row of headings was found. Say which row has them.");
        var row = ((RowSpool)table.Rows).From(number).FirstOrDefault();
        return row.Number == number && number > reading.HeadingRow
            ? new RowInFile(table, reading, row)
            : throw ProblemException.Invalid($"There is nothing in row {number} that could be put right.");
    }

    /// <summary>The correction that has another value hold in one of its cells.</summary>
    /// <param name="column">The column.</param>
    /// <param name="becomes">What holds instead.</param>
    public Correction PutRight(ColumnReading column, string becomes) =>
        new()
        {
            Kind = CorrectionKind.Cell,
            Column = column.Heading,
            Of = RowKey.Of(Row, Reading),
            Was = Row[column.Index].Text,
            Becomes = Cell.Of(becomes).Text,
        };
}
