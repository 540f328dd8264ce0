using Rendal.Core.Intake.Columns;

namespace Rendal.Core.Intake;

/// <summary>
/// The way to read one kind of ledger file: where the headings are, what each column is, the decimal mark and the
/// order of dates. Worked out by <see cref="Recognition"/>, changed by a person, remembered for the next file.
/// </summary>
/// <param name="HeadingRow">The row of the headings, from 1; 0 where the file has none.</param>
/// <param name="Columns">All columns, from left to right.</param>
public sealed record Reading(int HeadingRow, IReadOnlyList<ColumnReading> Columns)
{
    /// <summary>Whether rows that name no customer belong to the one that was named last above them.</summary>
    public bool CarriesDown { get; init; }

    /// <summary>Why customers are carried down, or are not, in plain words; empty where the question does not come up.</summary>
    public string CarryReason { get; init; } = "";

    /// <summary>Which of two columns is the amount, where that has to be asked; null where it is plain.</summary>
    public AmountQuestion? Question { get; init; }

    /// <summary>What the file seems to be instead of a ledger; null where it may well be one.</summary>
    public OtherList? SeemsToBe { get; init; }

    /// <summary>Words for kinds that this file uses beside the known ones.</summary>
    public IReadOnlyDictionary<string, Ledger.ItemKind> Kinds { get; init; } = new Dictionary<string, Ledger.ItemKind>();

    /// <summary>Whether the file gives what is outstanding, rather than full amounts that are still to be settled.</summary>
    public bool HasOutstanding => Has(ColumnMeaning.Outstanding);

    /// <summary>Whether a column has this meaning.</summary>
    public bool Has(ColumnMeaning meaning) => Columns.Any(c => c.Meaning == meaning);

    /// <summary>The column of a meaning; null where there is none. A meaning other than extra stands at most once.</summary>
    public ColumnReading? Of(ColumnMeaning meaning) => Columns.FirstOrDefault(c => c.Meaning == meaning);

    /// <summary>What is asked, as it stands among what the reading lacks.</summary>
    public string Says(AmountQuestion question) =>
        $"“{Columns[question.Taken.Index].Heading}” and “{Columns[question.Other.Index].Heading}” could both be "
        + $"{(question.Meaning == ColumnMeaning.Outstanding ? "the outstanding amount" : "the amount")}: say which one is.";

    /// <summary>
    /// What keeps rows from being read this way, one sentence each; empty when nothing does. Needed are a
    /// customer code or name, and an outstanding amount, an amount, or debit and credit.
    /// </summary>
    public IReadOnlyList<string> Lacks()
    {
        var lacks = Missing();
        if (SeemsToBe is { } other && lacks.Count > 0)
        {
            lacks.Insert(0, other.Says);
        }

        return lacks;
    }

    private List<string> Missing()
    {
        var lacks = new List<string>();
        if (!Has(ColumnMeaning.CustomerCode) && !Has(ColumnMeaning.CustomerName) && !CarriesDown)
        {
            lacks.Add(
                "No column says whose the rows are: say which one is the customer code or the customer name, or that it "
                    + "stands above its rows."
            );
        }

        if (!Has(ColumnMeaning.Outstanding) && !Has(ColumnMeaning.Amount) && !(Has(ColumnMeaning.Debit) && Has(ColumnMeaning.Credit)))
        {
            lacks.Add("No column has the amounts: say which one is the outstanding amount, the amount, or debit and credit.");
        }

        if (!Has(ColumnMeaning.Date) && !Has(ColumnMeaning.DueDate))
        {
            lacks.Add("No column has a date: say which one is the document date or the due date.");
        }

        if (Question is { } question)
        {
            lacks.Add(Says(question));
        }

        var twice = Columns.Where(c => c.Meaning != ColumnMeaning.Extra).GroupBy(c => c.Meaning).FirstOrDefault(g => g.Count() > 1);
        if (twice is not null)
        {
            lacks.Add(
                $"Two columns, “{twice.First().Heading}” and “{twice.Last().Heading}”, are said to be the same thing: one of "
                    + "them must be something else."
            );
        }

        return lacks;
    }
}
