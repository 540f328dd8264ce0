using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>Sets one statement on as many pages as it needs.</summary>
internal sealed class StatementPages
{
    private const float PointsPerMillimetre = 72 / 25.4f;
    private const float UsualTextSize = 9;

    // Under the first line of the address there is room for what a window shows of it, before anything else goes on.
    private const float AddressHeight = 102;

    private const float ReferencesWidth = 170;
    private const float FootSize = 8;

    private static readonly SKColor Ink = SKColor.Parse("#2b2230");
    private static readonly SKColor SecondInk = SKColor.Parse("#6d6470");
    private static readonly SKColor Hairline = SKColor.Parse("#d5ccc0");

    private readonly StatementPaper paper;
    private readonly Layout layout;
    private readonly Face regular;
    private readonly Face strong;
    private readonly Face heading;
    private readonly float width;
    private readonly float height;
    private readonly float scale;
    private readonly SKColor accent;
    private readonly TableColumns columns;
    private readonly SKImage? logo;

    private readonly List<List<Action<Page>>> pages = [];
    private float y;
    private float? besideAddress;

    /// <summary>Sets a paper.</summary>
    /// <param name="paper">What stands on it.</param>
    /// <param name="layout">How it looks.</param>
    /// <param name="regular">The face of text.</param>
    /// <param name="strong">The face of what stands out.</param>
    /// <param name="heading">The face of the name and the title.</param>
    /// <param name="logo">The logo; null for none.</param>
    public StatementPages(StatementPaper paper, Layout layout, Face regular, Face strong, Face heading, SKImage? logo)
    {
        (this.paper, this.layout, this.regular, this.strong, this.heading, this.logo) = (paper, layout, regular, strong, heading, logo);
        (width, height) = layout.Paper == PaperSize.A4 ? (595.28f, 841.89f) : (612f, 792f);
        accent = SKColor.Parse(layout.Accent);
        scale = (float)layout.TextSize / UsualTextSize;
        columns = new TableColumns(paper, regular, strong, UsualTextSize * scale, Right - Left);
        Compose();
    }

    private float Left => Points(layout.Margins.Left);

    private float Right => width - Points(layout.Margins.Right);

    private float Bottom => height - Points(layout.Margins.Bottom);

    private float RowHeight => 15.5f * scale;

    private float LineHeight => 12.5f * scale;

    private float RowLine => 11 * scale;

    private float TotalHeight => 26 * scale;

    /// <summary>Draws all pages.</summary>
    public void Draw(SKDocument document)
    {
        // A long foot is set smaller, so that it keeps clear of the page number.
        var footSize = Math.Min(FootSize, (Right - Left - 80) / regular.Set(Foot).Width);

        // All text has been set by now, so the reduced faces hold every glyph and are the same on each page.
        for (var number = 1; number <= pages.Count; number++)
        {
            using var canvas = document.BeginPage(width, height);
            var page = new Page(canvas);
            pages[number - 1].ForEach(draw => draw(page));
            page.Line(Left, height - 44, Right, 0.5f, Hairline);
            page.Text(regular, footSize, Foot, Left, height - 32, SecondInk);
            page.TextRight(regular, FootSize, paper.Page(number, pages.Count), Right, height - 32, SecondInk);
            document.EndPage();
        }
    }

    private string Foot => layout.Footer.Length > 0 ? layout.Footer : paper.Firm.Name;

    private static float Points(decimal millimetres) => (float)millimetres * PointsPerMillimetre;

    private void Compose()
    {
        NewPage();
        for (var i = 0; i < layout.Parts.Count;)
        {
            if (layout.Parts[i].IsOfCurrency)
            {
                var ofCurrency = layout.Parts.Skip(i).TakeWhile(p => p.IsOfCurrency).ToList();
                foreach (var section in paper.Sections)
                {
                    ofCurrency.ForEach(part => Currency(part, section));
                }

                i += ofCurrency.Count;
            }
            else
            {
                Part(layout.Parts[i], paper.Texts[i]);
                i++;
            }
        }

        regular.Set(Foot);
        for (var number = 1; number <= pages.Count; number++)
        {
            regular.Set(paper.Page(number, pages.Count));
        }
    }

    private void Part(LayoutPart part, IReadOnlyList<PaperParagraph>? text)
    {
        if (part is not ReferencesPart)
        {
            besideAddress = null;
        }

        switch (part)
        {
            case LetterheadPart letterhead:
                Letterhead(letterhead);
                break;
            case AddressPart address:
                Address(address);
                break;
            case ReferencesPart:
                References();
                break;
            case TitlePart:
                Title();
                break;
            case TextPart when text is not null:
                text.ToList().ForEach(Paragraph);
                y += 6 * scale;
                break;
            case SlipPart when text is not null:
                Slip(text);
                break;
            case PaymentPart:
                HowToPay();
                break;
        }
    }

