using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>Sets one statement on as many pages as it needs.</summary>
internal sealed class StatementPages
{
    private const float Margin = 51; // 18 mm
    private const float RowHeight = 15.5f;
    private const float TextSize = 9;
    private const float StripHeight = 30;
    private const float LineHeight = 12.5f;
    private const float ColumnGap = 12;

    private static readonly SKColor Ink = SKColor.Parse("#2b2230");
    private static readonly SKColor SecondInk = SKColor.Parse("#6d6470");
    private static readonly SKColor Hairline = SKColor.Parse("#d5ccc0");

    private readonly StatementPaper paper;
    private readonly Face regular;
    private readonly Face strong;
    private readonly Face heading;
    private readonly float width;
    private readonly float height;
    private readonly SKColor accent;
    private readonly float[] columns;
    private readonly string closing;

    private readonly List<List<Action<Page>>> pages = [];
    private float y;

    public StatementPages(StatementPaper paper, StatementLayout layout, Face regular, Face strong, Face heading)
    {
        (this.paper, this.regular, this.strong, this.heading) = (paper, regular, strong, heading);
        (width, height) = layout.Paper == PaperSize.A4 ? (595.28f, 841.89f) : (612f, 792f);
        accent = SKColor.Parse(layout.Accent);
        closing = layout.ClosingText;
        columns = ColumnEdges();
        Compose();
    }

    private float Right => width - Margin;

    private float Bottom => height - 62;

    public void Draw(SKDocument document)
    {
        // All text has been set by now, so the reduced faces hold every glyph and are the same on each page.
        for (var number = 1; number <= pages.Count; number++)
        {
            using var canvas = document.BeginPage(width, height);
            var page = new Page(canvas);
            pages[number - 1].ForEach(draw => draw(page));
            page.Line(Margin, height - 44, Right, 0.5f, Hairline);
            page.Text(regular, 8, paper.Firm.Name, Margin, height - 32, SecondInk);
            page.TextRight(regular, 8, paper.Page(number, pages.Count), Right, height - 32, SecondInk);
            document.EndPage();
        }
    }

    private void Compose()
    {
        NewPage();
        Letterhead();
        Opening();
        foreach (var section in paper.Sections)
        {
            Table(section);
            Totals(section);
            Strip(section);
        }

        Paragraph(closing);
        HowToPay();
        regular.Set(paper.Firm.Name);
        for (var number = 1; number <= pages.Count; number++)
        {
            regular.Set(paper.Page(number, pages.Count));
        }
    }

