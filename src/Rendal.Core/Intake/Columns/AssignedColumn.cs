namespace Rendal.Core.Intake.Columns;

/// <summary>What a column was taken for.</summary>
/// <param name="Meaning">What it is.</param>
/// <param name="Confidence">How certain that is.</param>
/// <param name="Reason">Why, in plain words: <c>by heading; every value is on or after “Posted”</c>.</param>
/// <param name="Others">What else it could be, the likeliest first.</param>
internal sealed record AssignedColumn(ColumnMeaning Meaning, Confidence Confidence, string Reason, IReadOnlyList<OtherMeaning> Others);

/// <summary>What a column could be as well.</summary>
/// <param name="Meaning">What.</param>
/// <param name="First">What its first values would be read as, three at most: <c>30 Sep 2026</c>, <c>1,234.50</c>.</param>
public sealed record OtherMeaning(ColumnMeaning Meaning, IReadOnlyList<string> First);

/// <summary>Two columns could be what is counted, and the sum of the ledger depends on which it is.</summary>
/// <param name="Meaning">What either would be.</param>
/// <param name="Taken">The column that was taken meanwhile.</param>
/// <param name="Other">The other one.</param>
/// <param name="Rows">Over how many rows, the first of the file, the sums are.</param>
public sealed record AmountQuestion(ColumnMeaning Meaning, AmountChoice Taken, AmountChoice Other, int Rows);

/// <summary>One of the columns that are asked about.</summary>
/// <param name="Index">The column, from 0.</param>
/// <param name="Sum">What it comes to.</param>
public sealed record AmountChoice(int Index, decimal Sum);
