using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>A letter that was written in a word processor and brought along as DOCX; it stands in place of the parts.</summary>
public sealed record DocxTemplate
{
    /// <summary>The most bytes of the file.</summary>
    public const int Largest = 5_000_000;

    /// <summary>The name of the file as it was brought.</summary>
    public required string FileName { get; init; }

    /// <summary>The file. It is filled in copies and never changed itself.</summary>
    public required byte[] Bytes { get; init; }

    /// <summary>The slots that were found in it, in their order; found anew whenever the layout is taken in or kept.</summary>
    public IReadOnlyList<DocxSlot> Slots { get; init; } = [];
}

/// <summary>A slot in a letter.</summary>
/// <param name="Name">Its name in the catalogue; one of an item is <c>item.</c> and a field of <see cref="ItemFields"/> or the heading of
/// a column.</param>
/// <param name="OrElse">What stands there where it is empty; empty for nothing, which keeps the letter from leaving.</param>
/// <param name="When">The conditions that it stands under, all of which have to hold.</param>
public sealed record DocxSlot(string Name, string OrElse, IReadOnlyList<TextWhen> When)
{
    /// <summary>Before the field of a slot that is filled from one item, in a row of a table that stands once for each.</summary>
    public const string OfItem = "item.";
}

/// <summary>What a letter is filled with.</summary>
/// <param name="Values">The values of the slots, by name.</param>
/// <param name="Items">The values of the slots of each item, by name, in the order of the statement.</param>
/// <param name="Holding">The conditions that hold.</param>
public sealed record DocxContent(
    IReadOnlyDictionary<string, string> Values,
    IReadOnlyList<IReadOnlyDictionary<string, string>> Items,
    IReadOnlySet<TextWhen> Holding
);
