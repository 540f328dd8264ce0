namespace Rendal.Core.Intake.Columns;

/// <summary>Finds out whether a file that was given as a ledger seems to be something else, after its columns were told.</summary>
/// <param name="names">The names of the columns.</param>
/// <param name="headings">What their headings say.</param>
/// <param name="profiles">What their values look like.</param>
/// <param name="meanings">What they were taken for.</param>
internal sealed class OtherListSearch(
    IReadOnlyList<string> names,
    HeadingEvidence headings,
    IReadOnlyList<ColumnProfile> profiles,
    IReadOnlyList<ColumnMeaning> meanings
)
{
    private const double Said = 3;

    private static readonly HeadingConcept[] OfCustomers =
    [
        HeadingConcept.Street,
        HeadingConcept.Town,
        HeadingConcept.Postcode,
        HeadingConcept.Phone,
        HeadingConcept.Contact,
        HeadingConcept.Email,
        HeadingConcept.Terms,
        HeadingConcept.Limit,
        HeadingConcept.Language,
        HeadingConcept.Office,
    ];

    /// <summary>What it seems to be; null where it may well be a ledger.</summary>
    public OtherList? Find() => AsBankStatement() ?? AsPriceList() ?? AsCustomerList();

    private IEnumerable<int> Columns() => Enumerable.Range(0, profiles.Count);

    private OtherList? AsBankStatement()
    {
        if (!meanings.Contains(ColumnMeaning.Date) || meanings.Contains(ColumnMeaning.DueDate) || IsNumberSaid())
        {
            return null;
        }

        var bank = FirstOf(HeadingConcept.Bank);
        if (bank >= 0)
        {
            return new(OtherListKind.BankStatement, $"“{names[bank]}” is a heading of bank statements, and no column has due dates");
        }

        var amounts = Columns().Where(i => meanings[i].IsAmount()).ToList();
        var isOfCustomers =
            IsSaidOf(HeadingConcept.Party) || IsSaidOf(HeadingConcept.Account) || meanings.Contains(ColumnMeaning.CustomerCode);
        var balance = isOfCustomers
            ? -1
            : Columns().FirstOrDefault(i => profiles[i].IsAmountLike && ColumnFits.IsRunningOf(profiles, i, amounts), -1);
        return balance < 0
            ? null
            : new(
                OtherListKind.BankStatement,
                $"“{names[balance]}” is a balance that runs on from row to row, and no column has due dates or says whose the rows are"
            );
    }

    private OtherList? AsPriceList()
    {
        var price = FirstOf(HeadingConcept.Price);
        var article = FirstOf(HeadingConcept.Article);
        return meanings.Contains(ColumnMeaning.DueDate) || meanings.Any(m => m.IsAmount()) || IsNumberSaid() ? null
            : price < 0 && article < 0 ? null
            : meanings.Contains(ColumnMeaning.CustomerCode) && IsSaidOf(HeadingConcept.Party) ? null
            : new(
                OtherListKind.PriceList,
                $"“{names[price >= 0 ? price : article]}” is a heading of price lists, and no column says what is owed"
            );
    }

    private OtherList? AsCustomerList()
    {
        if (meanings.Contains(ColumnMeaning.Date) || meanings.Contains(ColumnMeaning.DueDate) || IsNumberSaid())
        {
            return null;
        }

        var customers = Columns().FirstOrDefault(i => meanings[i] is ColumnMeaning.CustomerCode or ColumnMeaning.CustomerName, -1);
        var of = Columns().Where(i => OfCustomers.Any(c => headings.Weight(i, c) > 0)).ToList();
        return of.Count == 0 || (customers >= 0 && profiles[customers].DistinctShare < 0.95)
            ? null
            : new(
                OtherListKind.CustomerList,
                $"it has {string.Join(" and ", of.Take(2).Select(i => $"“{names[i]}”"))}, and no column has the dates of documents"
            );
    }

    /// <summary>The first column whose heading speaks of something; -1 where none does.</summary>
    private int FirstOf(HeadingConcept concept) => Columns().FirstOrDefault(i => headings.Weight(i, concept) >= 0.5, -1);

    private bool IsNumberSaid() => Columns().Any(i => headings.For(i, ColumnMeaning.Number) >= Said);

    private bool IsSaidOf(HeadingConcept concept) => Columns().Any(i => headings.Weight(i, concept) >= 0.9);
}
