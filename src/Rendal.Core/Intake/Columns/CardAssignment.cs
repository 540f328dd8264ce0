namespace Rendal.Core.Intake.Columns;

/// <summary>
/// Finds what the columns of a customer list are, by their headings and, for what they are known by and for e-mail, by their values; the
/// assignment that is best as a whole.
/// </summary>
internal sealed class CardAssignment
{
    // What an abbreviation says, and what the values of a key say.
    private const double Enough = 2.5;
    private const double EnoughForKey = 1.5;

    private readonly CardEvidence headings;
    private readonly ColumnProfile[] profiles;
    private readonly CardField[] fields;
    private readonly bool[] isLikely;
    private readonly string[] reasons;

    private CardAssignment(IReadOnlyList<string> written, SampleRows sample, ReadingChange change)
    {
        var width = Math.Min(written.Count, sample.Width);
        headings = new CardEvidence(written, change.Taught);
        profiles = [.. Enumerable.Range(0, width).Select(i => ColumnProfile.Of(sample.Items, i, Recognition.Neutral))];
        fields = new CardField[width];
        isLikely = new bool[width];
        reasons = [.. fields.Select(_ => "")];
        foreach (var (index, field) in change.Fields.Where(d => d.Key < width))
        {
            fields[index] = field;
        }

        FindAll(change.Fields);
    }

    /// <summary>
    /// Works out what each column of a customer list is, from its heading and its values; what a person said is not doubted.
    /// </summary>
    /// <param name="written">The headings as they are written; empty where there is none.</param>
    /// <param name="sample">The first rows.</param>
    /// <param name="change">What a person said.</param>
    public static CardAssignment Of(IReadOnlyList<string> written, SampleRows sample, ReadingChange change) =>
        new(written, sample, change);

    /// <summary>What a column is, how certain that is, and why; extra where it is nothing to the card.</summary>
    public (CardField Field, Confidence Confidence, string Reason) Column(int index) =>
        index >= fields.Length
            ? (CardField.Extra, Confidence.Sure, "")
            : (fields[index], isLikely[index] ? Confidence.Likely : Confidence.Sure, reasons[index]);

    /// <summary>What else a column could be, the likeliest first.</summary>
    public IReadOnlyList<CardField> Others(int index) =>
        index >= fields.Length
            ? []
            :
            [
                .. Enum.GetValues<CardField>()
                    .Where(f => f != CardField.Extra && f != fields[index])
                    .Select(f => (Field: f, Score: Score(index, f)))
                    .Where(f => f.Score >= 1)
                    .OrderByDescending(f => f.Score)
                    .Take(3)
                    .Select(f => f.Field),
            ];

    /// <summary>The best pair of column and field first, until none is good enough; of a field that may stand once, one column.</summary>
    private void FindAll(IReadOnlyDictionary<int, CardField> decided)
    {
        var pairs = Enumerable
            .Range(0, fields.Length)
            .Where(i => !decided.ContainsKey(i))
            .SelectMany(i => Enum.GetValues<CardField>().Where(f => f != CardField.Extra).Select(f => (Index: i, Field: f)))
            .Select(p => (p.Index, p.Field, Score: Score(p.Index, p.Field)))
            .Where(p => p.Score >= (p.Field is CardField.Code or CardField.Name ? EnoughForKey : Enough))
            .OrderByDescending(p => p.Score)
            .ThenBy(p => p.Index)
            .ToList();
        foreach (var (index, field, score) in pairs)
        {
            if (fields[index] == CardField.Extra && (field.MayStandOften() || !fields.Contains(field)) && IsSaidOrAlone(index, field))
            {
                fields[index] = field;
                isLikely[index] = score < CardEvidence.Said && !headings.IsPhrase(index);
                reasons[index] =
                    headings.IsTaught(index) ? HeadingEvidence.AsTaught
                    : headings.For(index, field) >= 1.5 ? "by heading"
                    : "by its values";
            }
        }
    }

    /// <summary>
    /// By values alone a column is only what customers are known by where no heading speaks of that, and its own of nothing else.
    /// </summary>
    private bool IsSaidOrAlone(int index, CardField field) =>
        field is not (CardField.Code or CardField.Name)
        || headings.For(index, field) >= 1
        || (!headings.IsForeign(index) && !Enumerable.Range(0, fields.Length).Any(IsKeySaid));

    private bool IsKeySaid(int index) => fields[index] is CardField.Code or CardField.Name && headings.For(index, fields[index]) >= 1;

    private double Score(int index, CardField field) => headings.For(index, field) + Values(profiles[index], field);

    private static double Values(ColumnProfile p, CardField field)
    {
        if (p.Filled == 0)
        {
            return 0;
        }

        var isKey = p.DistinctShare >= 0.98 && p.AddressShare < 0.2 && p.DateShare < 0.5 && p.DecimalShare < 0.1;
        return field switch
        {
            CardField.Email => p.AddressShare >= 0.5 ? 4 : 0,
            CardField.CopyEmail or CardField.BlindCopyEmail => p.AddressShare >= 0.5 ? 1 : 0,
            CardField.Code => isKey && p.SpaceShare < 0.2 && p.FigureShare >= 0.5 && p.MeanLength <= 16 ? 1.5
            : p.AddressShare > 0.2 || p.DecimalShare > 0.2 || p.SpaceShare > 0.6 ? -2
            : 0,
            CardField.Name => isKey && p.LetterShare > 0.9 && p.SpaceShare > 0.4 ? 1.8
            : p.AddressShare > 0.2 || p.AmountShare > 0.5 || p.DateShare > 0.5 ? -4
            : 0,
            _ => p.AddressShare >= 0.5 ? -4 : 0,
        };
    }
}
