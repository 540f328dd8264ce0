using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>
/// A reading kept as a file, by headings instead of positions, so that it fits the next export whatever its order of columns.
/// </summary>
/// <param name="Columns">What columns are.</param>
public sealed record SavedReading(IReadOnlyList<SavedColumn> Columns)
{
    /// <summary>The sheet, where a person chose one; null to find it out.</summary>
    public string? Sheet { get; init; }

    /// <summary>The delimiter of a text file, where a person chose one.</summary>
    public char? Delimiter { get; init; }

    /// <summary>The encoding of a text file, where a person chose one.</summary>
    public string? Encoding { get; init; }

    /// <summary>Whether customers are carried down, where a person said so.</summary>
    public bool? CarriesDown { get; init; }

    /// <summary>Words for kinds that are not among the known ones.</summary>
    public IReadOnlyDictionary<string, ItemKind> Kinds { get; init; } = new Dictionary<string, ItemKind>();

    /// <summary>How the file is to be opened.</summary>
    public FileOpening Opening => new(Sheet, Delimiter, Encoding);

    /// <summary>
    /// The reading of a file, to be kept. What the columns are is kept whole; marks, orders, signs and the way of opening only as far as a
    /// person chose them, so that the next file is still asked.
    /// </summary>
    public static SavedReading Of(Reading reading, ReadingChange change) =>
        new([
            .. reading
                .Columns.Where(c => c.Meaning != ColumnMeaning.Extra || change.Meanings.ContainsKey(c.Index))
                .Select(c => new SavedColumn(
                    c.Heading,
                    c.Meaning,
                    change.Marks.TryGetValue(c.Index, out var mark) ? mark : null,
                    change.Orders.TryGetValue(c.Index, out var order) ? order : null,
                    change.UnsignedCredits.TryGetValue(c.Index, out var unsigned) ? unsigned : null,
                    IsSaid: c.Written.Length > 0 && change.IsSaid(c.Index, change.Meanings.ContainsKey(c.Index))
                )),
        ])
        {
            Sheet = change.Opening.Sheet,
            Delimiter = change.Opening.Delimiter,
            Encoding = change.Opening.Encoding,
            CarriesDown = change.CarriesDown,
            Kinds = change.Kinds,
        };

    /// <summary>The reading of a customer list, to be kept.</summary>
    public static SavedReading Of(CardReading reading, ReadingChange change) =>
        new([
            .. reading
                .Columns.Where(c => c.Field != CardField.Extra || change.Fields.ContainsKey(c.Index))
                .Select(c => new SavedColumn(
                    c.Heading,
                    ColumnMeaning.Extra,
                    Field: c.Field,
                    IsSaid: reading.HeadingRow > 0 && change.IsSaid(c.Index, change.Fields.ContainsKey(c.Index))
                )),
        ])
        {
            Sheet = change.Opening.Sheet,
            Delimiter = change.Opening.Delimiter,
            Encoding = change.Opening.Encoding,
        };

    /// <summary>Whether this reading is of a file like this one: a row among the first hundred has all of its headings.</summary>
    public bool Fits(LedgerTable table) => Row(table) is not null;

    /// <summary>
    /// The decisions of this reading for a file: the first row among the first hundred that has all of its headings is the heading row, or
    /// else the one that recognition finds. Nothing is decided where there is neither.
    /// </summary>
    /// <param name="table">The file at hand.</param>
    /// <param name="missing">The headings that the file does not have.</param>
    public ReadingChange For(LedgerTable table, out IReadOnlyList<string> missing)
    {
        var (number, headings) = Row(table) ?? (null, Recognition.Headings(table, null) ?? []);
        var change = For(headings, out missing);
        return change with { HeadingRow = number };
    }

    private (int? Number, IReadOnlyList<string> Headings)? Row(LedgerTable table)
    {
        foreach (var row in table.Rows.TakeWhile(r => r.Number <= Recognition.RowsSearched).Where(r => r.Cells.Length >= Columns.Count))
        {
            var names = Recognition.Names(row);
            if (Columns.Count > 0 && Columns.All(c => names.Contains(c.Heading)))
            {
                return (row.Number, names);
            }
        }

        return null;
    }

    private ReadingChange For(IReadOnlyList<string> headings, out IReadOnlyList<string> missing)
    {
        if (headings.Count == 0)
        {
            missing = [];
            return new ReadingChange { Opening = Opening };
        }

        var index = headings.Select((heading, i) => (heading, i)).ToDictionary(h => h.heading, h => h.i, StringComparer.Ordinal);
        missing = [.. Columns.Select(c => c.Heading).Where(h => !index.ContainsKey(h))];
        var there = Columns
            .Where(c => index.ContainsKey(c.Heading))
            .Select(c => (Column: c, At: index[c.Heading]))
            .DistinctBy(c => c.At)
            .ToDictionary(c => c.At, c => c.Column);
        return new ReadingChange
        {
            Opening = Opening,
            Remembered = [.. index.Values],
            SaidBefore = [.. there.Where(c => c.Value.IsSaid).Select(c => c.Key)],

            // What the saved reading does not name stays a column for slots.
            Meanings = index.Values.ToDictionary(i => i, i => there.TryGetValue(i, out var c) ? c.Meaning : ColumnMeaning.Extra),
            Fields = index.Values.ToDictionary(i => i, i => there.TryGetValue(i, out var c) ? c.Field : CardField.Extra),
            Marks = there.Where(c => c.Value.Mark is not null).ToDictionary(c => c.Key, c => c.Value.Mark!.Value),
            Orders = there.Where(c => c.Value.Order is not null).ToDictionary(c => c.Key, c => c.Value.Order!.Value),
            UnsignedCredits = there
                .Where(c => c.Value.UnsignedCredits is not null)
                .ToDictionary(c => c.Key, c => c.Value.UnsignedCredits!.Value),
            CarriesDown = CarriesDown,
            Kinds = Kinds,
        };
    }
}

/// <summary>One column of a saved reading.</summary>
/// <param name="Heading">The heading as it stands.</param>
/// <param name="Meaning">What it is to a ledger.</param>
/// <param name="Mark">The decimal mark; null to find it out.</param>
/// <param name="Order">The date order; null to find it out.</param>
/// <param name="UnsignedCredits">Whether credits stand without a sign; null to find it out.</param>
/// <param name="Field">What it is to the card, for a customer list.</param>
/// <param name="IsSaid">Whether a person said so, rather than that it was found out.</param>
public sealed record SavedColumn(
    string Heading,
    ColumnMeaning Meaning = ColumnMeaning.Extra,
    DecimalMark? Mark = null,
    DateOrder? Order = null,
    bool? UnsignedCredits = null,
    CardField Field = CardField.Extra,
    bool IsSaid = false
);
