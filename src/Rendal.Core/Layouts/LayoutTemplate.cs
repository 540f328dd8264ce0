using System.Globalization;
using System.Text.RegularExpressions;
using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>A layout made ready to be filled many times.</summary>
public sealed partial class LayoutTemplate
{
    private readonly Dictionary<LayoutPart, WordingTemplate> texts = new(ReferenceEqualityComparer.Instance);
    private WordingTemplate? fileName;
    private WordingTemplate? link;
    private WordingTemplate? barCode;

    private IReadOnlySet<string>? uses;

    private readonly Func<Wording, WordingTemplate> read;
    private readonly Func<string, IReadOnlyList<TextParagraph>> paragraphs;

    private LayoutTemplate(Layout layout, Func<Wording, WordingTemplate> read, Func<string, IReadOnlyList<TextParagraph>> paragraphs) =>
        (Layout, this.read, this.paragraphs) = (layout, read, paragraphs);

    /// <summary>The layout as its editor keeps it.</summary>
    public Layout Layout { get; }

    /// <summary>
    /// What keeps the layout from being used, one sentence each, with the part that it is about. Empty when it can be used.
    /// </summary>
    public IReadOnlyList<string> Errors { get; private set; } = [];

    /// <summary>The names of the slots that its texts use, or its letter, in any way.</summary>
    public IReadOnlySet<string> Uses =>
        uses ??= new[] { fileName, link, barCode }
            .OfType<WordingTemplate>()
            .Concat(texts.Values)
            .SelectMany(t => t.Uses)
            .Concat(Layout.Letter?.Slots.Select(s => s.Name) ?? [])
            .ToHashSet(StringComparer.Ordinal);

    /// <summary>Makes a layout ready to print documents by; what keeps it from that is in <see cref="Errors"/>.</summary>
    /// <param name="layout">The layout.</param>
    /// <param name="read">Takes its texts apart.</param>
    /// <param name="paragraphs">Reads the paragraphs of a text that was filled.</param>
    public static LayoutTemplate Of(
        Layout layout,
        Func<Wording, WordingTemplate> read,
        Func<string, IReadOnlyList<TextParagraph>> paragraphs
    )
    {
        var template = new LayoutTemplate(layout, read, paragraphs);
        template.fileName = layout.FileName.Length > 0 ? read(new Wording("", "", layout.FileName, "")) : null;
        template.Errors =
        [
            .. Sheet(layout),
            .. template.fileName?.Errors.Select(e => $"Name of the file: {e}") ?? [],
            .. layout.Parts.SelectMany((part, i) => template.Ready(part).Select(e => $"Part {i + 1}, {NameOf(part)}: {e}")),
        ];
        return template;
    }

    /// <summary>The title where the layout has one of its own; null where it has not.</summary>
    internal FilledWording? Title(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding) =>
        Layout.First<TitlePart>() is { Text.Length: > 0 } title ? texts[title].Fill(values, holding) : null;

    /// <summary>The name of the file where the layout has one of its own; null where it has not.</summary>
    internal FilledWording? FileName(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding) =>
        fileName?.Fill(values, holding);

    /// <summary>The words of a part that is a text, with the values of its slots and those of its conditions that hold.</summary>
    internal FilledWording Fill(LayoutPart part, IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding) =>
        texts[part].Fill(values, holding);

    /// <summary>The paragraphs of a text that was filled, to be set on the page.</summary>
    internal IReadOnlyList<TextParagraph> Paragraphs(FilledWording words) => paragraphs(words.Body);

    /// <summary>The address of the page to pay on, values escaped as RFC 3986 asks; null where the layout has none.</summary>
    internal FilledWording? Link(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding) =>
        link?.Fill(values.ToDictionary(v => v.Key, v => Uri.EscapeDataString(v.Value)), holding);

    /// <summary>What the bar code says where the layout has words of its own for it; null where it has not.</summary>
    internal FilledWording? BarCodeText(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding) =>
        barCode?.Fill(values, holding);

    private static IEnumerable<string> Sheet(Layout layout)
    {
        if (string.IsNullOrWhiteSpace(layout.Name))
        {
            yield return "Give the layout a name.";
        }

        if (!Colour().IsMatch(layout.Accent))
        {
            yield return $"“{layout.Accent}” is not a colour; write one such as #5b2a55.";
        }

        if (IsOutside(layout.TextSize, Layout.TextSizes))
        {
            yield return $"The size of the text is {Layout.TextSizes.Least} to {Layout.TextSizes.Most} points.";
        }

        var m = layout.Margins;
        if (new[] { m.Left, m.Top, m.Right, m.Bottom }.Any(w => IsOutside(w, Layout.MarginWidths)) || m.Bottom < Layout.LeastBottom)
        {
            yield return $"Margins are {Layout.MarginWidths.Least} to {Layout.MarginWidths.Most} mm, at the bottom "
                + $"{Layout.LeastBottom} at least.";
        }

        if (layout.Letter is not null)
        {
            if (layout.Parts.Count > 0)
            {
                yield return "A letter that was brought along has no parts beside it.";
            }
        }
        else if (layout.Forms.Contains(DocumentForm.Docx))
        {
            yield return "Only a letter that was brought along can be enclosed as DOCX.";
        }
        else if (layout.Parts.Count == 0)
        {
            yield return "A layout without parts is an empty sheet; add one.";
        }

        if (layout.Forms.Count == 0 || layout.Forms.Distinct().Count() < layout.Forms.Count)
        {
            yield return "A document is enclosed in one form at least, and in each once.";
        }

        foreach (var twice in layout.Parts.Where(p => p is not TextPart).GroupBy(NameOf).Where(g => g.Count() > 1))
        {
            yield return $"A layout has the {twice.Key} only once.";
        }
    }

