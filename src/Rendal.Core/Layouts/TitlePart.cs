namespace Rendal.Core.Layouts;

/// <summary>What the document is called.</summary>
public sealed record TitlePart : LayoutPart
{
    /// <summary>
    /// The title as text with slots, written as the subject of a <see cref="Wordings.Wording"/> is; empty for the usual one in the
    /// customer's language.
    /// </summary>
    public string Text { get; init; } = "";
}

/// <summary>The date or period, and the customer's code, at the right of the address.</summary>
public sealed record ReferencesPart : LayoutPart;

/// <summary>The total of a currency, and the interest where there is any.</summary>
public sealed record TotalPart : LayoutPart;

/// <summary>The strip of ages.</summary>
public sealed record AgesPart : LayoutPart;