    private void Currency(LayoutPart part, PaperSection section)
    {
        switch (part)
        {
            case ItemsPart:
                Table(section);
                break;
            case TotalPart:
                Totals(section);
                break;
            case AgesPart:
                Strip(section);
                break;
        }
    }

    private void NewPage()
    {
        pages.Add([]);
        y = Points(layout.Margins.Top);
    }

    private void Add(Action<Page> draw) => pages[^1].Add(draw);

    private void Text(Face face, float size, string text, float x, float baseline, SKColor ink)
    {
        face.Set(text);
        Add(page => page.Text(face, size, text, x, baseline, ink));
    }

    private void TextRight(Face face, float size, string text, float right, float baseline, SKColor ink)
    {
        face.Set(text);
        Add(page => page.TextRight(face, size, text, right, baseline, ink));
    }

    private void Letterhead(LetterheadPart part)
    {
        var firm = paper.Firm;
        var (top, line) = (y, y + 6);
        var x = Left;
        if (logo is not null)
        {
            var high = Points(part.LogoHeight);
            var area = SKRect.Create(x, top, Math.Min(high * logo.Width / logo.Height, (Right - Left) / 2), high);
            var picture = logo;
            Add(page => page.Picture(picture, area));
            x = area.Right + 12;
            y = top + high;
        }

        if (logo is null || part.WithName)
        {
            foreach (var text in Lines.Wrapped(heading, 17, firm.Name, Math.Max(120, Right - x - 200)))
            {
                top += 14;
                Text(heading, 17, text, x, top, accent);
                top += 6;
            }

            y = Math.Max(y, top);
        }

        foreach (var text in part.WithLines ? firm.AddressLines.Concat(firm.ContactLines).SelectMany(l => Lines.Wrapped(regular, 8.5f, l, 190)) : [])
        {
            TextRight(regular, 8.5f, text, Right, line, SecondInk);
            line += 11;
        }

        y = Math.Max(y, line) + 14;
    }

    /// <summary>The address stands where a window shows it, whatever stands above; only a letterhead that reaches into it pushes it down.</summary>
    private void Address(AddressPart part)
    {
        var (left, top) = (Points(part.Begins.Left), Math.Max(pages.Count == 1 ? Points(part.Begins.Top) : 0, y));
        if (part.WithReturnLine)
        {
            var back = string.Join(" · ", paper.Firm.AddressLines.Prepend(paper.Firm.Name));
            foreach (var text in Lines.Wrapped(regular, 6.5f, back, 240).Take(1))
            {
                Text(regular, 6.5f, text, left, top - 4, SecondInk);
            }
        }

        besideAddress = top + 11.6f;
        y = top + 11.6f;
        foreach (var text in paper.AddressLines.SelectMany(l => Lines.Wrapped(regular, 10, l, 240)))
        {
            Text(regular, 10, text, left, y, Ink);
            y += 13.5f;
        }

        y = Math.Max(y, top + AddressHeight) + 18;
    }

    /// <summary>The reference lines stand beside the address where they follow it, else where they come.</summary>
    private void References()
    {
        var line = besideAddress ?? y + 11.6f;
        foreach (var (label, value) in paper.References)
        {
            Text(regular, UsualTextSize * scale, label, Right - ReferencesWidth, line, SecondInk);
            foreach (var text in Lines.Wrapped(strong, UsualTextSize * scale, value, ReferencesWidth - 60))
            {
                TextRight(strong, UsualTextSize * scale, text, Right, line, Ink);
                line += 13.5f * scale;
            }
        }

        y = besideAddress is null ? line + 8 : Math.Max(y, line + 8);
    }

    private void Title()
    {
        foreach (var text in Lines.Wrapped(heading, 15, paper.Title, Right - Left))
        {
            Room(22);
            Text(heading, 15, text, Left, y, Ink);
            y += 22;
        }
    }

    private void Headings()
    {
        for (var i = 0; i < paper.Columns.Count; i++)
        {
            InColumn(strong, i, paper.Columns[i].Heading, y + (10 * scale), SecondInk);
        }

        var rule = y + RowHeight;
        Add(page => page.Line(Left, rule, Right, 1, accent));
        y += RowHeight + 1;
    }

