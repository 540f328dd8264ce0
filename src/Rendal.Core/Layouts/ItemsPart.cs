namespace Rendal.Core.Layouts;

/// <summary>The table of items, or of the movements of a period where the statement is brought forward.</summary>
public sealed record ItemsPart : LayoutPart
{
    /// <summary>The columns of a table that nobody changed.</summary>
    public static IReadOnlyList<LayoutColumn> UsualColumns { get; } =
    [new("number"), new("kind"), new("dated"), new("due"), new("days-over"), new("original"), new("open")];

    /// <summary>The table of a message whose document has none.</summary>
    internal static ItemsPart Usual { get; } = new() { Columns = UsualColumns };

    /// <summary>The columns in their order, for open items; the movements of a period have columns of their own.</summary>
    public IReadOnlyList<LayoutColumn> Columns { get; init; } = [];

    /// <summary>The field by whose values the items are put together, each group with a subtotal; empty for none.</summary>
    public string GroupBy { get; init; } = "";

    /// <summary>The same with other columns, each under the heading that it has here; itself for null.</summary>
    internal ItemsPart With(IReadOnlyList<LayoutColumn>? columns) =>
        columns is null
            ? this
            : this with
            {
                Columns = [.. columns.Select(c => Columns.FirstOrDefault(own => own.Field == c.Field) ?? c)],
            };

    /// <summary>Whether the sum so far stands at the foot of a page that the table goes over, and at the head of the next.</summary>
    public bool CarryForward { get; init; }
}

/// <summary>A column of the table of items.</summary>
/// <param name="Field">What stands in it: one of <see cref="ItemFields"/>.</param>
/// <param name="Heading">Its heading; empty for the usual one in the customer's language.</param>
/// <param name="Width">Its width in millimetres; null for as wide as its widest text.</param>
public sealed record LayoutColumn(string Field, string Heading = "", decimal? Width = null);
