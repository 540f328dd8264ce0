using Rendal.App.Intake;
using Rendal.Core.Intake;

namespace Rendal.Web.Intake;

/// <summary>A row of the file as it stands.</summary>
/// <param name="Number">The row as a spreadsheet shows it.</param>
/// <param name="Role">What it is there for.</param>
/// <param name="Cells">The cells as they are displayed, before any correction.</param>
/// <param name="Values">What numbers are that are displayed otherwise, by column.</param>
/// <param name="Corrected">What holds instead in cells that were put right, by column.</param>
/// <param name="LeftOut">Why it was left out; null where it counts.</param>
internal sealed record FileRowView(
    int Number,
    RowRole Role,
    IReadOnlyList<string> Cells,
    IReadOnlyDictionary<int, string> Values,
    IReadOnlyDictionary<int, string> Corrected,
    string? LeftOut
)
{
    /// <summary>A row as it stands in the file.</summary>
    public static FileRowView Of(FileRowSeen r) =>
        new(
            r.Row.Number,
            r.Role,
            ShownText.Of(r.Row),
            Enumerable
                .Range(0, r.Row.Cells.Length)
                .Where(i => r.Row[i].Format is not null || r.Row[i].DisplayedAs is not null)
                .ToDictionary(i => i, i => r.Row[i].Text),
            r.Corrected.ToDictionary(c => c.Key, c => ShownText.Of(c.Value)),
            r.LeftOut
        );
}

/// <summary>A part of a file's rows.</summary>
internal sealed record FileRowsView(int LastRow, IReadOnlyList<FileRowView> Rows);
