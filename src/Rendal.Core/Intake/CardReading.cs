namespace Rendal.Core.Intake;

/// <summary>How one column of a customer list is read, and why.</summary>
/// <param name="Index">The column from 0.</param>
/// <param name="Heading">The heading as it stands, made another where it stands twice.</param>
/// <param name="Field">What it is to the card.</param>
/// <param name="Reason">What decided it, in plain words.</param>
public sealed record CardColumn(int Index, string Heading, CardField Field, string Reason);

/// <summary>The way to read one kind of customer list.</summary>
/// <param name="HeadingRow">The row of the headings, from 1.</param>
/// <param name="Columns">All columns, from left to right.</param>
public sealed record CardReading(int HeadingRow, IReadOnlyList<CardColumn> Columns)
{
    private static readonly CardField[] MayStandOften =
    [
        CardField.Extra,
        CardField.Address,
        CardField.Email,
        CardField.CopyEmail,
        CardField.BlindCopyEmail,
    ];

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

        var twice = Columns.Where(c => !MayStandOften.Contains(c.Field)).GroupBy(c => c.Field).FirstOrDefault(g => g.Count() > 1);
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
    /// Works out the reading: the heading row is the first among the first hundred that has a heading for the code or the name and at
    /// least one more that is known, or else the one that a person named; with a code and one more column of any name it may be a list of
    /// extra columns. Null where no row is like that.
    /// </summary>
    public static CardReading? Of(LedgerTable table, ReadingChange change)
    {
        var heading = change.HeadingRow is { } chosen
            ? table.Rows.Where(row => row.Number == chosen).Select(row => (FileRow?)row).FirstOrDefault()
            : table
                .Rows.TakeWhile(row => row.Number <= Recognition.RowsSearched)
                .Where(IsHeading)
                .Select(row => (FileRow?)row)
                .FirstOrDefault();
        if (heading is not { } row)
        {
            return null;
        }

        var fields = WithCode([.. row.Cells.Select(c => CardWords.Of(c.Text) ?? CardField.Extra)]);
        return new CardReading(
            row.Number,
            [
                .. Recognition
                    .Names(row)
                    .Select(
                        (name, index) =>
                            change.Fields.TryGetValue(index, out var set)
                                ? new CardColumn(index, name, set, change.DecidedBy(index))
                                : new CardColumn(
                                    index,
                                    name,
                                    fields[index],
                                    fields[index] == CardField.Extra ? "kept on the card" : "by heading"
                                )
                    ),
            ]
        );
    }

    private static bool IsHeading(FileRow row)
    {
        var texts = row.Cells.Where(c => c.IsText).Select(c => CardWords.Of(c.Text)).ToList();
        return texts.Exists(f => f is CardField.Code or CardField.Name)
            && (texts.Count(f => f is not null) > 1 || (texts.Count > 1 && texts.Contains(CardField.Code)));
    }

    /// <summary>
    /// Where two headings are for the name, as in <c>Customer, Name</c>, the first is the code; of what stands twice otherwise the first
    /// counts.
    /// </summary>
    private static CardField[] WithCode(CardField[] fields)
    {
        if (!fields.Contains(CardField.Code) && fields.Count(f => f == CardField.Name) > 1)
        {
            fields[Array.IndexOf(fields, CardField.Name)] = CardField.Code;
        }

        for (var i = 0; i < fields.Length; i++)
        {
            if (!MayStandOften.Contains(fields[i]) && Array.IndexOf(fields, fields[i]) < i)
            {
                fields[i] = CardField.Extra;
            }
        }

        return fields;
    }
}