    private void Table(PaperSection section)
    {
        // Heading, two rows and the total at least, so that no table begins with a lonely line.
        Room(RowHeight * (section.Parts[0].Heading.Length > 0 ? 5 : 4));
        Headings();
        var before = 0;
        for (var p = 0; p < section.Parts.Count; p++)
        {
            Rows(section, section.Parts[p], before, isLast: p == section.Parts.Count - 1);
            before += section.Parts[p].Rows.Count;
        }
    }

    /// <summary>The rows of one account. Its name stays with the first of them; its sum, and after the last account the total, with the last.</summary>
    /// <param name="section">The section.</param>
    /// <param name="part">The account, or the group of items.</param>
    /// <param name="before">How many rows of the section stand before.</param>
    /// <param name="isLast">Whether the total follows.</param>
    private void Rows(PaperSection section, PaperPart part, int before, bool isLast)
    {
        var closing = (part.TotalLabel.Length > 0 ? RowHeight : 0) + (isLast ? TotalHeight : 0);
        if (part.Heading.Length > 0)
        {
            Name(section, part, before, closing);
        }

        for (var r = 0; r < part.Rows.Count; r++)
        {
            var row = part.Rows[r].Select((cell, i) => columns.Lines(i, cell)).ToList();
            var lines = row.Max(cell => cell.Count);
            var needed = RowHeight + ((lines - 1) * RowLine);

            // The last row never stands alone above a sum on the next page: it takes the sum along.
            TurnOver(section, before + r, needed + (r == part.Rows.Count - 1 ? closing : 0));
            for (var i = 0; i < row.Count; i++)
            {
                for (var l = 0; l < row[i].Count; l++)
                {
                    InColumn(regular, i, row[i][l], y + (10.5f * scale) + (l * RowLine), Ink);
                }
            }

            y += needed;
            var rule = y;
            Add(page => page.Line(Left, rule, Right, 0.4f, Hairline));
        }

        if (part.TotalLabel.Length > 0)
        {
            Sum(part.TotalLabel, part.Total);
        }
    }

    private void Name(PaperSection section, PaperPart part, int before, float closing)
    {
        var lines = Lines.Wrapped(strong, UsualTextSize * scale, part.Heading, Right - Left);
        var needed = RowHeight + 3 + ((lines.Count - 1) * RowLine);
        TurnOver(section, before, needed + RowHeight + (part.Rows.Count == 1 ? closing : 0));
        for (var l = 0; l < lines.Count; l++)
        {
            Text(strong, UsualTextSize * scale, lines[l], Left, y + (13.5f * scale) + (l * RowLine), Ink);
        }

        y += needed;
        var rule = y;
        Add(page => page.Line(Left, rule, Right, 0.4f, Hairline));
    }

    /// <summary>Goes on to the next page where there is no room, with the headings, and where it is wanted with the sum so far on both.</summary>
    private void TurnOver(PaperSection section, int rowsBefore, float needed)
    {
        var carries = section.Carried.Count > 0;
        if (y + needed <= Bottom - (carries ? RowHeight : 0))
        {
            return;
        }

        if (carries && rowsBefore > 0)
        {
            Sum(paper.CarriedWords.Foot, section.Carried[rowsBefore - 1]);
        }

        NewPage();
        Headings();
        if (carries && rowsBefore > 0)
        {
            Sum(paper.CarriedWords.Head, section.Carried[rowsBefore - 1]);
        }
    }

    private void Sum(string label, string sum)
    {
        Text(regular, UsualTextSize * scale, label, Left, y + (10.5f * scale), SecondInk);
        TextRight(strong, UsualTextSize * scale, sum, Right, y + (10.5f * scale), Ink);
        y += RowHeight;
    }

    private void Totals(PaperSection section)
    {
        Room(TotalHeight);
        Text(strong, 10 * scale, section.TotalLabel, Left, y + (14 * scale), Ink);
        TextRight(strong, 10 * scale, section.Total, Right, y + (14 * scale), Ink);
        y += (section.Interest.Count > 0 ? 20 : 26) * scale;
        for (var i = 0; i < section.Interest.Count; i++)
        {
            var line = section.Interest[i];
            var isLast = i == section.Interest.Count - 1;
            Room(isLast ? 26 * scale : LineHeight);
            Text(isLast ? strong : regular, (isLast ? 10 : UsualTextSize) * scale, line.Label, Left, y + ((isLast ? 14 : 9) * scale), Ink);
            TextRight(isLast ? strong : regular, (isLast ? 10 : UsualTextSize) * scale, line.Figure, Right, y + ((isLast ? 14 : 9) * scale), Ink);
            y += isLast ? 26 * scale : LineHeight;
        }
    }

