using Rendal.Core.Money;

namespace Rendal.Core.Layouts;

/// <summary>
/// What a document says about one currency as values, for files that the recipient goes on with: to sum, to sort, to compare.
/// </summary>
/// <param name="Currency">The currency.</param>
/// <param name="Headings">The headings of the columns.</param>
/// <param name="Rows">The values of each item or movement, in the order of the document, as many as there are columns.</param>
/// <param name="SumColumn">The column whose values come to the total; null where it is not among them, or runs as a balance.</param>
/// <param name="TotalLabel">The words before the total.</param>
/// <param name="Total">The total.</param>
/// <param name="Interest">A line for the interest on each item, and last what is to be paid; empty where there is none.</param>
public sealed record StatementSheet(
    Currency Currency,
    IReadOnlyList<string> Headings,
    IReadOnlyList<IReadOnlyList<SheetCell>> Rows,
    int? SumColumn,
    string TotalLabel,
    decimal Total,
    IReadOnlyList<(string Label, decimal Amount)> Interest
);
