using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.Core.Intake;
using Rendal.Files;
using Rendal.Store.Intake;

namespace Rendal.App.Intake;

/// <summary>A row of a file as it stands.</summary>
/// <param name="Row">It, before any correction; without cells where the file has none in it.</param>
/// <param name="Role">What it is there for.</param>
/// <param name="Corrected">What holds instead in cells that were put right, by column.</param>
/// <param name="LeftOut">Why it was left out; null where it counts.</param>
public sealed record FileRowSeen(FileRow Row, RowRole Role, IReadOnlyDictionary<int, string> Corrected, string? LeftOut);

/// <summary>The rows of a file that is looked at or was kept, part by part.</summary>
public sealed class FileRows(BookStores stores, OpenedFiles files)
{
    private static readonly Dictionary<int, string> NoCorrections = [];

    /// <summary>A part of them, without going through all of the file.</summary>
    /// <param name="id">The intake.</param>
    /// <param name="from">The first row, as a spreadsheet numbers it.</param>
    /// <param name="most">How many at most.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">There is no intake of this number.</exception>
    public async Task<(int LastRow, IReadOnlyList<FileRowSeen> Rows)> PartAsync(long id, int from, int most, CancellationToken cancel)
    {
        var intake = await TheIntake.OfAsync(stores, id, cancel);
        var table = files.Open(stores, intake, intake.Change.Opening, new ProgressMeter(), cancel);
        var spool = (RowSpool)table.Rows;
        var first = Math.Clamp(from, 1, spool.LastRow + 1);
        var wanted = Enumerable.Range(first, Math.Min(most, spool.LastRow + 1 - first)).ToList();
        var rows = spool.From(first).TakeWhile(r => r.Number < first + wanted.Count).ToDictionary(r => r.Number);
        var see = await SeenAsync(intake, table, cancel);
        return (
            spool.LastRow,
            [
                .. wanted.Select(n =>
                    rows.TryGetValue(n, out var row) ? see(row) : new FileRowSeen(new FileRow(n, []), RowRole.Blank, NoCorrections, null)
                ),
            ]
        );
    }

    private async Task<Func<FileRow, FileRowSeen>> SeenAsync(IntakeRecord intake, LedgerTable table, CancellationToken cancel)
    {
        if (intake.Kind == IntakeKind.Customers)
        {
            var heading = files.CardOutline(table, intake.Change)?.HeadingRow;
            return row => new FileRowSeen(
                row,
                heading is null || row.Number < heading ? RowRole.Above
                    : row.Number == heading ? RowRole.Heading
                    : row.IsBlank ? RowRole.Blank
                    : RowRole.Item,
                NoCorrections,
                null
            );
        }

        if (files.Outline(table, intake.Change) is not { } reading)
        {
            return row => new FileRowSeen(row, RowRole.Above, NoCorrections, null);
        }

        var roles = new RowRoles(reading with { CarriesDown = intake.CarriesDown });
        var corrections = new AppliedCorrections(reading, await stores.Corrections.HoldingAsync(cancel));
        return row =>
        {
            var (corrected, leftOut) = row.Number > reading.HeadingRow ? corrections.Correct(row) : (row, null);
            var changes = Enumerable
                .Range(0, corrected.Cells.Length)
                .Where(i => corrected[i].Text != row[i].Text)
                .ToDictionary(i => i, i => corrected[i].Text);
            return new FileRowSeen(row, roles.Of(corrected), changes, leftOut);
        };
    }
}