    private void Strip(PaperSection section)
    {
        var high = 30 * scale;
        Room(high + 14);
        var field = (Right - Left) / section.Ages.Count;

        // Figures of fifteen digits in nine bands have to fit beside each other.
        var widest = section.Ages.Max(a => Math.Max(strong.Set(a.Figure).Width * UsualTextSize, regular.Set(a.Label).Width * 7.5f)) * scale;
        var fit = Math.Min(1, (field - 8) / widest) * scale;
        for (var i = 0; i < section.Ages.Count; i++)
        {
            var age = section.Ages[i];
            var (ground, ink) = AgeTone.Of(age.Band);
            var x = Left + (field * i);
            var top = y;
            Add(page => page.Fill(new SKRect(x, top, x + field, top + high), SKColor.Parse(ground)));
            Text(regular, 7.5f * fit, age.Label, x + 4, y + (11 * scale), SKColor.Parse(ink));
            Text(strong, UsualTextSize * fit, age.Figure, x + 4, y + (23 * scale), SKColor.Parse(ink));
        }

        var bottom = y + high;
        Add(page => page.Line(Left, bottom, Right, 0.4f, Hairline));
        y += high + 20;
    }

    private void Paragraph(PaperParagraph paragraph)
    {
        var size = 9.5f * scale;
        var indent = paragraph.Mark.Length > 0 ? 14 * scale : 0;
        var mark = paragraph.Mark;
        foreach (var line in Lines.Of(paragraph, regular, strong, size, Right - Left - indent))
        {
            Room(LineHeight);
            if (mark.Length > 0)
            {
                Text(regular, size, mark, Left, y + (8 * scale), Ink);
                mark = "";
            }

            var x = Left + indent;
            foreach (var (text, isStrong, link) in line)
            {
                var face = isStrong ? strong : regular;
                Text(face, size, text, x, y + (8 * scale), link is null ? Ink : accent);
                var wide = face.Set(text).Width * size;
                if (link is not null)
                {
                    var area = SKRect.Create(x, y, wide, LineHeight);
                    Add(page => page.Link(area, link));
                }

                x += wide;
            }

            y += LineHeight;
        }

        y += paragraph.Mark.Length > 0 ? 1 : 5 * scale;
    }

    /// <summary>The line to cut along, and what is under it in one piece; only a slip that is longer than a page goes over.</summary>
    private void Slip(IReadOnlyList<PaperParagraph> text)
    {
        var high = text.Sum(p => (Lines.Of(p, regular, strong, 9.5f * scale, Right - Left - (p.Mark.Length > 0 ? 14 * scale : 0)).Count * LineHeight) + (5 * scale));
        var page = pages.Count;
        Room(high + 26);
        y += pages.Count > page ? 0 : 14;
        var cut = y;
        Add(p => p.Dashes(Left, cut, Right, SecondInk));
        y += 12;
        text.ToList().ForEach(Paragraph);
    }

    private void HowToPay()
    {
        var transfers = paper.Sections.Select(s => s.Transfer).OfType<SepaTransfer>().ToList();
        var side = transfers.Count > 0 ? Points(QrPicture.Side) : 0;
        var lines = paper.Firm.PaymentLines.SelectMany(l => Lines.Wrapped(regular, 9.5f * scale, l, Right - Left - (transfers.Count * (side + 12)))).ToList();
        if (lines.Count + transfers.Count == 0)
        {
            return;
        }

        Room(Math.Max((lines.Count + 1) * LineHeight, side));
        for (var i = 0; i < transfers.Count; i++)
        {
            var picture = new QrPicture(transfers[i].Text());
            var area = SKRect.Create(Right - ((i + 1) * side) - (i * 12), y, side, side);
            Add(page => picture.Draw(page, area));
        }

        var under = y + side;
        Text(strong, 9.5f * scale, paper.HowToPay, Left, y + (8 * scale), accent);
        y += LineHeight + 2;
        foreach (var line in lines)
        {
            Text(regular, 9.5f * scale, line, Left, y + (8 * scale), Ink);
            y += LineHeight;
        }

        y = Math.Max(y, under) + 6;
    }

    private void Room(float needed)
    {
        if (y + needed > Bottom)
        {
            NewPage();
        }
    }

    private void InColumn(Face face, int column, string text, float baseline, SKColor ink)
    {
        if (paper.Columns[column].IsFigure)
        {
            TextRight(face, columns.TextSize, text, Left + columns.RightOf(column), baseline, ink);
        }
        else
        {
            Text(face, columns.TextSize, text, Left + columns.LeftOf(column), baseline, ink);
        }
    }
}
