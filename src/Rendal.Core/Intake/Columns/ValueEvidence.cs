namespace Rendal.Core.Intake.Columns;

/// <summary>How much the values of a column say for a meaning; far below 0 where they are of another sort.</summary>
internal static class ValueEvidence
{
    private const int Few = 8;

    /// <summary>
    /// What they say: about 2 for values that are as they should be, 0 for nothing either way, below 0 against it. It is added to what the
    /// heading says.
    /// </summary>
    /// <param name="p">What the values look like; at least one.</param>
    /// <param name="meaning">The meaning.</param>
    /// <param name="isInOtherCurrency">Whether the heading names a currency that is not the file's.</param>
    public static double For(ColumnProfile p, ColumnMeaning meaning, bool isInOtherCurrency)
    {
        var few = p.Filled < Few;
        return meaning switch
        {
            ColumnMeaning.Date or ColumnMeaning.DueDate => p.IsDateLike ? 2 : Wrong(few),
            ColumnMeaning.Amount or ColumnMeaning.Outstanding or ColumnMeaning.Debit or ColumnMeaning.Credit => p.IsAmountLike
                ? (isInOtherCurrency ? -3 : 0)
                    + (p.DecimalShare > 0.2 ? 2 : 0.8)
                    + (p.BelowShare > 0 ? 0.3 : 0)
                    - (p.DecimalShare == 0 && p.DistinctShare > 0.95 ? 0.5 : 0)
                    - (p.DecimalShare == 0 && p.RunShare > 0.3 && p.DistinctShare < 0.6 ? 3 : 0)
                : Wrong(few),
            ColumnMeaning.Email => p.AddressShare >= 0.8 ? 6 : Wrong(few),
            ColumnMeaning.Currency => p.CurrencyShare >= 0.95 && p.Distinct <= 12 ? 5 : Wrong(few),
            ColumnMeaning.Kind => p.DateShare > 0.2 || p.AmountShare > 0.5 || p.Distinct > 12 || p.MeanLength > 30 ? Wrong(few)
            : p.KindShare >= 0.8 ? 3
            : p.LetterShare > 0.5 && (p.Distinct <= 8) ? 0.5
            : 0,
            ColumnMeaning.Number => p.DateShare > 0.5 || p.DecimalShare > 0.2 || p.BelowShare > 0.02 || p.AddressShare > 0.2 ? Wrong(few)
            : p.DistinctShare >= 0.9 && p.FigureShare >= 0.8 && p.MeanLength >= 3 && p.SpaceShare < 0.2 ? 2.5
            : p.DistinctShare >= 0.6 && p.FigureShare >= 0.6 ? 1
            : -1,
            ColumnMeaning.CustomerCode => p.DateShare > 0.5 || p.DecimalShare > 0.1 || p.BelowShare > 0.02 || p.AddressShare > 0.2
                ? Wrong(few)
            : p.SpaceShare > 0.5 ? -1
            : p.FigureShare >= 0.5 && p.DistinctShare < 0.8 ? 1.5
            : p.RunShare > 0.2 && p.Distinct > 1 ? 1
            : 0,
            ColumnMeaning.CustomerName => p.DateShare > 0.5 || p.AmountShare > 0.3 || p.AddressShare > 0.2 ? Wrong(few)
            : p.FigureShare > 0.9 && p.SpaceShare < 0.2 ? -2
            : p.LetterShare > 0.9 && p.SpaceShare > 0.4 && p.MeanLength >= 6 ? 2
            : p.LetterShare > 0.9 ? 0.5
            : -1,
            ColumnMeaning.Reference => p.DateShare > 0.5 || p.DecimalShare > 0.2 || p.AddressShare > 0.2 ? Wrong(few) : 0,
            ColumnMeaning.Unit => p.DateShare > 0.2 || p.DecimalShare > 0.2 || p.AddressShare > 0.2 || p.Distinct > 60 ? Wrong(few) : 0.5,
            ColumnMeaning.Held => p.DateShare > 0.5 || p.DecimalShare > 0.2 || p.AddressShare > 0.2 ? Wrong(few) : 0,
            _ => 0,
        };
    }

    // Of a few values some may be wrong.
    private static double Wrong(bool few) => few ? -3 : -6;
}
