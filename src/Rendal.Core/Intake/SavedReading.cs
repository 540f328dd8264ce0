using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>A reading kept as a file, by headings instead of positions, so that it fits the next export whatever its order of columns.</summary>
/// <param name="Columns">What columns are.</param>
public sealed record SavedReading(IReadOnlyList<SavedColumn> Columns)
{
    /// <summary>The decisions of this reading for a file with these columns.</summary>
    /// <param name="columns">The columns of the file at hand.</param>
    /// <param name="missing">The headings that the file does not have.</param>
    public ReadingChange For(IReadOnlyList<ColumnReading> columns, out IReadOnlyList<string> missing)
    {
        var found = Columns.Select(saved => (saved, column: columns.FirstOrDefault(c => c.Heading == saved.Heading))).ToList();
        missing = [.. found.Where(f => f.column is null).Select(f => f.saved.Heading)];
        var there = found.Where(f => f.column is not null).ToList();
        return new ReadingChange
        {
            // What the saved reading does not name stays a column for slots.
            Meanings = columns.ToDictionary(c => c.Index, c => there.Where(f => f.column!.Index == c.Index).Select(f => f.saved.Meaning).FirstOrDefault(ColumnMeaning.Extra)),
            Marks = there.Where(f => f.saved.Mark is not null).ToDictionary(f => f.column!.Index, f => f.saved.Mark!.Value),
            Orders = there.Where(f => f.saved.Order is not null).ToDictionary(f => f.column!.Index, f => f.saved.Order!.Value),
        };
    }
}

/// <summary>One column of a saved reading.</summary>
/// <param name="Heading">The heading as it stands.</param>
/// <param name="Meaning">What it is.</param>
/// <param name="Mark">The decimal mark; null to find it out.</param>
/// <param name="Order">The date order; null to find it out.</param>
public sealed record SavedColumn(string Heading, ColumnMeaning Meaning, DecimalMark? Mark = null, DateOrder? Order = null);
