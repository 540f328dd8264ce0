using System.Text.Json.Serialization;

namespace Rendal.Core.Layouts;

/// <summary>The sheet of paper.</summary>
public enum PaperSize
{
    /// <summary>210 × 297 mm, ISO 216.</summary>
    A4,

    /// <summary>8½ × 11 inches.</summary>
    Letter,
}

/// <summary>The fonts that a document is set in; what they lack comes from fonts of other scripts.</summary>
public enum FontFamily
{
    /// <summary>Text without serifs, the firm's name and the title with them.</summary>
    Mixed,

    /// <summary>All without serifs.</summary>
    Sans,

    /// <summary>All with serifs.</summary>
    Serif,
}

/// <summary>The white edges of a sheet, in millimetres.</summary>
/// <param name="Left">At the left.</param>
/// <param name="Top">Above the letterhead, and above what goes on on further pages.</param>
/// <param name="Right">At the right.</param>
/// <param name="Bottom">Under the last line; the footer stands in it.</param>
public sealed record Margins(decimal Left, decimal Top, decimal Right, decimal Bottom);

/// <summary>The template of a document: parts in the order in which they stand, and how the sheet looks.</summary>
public sealed record Layout
{
    /// <summary>The least and the largest size of text, in points.</summary>
    public static readonly (decimal Least, decimal Most) TextSizes = (7, 12);

    /// <summary>The least and the widest margin, in millimetres; at the bottom there is room for the footer besides.</summary>
    public static readonly (decimal Least, decimal Most) MarginWidths = (8, 60);

    /// <summary>The lowest bottom margin, in millimetres: the footer stands in it.</summary>
    public const decimal LeastBottom = 16;

    /// <summary>What the bookkeeper calls it.</summary>
    public required string Name { get; init; }

    /// <summary>The sheet.</summary>
    public PaperSize Paper { get; init; }

    /// <summary>The margins, in millimetres; unless said otherwise 18 at the left, the top and the right, and 22 at the bottom.</summary>
    public Margins Margins { get; init; } = new(18, 18, 18, 22);

    /// <summary>The one colour beside black, as <c>#rrggbb</c>.</summary>
    public string Accent { get; init; } = "#5b2a55";

    /// <summary>The fonts.</summary>
    public FontFamily Faces { get; init; }

    /// <summary>The size of the text in the table, in points; everything else grows with it.</summary>
    public decimal TextSize { get; init; } = 9;

    /// <summary>What stands at the foot of each page beside its number; empty for the firm's name.</summary>
    public string Footer { get; init; } = "";

    /// <summary>
    /// The name of the file without its ending, as text with slots, written as the subject of a <see cref="Wordings.Wording"/>
    /// is; empty for the usual one: <c>AB01 statement 2026-10-31</c>.
    /// </summary>
    public string FileName { get; init; } = "";

    /// <summary>The forms in which it is enclosed; one at least.</summary>
    public IReadOnlyList<DocumentForm> Forms { get; init; } = [DocumentForm.Pdf];

    /// <summary>A letter that was brought along in place of the parts; null for none.</summary>
    public DocxTemplate? Letter { get; init; }

    /// <summary>The parts in their order; none where there is a letter.</summary>
    public IReadOnlyList<LayoutPart> Parts { get; init; } = [];

    /// <summary>The layout that is there before any was made.</summary>
    public static Layout BuiltIn { get; } =
        new()
        {
            Name = "Statement",
            Parts =
            [
                new LetterheadPart(),
                new AddressPart(),
                new ReferencesPart(),
                new TitlePart(),
                new ItemsPart { Columns = ItemsPart.UsualColumns },
                new TotalPart(),
                new AgesPart(),
                new PaymentPart(),
            ],
        };

    /// <summary>The first part of a kind; null where there is none.</summary>
    public T? First<T>()
        where T : LayoutPart => Parts.OfType<T>().FirstOrDefault();
}

/// <summary>One part of a document.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "part")]
[JsonDerivedType(typeof(LetterheadPart), "letterhead")]
[JsonDerivedType(typeof(AddressPart), "address")]
[JsonDerivedType(typeof(ReferencesPart), "references")]
[JsonDerivedType(typeof(TitlePart), "title")]
[JsonDerivedType(typeof(TextPart), "text")]
[JsonDerivedType(typeof(ItemsPart), "items")]
[JsonDerivedType(typeof(TotalPart), "total")]
[JsonDerivedType(typeof(AgesPart), "ages")]
[JsonDerivedType(typeof(PaymentPart), "payment")]
[JsonDerivedType(typeof(SignaturePart), "signature")]
[JsonDerivedType(typeof(SlipPart), "slip")]
public abstract record LayoutPart
{
    /// <summary>Whether it belongs to one currency, so that parts of this kind that follow each other stand once for each.</summary>
    [JsonIgnore]
    public bool IsOfCurrency => this is ItemsPart or TotalPart or AgesPart;
}
