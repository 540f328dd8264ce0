namespace Rendal.Core.Intake.Columns;

/// <summary>
/// What the columns of a ledger are so far, what speaks for each to be something, and what of that was taken. Those who look for meanings
/// take them one after another.
/// </summary>
internal sealed class TakenColumns
{
    /// <summary>What speaks so much for a meaning is enough for it.</summary>
    public const double Enough = 2;

    /// <summary>What speaks so much for a meaning leaves no doubt.</summary>
    public const double Certain = 3;

    // Of so many candidates for one meaning, pairs are tried.
    private const int MostTried = 8;

    private readonly Lazy<bool>[] isInOtherCurrency;
    private readonly double?[,] values;
    private readonly List<string>[] reasons;
    private readonly bool[] isLikely;

    /// <summary>Takes what a person said, and nothing else.</summary>
    /// <param name="names">The names of the columns, each another.</param>
    /// <param name="headings">What their headings say.</param>
    /// <param name="sample">The first rows.</param>
    /// <param name="settings">What holds where the file does not say.</param>
    /// <param name="decided">What a person said that columns are, by their index.</param>
    public TakenColumns(
        IReadOnlyList<string> names,
        HeadingEvidence headings,
        SampleRows sample,
        ReadingSettings settings,
        IReadOnlyDictionary<int, ColumnMeaning> decided
    )
    {
        (Names, Headings, Decided) = (names, headings, decided);
        Profiles = [.. Enumerable.Range(0, names.Count).Select(i => ColumnProfile.Of(sample.Items, i, settings))];
        isInOtherCurrency = [.. Enumerable.Range(0, names.Count).Select(i => new Lazy<bool>(() => NamesOtherCurrency(i)))];
        values = new double?[names.Count, Enum.GetValues<ColumnMeaning>().Length];
        Meanings = new ColumnMeaning[names.Count];
        isLikely = new bool[names.Count];
        reasons = [.. names.Select(_ => new List<string>())];
        foreach (var (index, meaning) in decided.Where(d => d.Key < names.Count))
        {
            Meanings[index] = meaning;
        }
    }

    /// <summary>The names of the columns.</summary>
    public IReadOnlyList<string> Names { get; }

    /// <summary>What their headings say.</summary>
    public HeadingEvidence Headings { get; }

    /// <summary>What their values look like.</summary>
    public ColumnProfile[] Profiles { get; }

    /// <summary>What they are so far; <see cref="ColumnMeaning.Extra"/> for one that is nothing yet.</summary>
    public ColumnMeaning[] Meanings { get; }

    /// <summary>What a person said that columns are, by their index.</summary>
    public IReadOnlyDictionary<int, ColumnMeaning> Decided { get; }

    /// <summary>Whether what a column was taken for is likely and not sure.</summary>
    public bool IsLikely(int index) => isLikely[index];

    /// <summary>Has what a column was taken for be likely and not sure, whatever speaks for it.</summary>
    public void Doubt(int index) => isLikely[index] = true;

    /// <summary>Why a column was taken for what it is, in plain words; empty where a person said it.</summary>
    public string Reason(int index) => string.Join("; ", reasons[index].Where(r => r.Length > 0).Distinct());

    /// <summary>What else a column could be, the likeliest first, three at most.</summary>
    public IReadOnlyList<OtherMeaning> Others(int index) =>
        [
            .. Enum.GetValues<ColumnMeaning>()
                .Where(m => m != ColumnMeaning.Extra && m != Meanings[index])
                .Select(m => (Meaning: m, Score: Score(index, m)))
                .Where(m => m.Score >= 1)
                .OrderByDescending(m => m.Score)
                .Take(3)
                .Select(m => new OtherMeaning(m.Meaning, Profiles[index].First(m.Meaning))),
        ];

    /// <summary>Whether a column is nothing yet, and nobody said what it is.</summary>
    public bool IsFree(int index) => Meanings[index] == ColumnMeaning.Extra && !Decided.ContainsKey(index);

    /// <summary>Whether a column has a meaning already.</summary>
    public bool IsTaken(ColumnMeaning meaning) => Meanings.Contains(meaning);