    private void NewPage()
    {
        pages.Add([]);
        y = Margin;
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

    private void Letterhead()
    {
        var firm = paper.Firm;
        Text(heading, 17, firm.Name, Margin, y + 14, accent);
        var line = y + 6;
        foreach (var text in firm.AddressLines.Concat(firm.ContactLines))
        {
            TextRight(regular, 8.5f, text, Right, line, SecondInk);
            line += 11;
        }

        // The customer's address stands where a window envelope shows it, 50 mm from the top, whatever the letterhead's length.
        y = Math.Max(142, line + 14);
        foreach (var text in paper.AddressLines.SelectMany(l => Wrapped(regular, 10, l, 240)))
        {
            Text(regular, 10, text, Margin, y, Ink);
            y += 13.5f;
        }

        var reference = 142f;
        foreach (var (label, value) in paper.References)
        {
            Text(regular, TextSize, label, Right - 170, reference, SecondInk);
            TextRight(strong, TextSize, value, Right, reference, Ink);
            reference += 13.5f;
        }

        y = Math.Max(Math.Max(y, reference), 232) + 18;
    }

    private void Opening()
    {
        Text(heading, 15, paper.Title, Margin, y, Ink);
        y += 22;
    }

    private void Headings()
    {
        for (var i = 0; i < paper.Columns.Count; i++)
        {
            InColumn(strong, i, paper.Columns[i].Heading, y + 10, SecondInk);
        }

        var rule = y + RowHeight;
        Add(page => page.Line(Margin, rule, Right, 1, accent));
        y += RowHeight + 1;
    }

    private void Table(PaperSection section)
    {
        // Heading, two rows and the total at least, so that no table begins with a lonely line.
        Room(RowHeight * (section.Parts[0].Heading.Length > 0 ? 5 : 4));
        Headings();
        for (var p = 0; p < section.Parts.Count; p++)
        {
            Part(section.Parts[p], isLast: p == section.Parts.Count - 1);
        }
    }

    /// <summary>The rows of one account. Its name stays with the first of them; its sum, and after the last account the total, with the last.</summary>
    private void Part(PaperPart part, bool isLast)
    {
        var closing = (part.TotalLabel.Length > 0 ? RowHeight : 0) + (isLast ? RowHeight + 6 : 0);
        if (part.Heading.Length > 0)
        {
            Name(part, closing);
        }

        for (var r = 0; r < part.Rows.Count; r++)
        {
            var row = part.Rows[r].Select((cell, i) => paper.Columns[i].IsFigure ? [cell] : Wrapped(regular, TextSize, cell, ColumnWidth(i))).ToList();
            var lines = row.Max(cell => cell.Count);
            var needed = RowHeight + ((lines - 1) * 11);

            // The last row never stands alone above a sum on the next page: it takes the sum along.
            if (y + needed + (r == part.Rows.Count - 1 ? closing : 0) > Bottom)
            {
                NewPage();
                Headings();
            }

            for (var i = 0; i < row.Count; i++)
            {
                for (var l = 0; l < row[i].Count; l++)
                {
                    InColumn(regular, i, row[i][l], y + 10.5f + (l * 11), Ink);
                }
            }

            y += needed;
            var rule = y;
            Add(page => page.Line(Margin, rule, Right, 0.4f, Hairline));
        }

        if (part.TotalLabel.Length > 0)
        {
            Text(regular, TextSize, part.TotalLabel, Margin, y + 10.5f, SecondInk);
            TextRight(strong, TextSize, part.Total, Right, y + 10.5f, Ink);
            y += RowHeight;
        }
    }

    private void Name(PaperPart part, float closing)
    {
        var lines = Wrapped(strong, TextSize, part.Heading, Right - Margin);
        var needed = RowHeight + 3 + ((lines.Count - 1) * 11);
        if (y + needed + RowHeight + (part.Rows.Count == 1 ? closing : 0) > Bottom)
        {
            NewPage();
            Headings();
        }

        for (var l = 0; l < lines.Count; l++)
        {
            Text(strong, TextSize, lines[l], Margin, y + 13.5f + (l * 11), Ink);
        }

        y += needed;
        var rule = y;
        Add(page => page.Line(Margin, rule, Right, 0.4f, Hairline));
    }

    private void Totals(PaperSection section)
    {
        Text(strong, 10, section.TotalLabel, Margin, y + 14, Ink);
        TextRight(strong, 10, section.Total, Right, y + 14, Ink);
        y += section.Interest.Count > 0 ? 20 : 26;
        for (var i = 0; i < section.Interest.Count; i++)
        {
            var line = section.Interest[i];
            var isLast = i == section.Interest.Count - 1;
            Room(isLast ? 26 : LineHeight);
            Text(isLast ? strong : regular, isLast ? 10 : TextSize, line.Label, Margin, y + (isLast ? 14 : 9), Ink);
            TextRight(isLast ? strong : regular, isLast ? 10 : TextSize, line.Figure, Right, y + (isLast ? 14 : 9), Ink);
            y += isLast ? 26 : LineHeight;
        }
    }

    private void Strip(PaperSection section)
    {
        if (section.Ages.Count == 0)
        {
            return;
        }

        Room(StripHeight + 14);
        var field = (Right - Margin) / section.Ages.Count;
        for (var i = 0; i < section.Ages.Count; i++)
        {
            var age = section.Ages[i];
            var (ground, ink) = AgeTone.Of(age.Band);
            var x = Margin + (field * i);
            var top = y;
            Add(page => page.Fill(new SKRect(x, top, x + field, top + StripHeight), SKColor.Parse(ground)));
            Text(regular, 7.5f, age.Label, x + 6, y + 11, SKColor.Parse(ink));
            Text(strong, 9, age.Figure, x + 6, y + 23, SKColor.Parse(ink));
        }

        var bottom = y + StripHeight;
        Add(page => page.Line(Margin, bottom, Right, 0.4f, Hairline));
        y += StripHeight + 20;
    }

    private void Paragraph(string text)
    {
        foreach (var line in text.Length == 0 ? [] : Wrapped(regular, 9.5f, text, Right - Margin))
        {
            Room(LineHeight);
            Text(regular, 9.5f, line, Margin, y + 8, Ink);
            y += LineHeight;
        }
    }

    private void HowToPay()
    {
        if (paper.Firm.PaymentLines.Count == 0)
        {
            return;
        }

        var lines = paper.Firm.PaymentLines.SelectMany(l => Wrapped(regular, 9.5f, l, Right - Margin)).ToList();
        Room((lines.Count + 1) * LineHeight);
        Text(strong, 9.5f, paper.HowToPay, Margin, y + 8, accent);
        y += LineHeight + 2;
        foreach (var line in lines)
        {
            Text(regular, 9.5f, line, Margin, y + 8, Ink);
            y += LineHeight;
        }
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
            TextRight(face, TextSize, text, columns[column + 1] - (column == paper.Columns.Count - 1 ? 0 : ColumnGap), baseline, ink);
        }
        else
        {
            Text(face, TextSize, text, columns[column], baseline, ink);
        }
    }