    private static string NameOf(LayoutPart part) =>
        part switch
        {
            LetterheadPart => "letterhead",
            AddressPart => "address",
            ReferencesPart => "reference lines",
            TitlePart => "title",
            TextPart => "text",
            ItemsPart => "table of items",
            TotalPart => "total",
            AgesPart => "strip of ages",
            PaymentPart => "how to pay",
            SignaturePart => "signature",
            SlipPart => "slip",
            _ => throw new ArgumentOutOfRangeException(nameof(part), part, null),
        };

    private static bool IsOutside(decimal value, (decimal Least, decimal Most) span) => value < span.Least || value > span.Most;

    private IEnumerable<string> Ready(LayoutPart part) =>
        part switch
        {
            TitlePart { Text.Length: > 0 } title => Words(title, new Wording("", "", title.Text, "")),
            TextPart text => Words(text, new Wording("", "", "", text.Text)),
            SlipPart slip => Words(slip, new Wording("", "", "", slip.Text)),
            ItemsPart items => Table(items),
            LetterheadPart { Logo.Length: > LetterheadPart.LargestLogo } =>
            [
                $"the logo is larger than {LetterheadPart.LargestLogo / 1000} kB.",
            ],
            LetterheadPart { LogoHeight: < 4 or > 60 } => ["the logo is 4 to 60 mm high."],
            AddressPart { Place: AddressPlace.Free } address when address.Left is < 5 or > 120 || address.Top is < 15 or > 120 =>
            [
                "its lines begin 5 to 120 mm from the left and 15 to 120 mm from the top.",
            ],
            PaymentPart payment => Payment(payment),
            SignaturePart { Picture.Length: > LetterheadPart.LargestLogo } =>
            [
                $"the picture is larger than {LetterheadPart.LargestLogo / 1000} kB.",
            ],
            SignaturePart { Height: < 4 or > 60 } => ["it is 4 to 60 mm high."],
            _ => [],
        };

    private IReadOnlyList<string> Words(LayoutPart part, Wording wording)
    {
        var template = read(wording);
        texts.Add(part, template);
        return
        [
            .. template.Errors,
            .. template
                .Uses.Select(SlotCatalogue.Find)
                .OfType<Slot>()
                .Where(slot => slot.IsOfMessage)
                .Select(slot =>
                    slot.Name is SlotCatalogue.Table or SlotCatalogue.Ages
                        ? $"“{slot.Label}” is a part of its own here."
                        : $"“{slot.Label}” stands in messages only."
                ),
        ];
    }

    private IEnumerable<string> Payment(PaymentPart part)
    {
        if (part.Iban.Length > 0 && !SepaTransfer.IsIban(part.Iban))
        {
            yield return $"“{part.Iban}” is not an IBAN.";
        }

        if (part.Iban.Length == 0 && part.Bic.Length > 0)
        {
            yield return "a BIC alone makes no code; give the IBAN too.";
        }
        else if (part.Bic.Length > 0 && !SepaTransfer.IsBic(part.Bic))
        {
            yield return $"“{part.Bic}” is not a BIC.";
        }

        if (part.Link.Length > 0)
        {
            if (!LinkBeginning().IsMatch(part.Link))
            {
                yield return "the link begins with https:// and the name of the site: https://pay.example/.";
            }

            link = read(new Wording("", "", part.Link, ""));
            foreach (var error in link.Errors)
            {
                yield return $"link: {error}";
            }
        }

        barCode = part is { BarCode: not BarCodeKind.None, BarCodeText.Length: > 0 }
            ? read(new Wording("", "", part.BarCodeText, ""))
            : null;
        foreach (var error in barCode?.Errors ?? [])
        {
            yield return $"bar code: {error}";
        }
    }

    private static IEnumerable<string> Table(ItemsPart items)
    {
        if (items.Columns.Count == 0)
        {
            yield return "it has no column.";
        }

        foreach (var column in items.Columns)
        {
            if (!ItemFields.IsKnown(column.Field))
            {
                yield return $"“{column.Field}” is not a field that is known.";
            }

            if (column.Width is < 5 or > 150)
            {
                yield return string.Create(CultureInfo.InvariantCulture, $"a column is 5 to 150 mm wide, not {column.Width}.");
            }
        }

        if (items.Columns.GroupBy(c => c.Field).FirstOrDefault(g => g.Count() > 1) is { } twice)
        {
            yield return $"“{twice.Key}” stands in two columns.";
        }

        if (items.GroupBy.Length > 0 && !ItemFields.IsKnown(items.GroupBy))
        {
            yield return $"“{items.GroupBy}” is not a field that is known.";
        }
    }

    [GeneratedRegex("^https?://[A-Za-z0-9.-]+(:[0-9]+)?([/?#]|$)")]
    private static partial Regex LinkBeginning();

    [GeneratedRegex("^#[0-9a-fA-F]{6}$")]
    private static partial Regex Colour();
}
