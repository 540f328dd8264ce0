namespace Rendal.Core.Layouts;

/// <summary>A column of the table.</summary>
/// <param name="Heading">Its heading.</param>
/// <param name="IsFigure">Whether it is aligned to the right.</param>
/// <param name="Width">Its width in millimetres; null for as wide as its widest text.</param>
/// <param name="Field">What of an item stands in it, by its name in <see cref="ItemFields"/>; empty for what is reckoned.</param>
public sealed record TableColumn(string Heading, bool IsFigure, decimal? Width, string Field);

/// <summary>The table of one currency.</summary>
/// <param name="Currency">The code.</param>
/// <param name="Parts">One for each account; more than one on the statement of a head office.</param>
/// <param name="Ages">The strip of ages; empty where the layout has none.</param>
/// <param name="TotalLabel">The words before the total.</param>
/// <param name="Total">The total with its currency.</param>
/// <param name="Interest">A line for the interest on each item, and last what is to be paid; empty where there is none.</param>
/// <param name="Carried">The sum so far after each row; empty where it is not wanted at page breaks.</param>
/// <param name="Transfer">The transfer that a code asks for; null for no code.</param>
public sealed record DocumentSection(
    string Currency,
    IReadOnlyList<DocumentPart> Parts,
    IReadOnlyList<AgeBand> Ages,
    string TotalLabel,
    string Total,
    IReadOnlyList<TotalLine> Interest,
    IReadOnlyList<string> Carried,
    SepaTransfer? Transfer
)
{
    /// <summary>The strip of ages, whether the layout has it or not.</summary>
    public required IReadOnlyList<AgeBand> AllAges { get; init; }

    /// <summary>The same as values; null where the layout is enclosed in no form that has them.</summary>
    public StatementSheet? Sheet { get; init; }

    /// <summary>The cells of each item of all parts, as many as there are columns.</summary>
    public IEnumerable<IReadOnlyList<string>> Rows => Parts.SelectMany(p => p.Rows);
}

/// <summary>The rows of one account, or of one group of its items.</summary>
/// <param name="Heading">Its name, where it is one of several; else empty.</param>
/// <param name="Rows">The cells of each item, as many as there are columns.</param>
/// <param name="TotalLabel">The words before its sum; empty where it is the only one.</param>
/// <param name="Total">Its sum; empty where it is the only one.</param>
public sealed record DocumentPart(string Heading, IReadOnlyList<IReadOnlyList<string>> Rows, string TotalLabel, string Total)
{
    /// <summary>The row of the ledger file that each of <see cref="Rows"/> was read from; 0 for one that was reckoned.</summary>
    public required IReadOnlyList<int> ReadFrom { get; init; }
}

/// <summary>A line under the total.</summary>
/// <param name="Label">What it is.</param>
/// <param name="Figure">How much, as text.</param>
public sealed record TotalLine(string Label, string Figure);

/// <summary>One field of the strip of ages.</summary>
/// <param name="Label">The days that it spans.</param>
/// <param name="Figure">Its sum as text.</param>
/// <param name="Band">The band, 0 for not due; null for credits.</param>
/// <param name="Amount">Its sum.</param>
public sealed record AgeBand(string Label, string Figure, int? Band, decimal Amount);
