using Rendal.Core.Intake;
using Rendal.Core.Intake.Columns;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Trials.Ledgers;

/// <summary>What came of reading a generated ledger without any help.</summary>
/// <param name="Ledger">The ledger.</param>
/// <param name="IsRight">Whether each customer's total and each item's number, date and due date came out.</param>
/// <param name="IsAsked">Whether it asked instead of reading.</param>
/// <param name="IsWrongAndSure">Whether a total is wrong though every column of amounts was taken as sure.</param>
/// <param name="What">What is wrong, in words.</param>
public sealed record LedgerTrial(GeneratedLedger Ledger, bool IsRight, bool IsAsked, bool IsWrongAndSure, string What)
{
    private static readonly ReadingSettings Settings = new(Currency.Of("GBP"));

    /// <summary>Whether none of the headings that the file needs stands whole in the lists of the program.</summary>
    public bool IsUnknown => Ledger.Headings.All(h => HeadingWords.Of(h) is null && !HeadingWords.IsCodeOrName(h));

    /// <summary>Reads one.</summary>
    /// <param name="seed">Which.</param>
    /// <param name="headings">The headings that it may have.</param>
    public static LedgerTrial Of(int seed, IReadOnlyList<TradeHeadings> headings)
    {
        var ledger = GeneratedLedger.Of(seed, headings);
        if (Recognition.Recognise(ledger.Table, Settings, ReadingChange.None) is not { } recognised)
        {
            return new(ledger, false, false, false, "no headings");
        }

        if (recognised.Reading.Lacks() is [var lack, ..])
        {
            return new(ledger, false, recognised.Reading.Question is not null, false, lack);
        }

        var reader = new LedgerReader(ledger.Table, recognised, Settings, _ => null, ReadingChange.None);
        var rows = reader.Rows().Select(r => r.Row).OfType<LedgerRow>().ToList();
        var totals = rows.GroupBy(r => r.Customer).ToDictionary(g => g.Key, g => g.Sum(r => r.Open));
        var truth = ledger.Items.GroupBy(i => ledger.HasCodes ? i.Customer : i.Name).ToDictionary(g => g.Key, g => g.Sum(i => i.Open));
        var isTotalRight = totals.Count == truth.Count && truth.All(t => totals.TryGetValue(t.Key, out var sum) && sum == t.Value);
        var areItemsRight = rows.Select(r => (r.Number, r.Date, Due: ledger.HasDue ? r.Due : default))
            .Order()
            .SequenceEqual(ledger.Items.Select(i => (i.Number, Date: (DateOnly?)i.Date, Due: ledger.HasDue ? i.Due : default)).Order());
        var areSure = recognised.Reading.Columns.Where(c => c.Meaning.IsAmount()).All(c => c.Confidence == Confidence.Sure);
        var isSumWrong = totals.Values.Sum() != truth.Values.Sum();
        return new(
            ledger,
            isTotalRight && areItemsRight,
            false,
            isSumWrong && areSure,
            string.Join(
                ", ",
                recognised.Reading.Columns.Where(c => c.Meaning != ColumnMeaning.Extra).Select(c => $"{c.Heading}={c.Meaning}")
            )
        );
    }
}