    /// <summary>Has a column be something from now on.</summary>
    /// <param name="index">The column.</param>
    /// <param name="meaning">What it is.</param>
    /// <param name="score">How much speaks for it; below <see cref="Certain"/> it is likely and not sure, unless its heading stands in the
    /// lists as a whole.</param>
    /// <param name="why">What speaks for it beside heading and values; empty texts are left away.</param>
    public void Take(int index, ColumnMeaning meaning, double score, params string[] why)
    {
        Meanings[index] = meaning;
        isLikely[index] = score < Certain && !Headings.IsPhrase(index, meaning);
        var heading = Headings.For(index, meaning);
        reasons[index]
            .Add(
                Headings.IsTaught(index) ? HeadingEvidence.AsTaught
                : heading >= 1.5 ? "by heading"
                : "by its values"
            );
        reasons[index].AddRange(why);
    }

    /// <summary>How much the heading and the values of a column say for a meaning together.</summary>
    public double Score(int index, ColumnMeaning meaning) => Headings.For(index, meaning) + Values(index, meaning);

    /// <summary>The columns that are free and could be of a meaning, the best first, and not more than are tried in pairs.</summary>
    public List<(int Index, double Score)> Candidates(ColumnMeaning meaning, double least) =>
        [
            .. Enumerable
                .Range(0, Profiles.Length)
                .Where(IsFree)
                .Select(i => (Index: i, Score: Score(i, meaning)))
                .Where(c => c.Score >= least)
                .OrderByDescending(c => c.Score)
                .ThenBy(c => c.Index)
                .Take(MostTried),
        ];

    /// <summary>
    /// How much the values of a column say for a meaning. What stands whole in the lists is not given up for a few odd values.
    /// </summary>
    private double Values(int index, ColumnMeaning meaning) => values[index, (int)meaning] ??= Weighed(index, meaning);

    private double Weighed(int index, ColumnMeaning meaning)
    {
        var found = Typed(index, meaning);
        return Headings.IsPhrase(index, meaning) ? Math.Max(found, Profiles[index].Filled < 8 ? -1 : -4) : found;
    }

    /// <summary>How much the values of a column alone say for a meaning.</summary>
    public double Typed(int index, ColumnMeaning meaning) =>
        // A column of nothing is what its heading says, as far as that is plain.
        Profiles[index].Filled == 0
            ? Headings.IsPhrase(index, meaning)
                ? 0
                : -3
            : ValueEvidence.For(Profiles[index], meaning, IsInOtherCurrency(index));

    /// <summary>
    /// Whether the heading names a currency that is not the file's: another than the column of currencies holds, or one where another
    /// column is the same amounts without.
    /// </summary>
    public bool IsInOtherCurrency(int index) => isInOtherCurrency[index].Value;

    private bool NamesOtherCurrency(int index)
    {
        if (Headings.CurrencyOf(index) is not { } named)
        {
            return false;
        }

        var columns = Enumerable.Range(0, Profiles.Length).Where(i => Profiles[i].CurrencyShare >= 0.95 && Profiles[i].Distinct == 1);
        return columns.Any(i => Profiles[i].Texts.First(t => t.Length > 0) != named.Code)
            || Enumerable
                .Range(0, Profiles.Length)
                .Any(i =>
                    i != index
                    && Headings.CurrencyOf(i) is null
                    && Profiles[i].IsAmountLike
                    && ColumnFits.IsConversion(Profiles[i], Profiles[index])
                );
    }

    /// <summary>How far a column is before the next one that could be the same; what fits with another counts for it.</summary>
    public double Sureness(int index, ColumnMeaning meaning, List<(int Index, double Score)> candidates, bool fits)
    {
        var own = Score(index, meaning);
        var next = candidates.Where(c => c.Index != index && IsFree(c.Index)).Select(c => c.Score).DefaultIfEmpty(-10).Max();
        return Math.Min(own + (fits ? 1 : 0), own - next + (fits ? 1.5 : 0) + 1);
    }
}