    private float ColumnWidth(int column) => columns[column + 1] - columns[column] - ColumnGap;

    /// <summary>Every column gets what its widest cell wants, up to a limit for text; what is left over goes to the second column.</summary>
    private float[] ColumnEdges()
    {
        var widths = new float[paper.Columns.Count];
        for (var i = 0; i < widths.Length; i++)
        {
            var cells = paper.Sections.SelectMany(s => s.Rows).Select(row => regular.Set(row[i]).Width * TextSize);
            var widest = cells.Append(strong.Set(paper.Columns[i].Heading).Width * TextSize).Max() + ColumnGap;
            widths[i] = paper.Columns[i].IsFigure ? widest : Math.Min(widest, 150);
        }

        var left = Right - Margin - widths.Sum();
        widths[1] += left;
        var edges = new float[widths.Length + 1];
        edges[0] = Margin;
        for (var i = 0; i < widths.Length; i++)
        {
            edges[i + 1] = edges[i] + widths[i];
        }

        return edges;
    }

    /// <summary>Breaks a text at spaces into lines of a width; a word wider than the line is broken where the line ends.</summary>
    private static List<string> Wrapped(Face face, float size, string text, float within)
    {
        if (Fits(text))
        {
            return [text];
        }

        var lines = new List<string>();
        var line = "";
        foreach (var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var longer = line.Length == 0 ? word : line + " " + word;
            if (Fits(longer))
            {
                line = longer;
                continue;
            }

            if (line.Length > 0)
            {
                lines.Add(line);
            }

            line = word;
            while (!Fits(line) && line.Length > 1)
            {
                var fits = line.Length - 1;
                while (fits > 1 && !Fits(line[..fits]))
                {
                    fits--;
                }

                lines.Add(line[..fits]);
                line = line[fits..];
            }
        }

        lines.Add(line);
        return lines;

        // A column is as wide as its widest cell, and adding up columns leaves a little less than that.
        bool Fits(string part) => face.Set(part).Width * size <= within + 0.05f;
    }
}
