using Rendal.Core.Intake.Columns;

namespace Rendal.Core.Intake;

/// <summary>How much a row looks like the row of headings.</summary>
public static class HeadingScore
{
    /// <summary>
    /// How many different headings stand in the row that are known or whose words are understood, for a ledger or for a customer list,
    /// whichever is more.
    /// </summary>
    public static int Of(FileRow row) =>
        Math.Max(Math.Max(OfLedger(row), OfCustomerList(row)), new HeadingEvidence([.. Texts(row)], TaughtHeadings.None).Meanings().Count);

    /// <summary>How many different meanings of a ledger file the texts of the row are known headings for.</summary>
    public static int OfLedger(FileRow row) =>
        Texts(row)
            .Select(text => HeadingWords.IsCodeOrName(text) ? ColumnMeaning.CustomerName : HeadingWords.Of(text)?.Meaning)
            .Where(m => m is not null)
            .Distinct()
            .Count();

    /// <summary>How many different fields of a customer's card the texts of the row are known headings for.</summary>
    public static int OfCustomerList(FileRow row) => Texts(row).Select(CardWords.Of).Where(f => f is not null).Distinct().Count();

    private static IEnumerable<string> Texts(FileRow row) => row.Cells.Where(c => c.IsText).Select(c => c.Text);
}
