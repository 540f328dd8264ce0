using System.Diagnostics.CodeAnalysis;
using Rendal.Core.Budgets;
using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>Sets one statement on as many pages as it needs, part by part in the order of its layout.</summary>
internal sealed class StatementPages
{
    private const float FootSize = 8;

    // So many rows go along to the last page where how to pay would stand there by itself.
    private const int RowsAlong = 2;

    private readonly StatementDocument document;
    private readonly Layout layout;
    private readonly FontSet fonts;
    private readonly SKImage? logo;
    private readonly SKImage? signature;
    private readonly List<PlacedOrigin>? places;
    private Sheets sheets;
    private HeadParts head;
    private TableParts table;
    private TextParts texts;
    private PaymentParts payment;

    /// <summary>Sets a document on pages; nothing is drawn yet.</summary>
    /// <param name="document">What stands on it.</param>
    /// <param name="layout">How it looks.</param>
    /// <param name="fonts">The fonts.</param>
    /// <param name="logo">The logo; null for none.</param>
    /// <param name="signature">The picture of a signature; null for none.</param>
    /// <param name="budget">What the document may take.</param>
    /// <param name="places">Gets where what was taken from somewhere stands; null where nobody asks for it.</param>
    public StatementPages(
        StatementDocument document,
        Layout layout,
        FontSet fonts,
        SKImage? logo,
        SKImage? signature,
        Budget budget,
        List<PlacedOrigin>? places = null
    )
    {
        (this.document, this.layout, this.fonts, this.logo, this.signature) = (document, layout, fonts, logo, signature);
        this.places = places;
        Compose(budget, 0);
        if (payment.StandsAlone)
        {
            sheets.Discard();
            places?.Clear();
            Compose(budget, RowsAlong);
        }
    }

    private string Foot => layout.Footer.Length > 0 ? layout.Footer : document.Firm.Name;

    /// <summary>How many pages there are.</summary>
    public int Count => sheets.Count;

    /// <summary>How large each page is, in points.</summary>
    public SKSize Size => new(sheets.Width, sheets.Height);

    /// <summary>Draws all pages.</summary>
    public void Draw(SKDocument document)
    {
        for (var number = 1; number <= sheets.Count; number++)
        {
            using var canvas = document.BeginPage(sheets.Width, sheets.Height);
            Draw(canvas, number);
            document.EndPage();
        }
    }

    /// <summary>
    /// Draws one page, from 1. All text has been set by now, so the reduced fonts hold every glyph and are the same on each page.
    /// </summary>
    public void Draw(SKCanvas canvas, int number)
    {
        // A long foot is set smaller, so that it keeps clear of the page number.
        var footSize = Math.Min(FootSize, (sheets.Right - sheets.Left - 80) / fonts.Regular.Set(Foot).Width);
        var foot = sheets.Height - 32;
        var page = new Page(canvas);
        sheets.Draw(number - 1, page);
        page.Line(sheets.Left, sheets.Height - 44, sheets.Right, 0.5f, Palette.Hairline);
        page.Text(fonts.Regular, footSize, Foot, sheets.Left, foot, Palette.Second);
        page.TextRight(fonts.Regular, FootSize, document.Page(number, sheets.Count), sheets.Right, foot, Palette.Second);
    }

    [MemberNotNull(nameof(sheets), nameof(head), nameof(table), nameof(texts), nameof(payment))]
    private void Compose(Budget budget, int rowsAlong)
    {
        var accent = SKColor.Parse(layout.Accent);
        sheets = new Sheets(layout, budget, places);
        head = new HeadParts(sheets, document, fonts, accent, logo);
        table = new TableParts(sheets, document, fonts, accent, rowsAlong);
        texts = new TextParts(sheets, fonts, accent);
        payment = new PaymentParts(sheets, document, fonts, accent);
        var isNoteSet = false;
        for (var i = 0; i < layout.Parts.Count; )
        {
            if (layout.Parts[i].IsOfCurrency)
            {
                Note();
                var ofCurrency = layout.Parts.Skip(i).TakeWhile(p => p.IsOfCurrency).ToList();
                foreach (var section in document.Sections)
                {
                    ofCurrency.ForEach(part => Currency(part, section));
                }

                i += ofCurrency.Count;
            }
            else
            {
                Part(layout.Parts[i], document.Texts[i]);
                i++;
            }
        }

        Note();
        fonts.Regular.Set(Foot);
        for (var number = 1; number <= sheets.Count; number++)
        {
            fonts.Regular.Set(document.Page(number, sheets.Count));
        }

        // Above the first table, for everything in the layout that comes before that leads to it.
        void Note()
        {
            if (!isNoteSet && document.Note.Count > 0)
            {
                head.LeaveAddress();
                texts.Text(document.Note);
            }

            isNoteSet = true;
        }
    }

    private void Part(LayoutPart part, IReadOnlyList<TextParagraph>? text)
    {
        if (part is not ReferencesPart)
        {
            head.LeaveAddress();
        }

        switch (part)
        {
            case LetterheadPart letterhead:
                head.Letterhead(letterhead);
                break;
            case AddressPart address:
                head.Address(address);
                break;
            case ReferencesPart:
                head.References();
                break;
            case TitlePart:
                head.Title();
                break;
            case TextPart when text is not null:
                texts.Text(text);
                break;
            case SignaturePart of:
                texts.Signature(of, signature);
                break;
            case SlipPart when text is not null:
                texts.Slip(text);
                break;
            case PaymentPart:
                payment.HowToPay();
                break;
        }
    }

    private void Currency(LayoutPart part, DocumentSection section)
    {
        switch (part)
        {
            case ItemsPart:
                table.Table(section);
                break;
            case TotalPart:
                table.Totals(section);
                break;
            case AgesPart:
                table.Strip(section);
                break;
        }
    }
}
