using Rendal.Core.Intake.Columns;

namespace Rendal.Core.Intake;

/// <summary>How one column of a customer list is read, and why.</summary>
/// <param name="Index">The column from 0.</param>
/// <param name="Heading">The heading as it stands, made another where it stands twice.</param>
/// <param name="Field">What it is to the card.</param>
/// <param name="Reason">What decided it, in plain words.</param>
public sealed record CardColumn(int Index, string Heading, CardField Field, string Reason)
{
    /// <summary>How certain it is what the column is.</summary>
    public Confidence Confidence { get; init; }

    /// <summary>What else it could be, the likeliest first.</summary>
    public IReadOnlyList<CardField> Others { get; init; } = [];
}

/// <summary>The way to read one kind of customer list.</summary>
/// <param name="HeadingRow">The row of the headings, from 1; 0 where the list has none.</param>
/// <param name="Columns">All columns, from left to right.</param>
public sealed record CardReading(int HeadingRow, IReadOnlyList<CardColumn> Columns)
{
    /// <summary>Whether a column has this field.</summary>
    public bool Has(CardField field) => Columns.Any(c => c.Field == field);

    /// <summary>What keeps the list from being read, one sentence each; empty when nothing does.</summary>
    public IReadOnlyList<string> Lacks()
    {
        var lacks = new List<string>();
        if (!Has(CardField.Code) && !Has(CardField.Name))
        {
            lacks.Add("No column says whose the rows are: say which one is the customer code or the customer name.");
        }

        var twice = Columns.Where(c => !c.Field.MayStandOften()).GroupBy(c => c.Field).FirstOrDefault(g => g.Count() > 1);
        if (twice is not null)
        {
            lacks.Add(
                $"Two columns, “{twice.First().Heading}” and “{twice.Last().Heading}”, are said to be the same thing: one of "
                    + "them must be something else."
            );
        }

        return lacks;
    }

    /// <summary>
    /// Works out the reading: the heading row is the one that a person named, or the first among the first hundred that has a heading for
    /// the code or the name and at least one more that is known (with a code and one more column of any name it may be a list of extra
    /// columns), or else the one whose words say most. Each column gets its field by its heading and its values. Null where no row is like
    /// that and no column holds addresses for e-mail.
    /// </summary>
    public static CardReading? Of(LedgerTable table, ReadingChange change)
    {
        if (Heading(table, change.HeadingRow) is not { } row)
        {
            return null;
        }

        var names = Recognition.Names(row);
        var written = names.Select((_, index) => row[index].Text).ToList();
        var assigned = CardAssignment.Of(written, SampleRows.Of(table, row), change);
        return new CardReading(row.Number, [.. names.Select(Column)]);

        CardColumn Column(string name, int index)
        {
            if (change.Fields.TryGetValue(index, out var set))
            {
                return new CardColumn(index, name, set, change.DecidedBy(index));
            }

            var (field, confidence, reason) = assigned.Column(index);
            return new CardColumn(index, name, field, field == CardField.Extra ? "kept on the card" : reason)
            {
                Confidence = confidence,
                Others = assigned.Others(index),
            };
        }
    }

    private static FileRow? Heading(LedgerTable table, int? chosen)
    {
        if (chosen is { } number)
        {
            return number == 0
                ? HeadingSearch.None(table)
                : table
                    .Rows.TakeWhile(row => row.Number <= number)
                    .Where(row => row.Number == number)
                    .Select(row => (FileRow?)row)
                    .FirstOrDefault();
        }

        var first = table.Rows.TakeWhile(row => row.Number <= Recognition.RowsSearched).ToList();
        if (first.FindIndex(IsHeading) is var known and >= 0)
        {
            return first[known];
        }

        var said = first.ConvertAll(Said);
        return said.Count > 0 && said.Max() is var most and > 0 ? first[said.IndexOf(most)]
            : first.Count(r => r.Cells.Any(IsAddress)) * 2 > first.Count(r => !r.IsBlank) ? HeadingSearch.None(table)
            : null;
    }

    private static bool IsHeading(FileRow row)
    {
        var texts = row.Cells.Where(c => c.IsText).Select(c => CardWords.Of(c.Text)).ToList();
        return texts.Exists(f => f is CardField.Code or CardField.Name)
            && (texts.Count(f => f is not null) > 1 || (texts.Count > 1 && texts.Contains(CardField.Code)));
    }

    /// <summary>How many fields the words of a row say; 0 where they say fewer than two, or it has an address for e-mail itself.</summary>
    private static int Said(FileRow row)
    {
        if (row.Cells.Any(IsAddress))
        {
            return 0;
        }

        var fields = new CardEvidence([.. row.Cells.Where(c => c.IsText).Select(c => c.Text)], TaughtHeadings.None).Fields();
        return fields.Count >= 2 && fields.Any(f => f is CardField.Code or CardField.Name or CardField.Email) ? fields.Count : 0;
    }

    private static bool IsAddress(Cell cell) => cell.IsText && cell.Text.Contains('@', StringComparison.Ordinal);
}
