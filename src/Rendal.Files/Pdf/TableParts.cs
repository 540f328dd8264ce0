using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>What stands on a document about one currency: the table, its total, and the strip of ages.</summary>
internal sealed class TableParts
{
    private const float AgeSize = 9;

    private readonly Sheets sheets;
    private readonly StatementDocument document;
    private readonly FontSet fonts;
    private readonly SKColor accent;
    private readonly TableColumns columns;
    private readonly int rowsAlong;

    /// <param name="sheets">Where it goes.</param>
    /// <param name="document">What stands on the document.</param>
    /// <param name="fonts">The fonts.</param>
    /// <param name="accent">The colour of rules.</param>
    /// <param name="rowsAlong">How many of the last rows go on a new page with what follows them; 0 where they need not.</param>
    public TableParts(Sheets sheets, StatementDocument document, FontSet fonts, SKColor accent, int rowsAlong)
    {
        (this.sheets, this.document, this.fonts, this.accent, this.rowsAlong) = (sheets, document, fonts, accent, rowsAlong);
        columns = new TableColumns(document, fonts.Regular, fonts.Strong, sheets.TextSize, sheets.Right - sheets.Left);
    }

    private float TotalHeight => 26 * sheets.Scale;

    /// <summary>The table with its headings, over as many sheets as it takes.</summary>
    public void Table(DocumentSection section)
    {
        // Heading, two rows and the total at least, so that no table begins with a lonely line.
        sheets.Room(sheets.RowHeight * (section.Parts[0].Heading.Length > 0 ? 5 : 4));
        Headings();
        var before = 0;
        for (var p = 0; p < section.Parts.Count; p++)
        {
            Rows(section, section.Parts[p], before, isLast: p == section.Parts.Count - 1);
            before += section.Parts[p].Rows.Count;
        }
    }

    /// <summary>The total, with interest where there is some.</summary>
    public void Totals(DocumentSection section)
    {
        sheets.Room(TotalHeight);
        sheets.Text(fonts.Strong, 10 * sheets.Scale, section.TotalLabel, sheets.Left, sheets.Y + (14 * sheets.Scale), Palette.First);
        sheets.TextRight(
            fonts.Strong,
            10 * sheets.Scale,
            section.Total,
            sheets.Right,
            sheets.Y + (14 * sheets.Scale),
            Palette.First,
            Origin.OfTotal
        );
        sheets.Y += (section.Interest.Count > 0 ? 20 : 26) * sheets.Scale;
        for (var i = 0; i < section.Interest.Count; i++)
        {
            var line = section.Interest[i];
            var isLast = i == section.Interest.Count - 1;
            sheets.Room(isLast ? TotalHeight : sheets.LineHeight);
            sheets.Text(
                isLast ? fonts.Strong : fonts.Regular,
                isLast ? 10 * sheets.Scale : sheets.TextSize,
                line.Label,
                sheets.Left,
                sheets.Y + ((isLast ? 14 : 9) * sheets.Scale),
                Palette.First
            );
            sheets.TextRight(
                isLast ? fonts.Strong : fonts.Regular,
                isLast ? 10 * sheets.Scale : sheets.TextSize,
                line.Figure,
                sheets.Right,
                sheets.Y + ((isLast ? 14 : 9) * sheets.Scale),
                Palette.First
            );
            sheets.Y += isLast ? TotalHeight : sheets.LineHeight;
        }
    }

    /// <summary>What is outstanding by age, as a strip.</summary>
    public void Strip(DocumentSection section)
    {
        var high = 30 * sheets.Scale;
        sheets.Room(high + 14);
        var field = (sheets.Right - sheets.Left) / section.Ages.Count;

        // Figures of fifteen digits in nine bands have to fit beside each other.
        var widest =
            section.Ages.Max(a => Math.Max(fonts.Strong.Set(a.Figure).Width * AgeSize, fonts.Regular.Set(a.Label).Width * 7.5f))
            * sheets.Scale;
        var fit = Math.Min(1, (field - 8) / widest) * sheets.Scale;
        for (var i = 0; i < section.Ages.Count; i++)
        {
            var age = section.Ages[i];
            var (ground, ink) = AgeTone.Of(age.Band);
            var x = sheets.Left + (field * i);
            var top = sheets.Y;
            sheets.Add(page => page.Fill(new SKRect(x, top, x + field, top + high), SKColor.Parse(ground)));
            sheets.Text(fonts.Regular, 7.5f * fit, age.Label, x + 4, sheets.Y + (11 * sheets.Scale), SKColor.Parse(ink));
            sheets.Text(fonts.Strong, AgeSize * fit, age.Figure, x + 4, sheets.Y + (23 * sheets.Scale), SKColor.Parse(ink));
        }

        var bottom = sheets.Y + high;
        sheets.Add(page => page.Line(sheets.Left, bottom, sheets.Right, 0.4f, Palette.Hairline));
        sheets.Y += high + 20;
    }

    private void Headings()
    {
        for (var i = 0; i < document.Columns.Count; i++)
        {
            InColumn(fonts.Strong, i, document.Columns[i].Heading, sheets.Y + (10 * sheets.Scale), Palette.Second);
        }

        var rule = sheets.Y + sheets.RowHeight;
        sheets.Add(page => page.Line(sheets.Left, rule, sheets.Right, 1, accent));
        sheets.Y += sheets.RowHeight + 1;
    }

    /// <summary>
    /// The rows of one account. Its name stays with the first of them; its sum, and after the last account the total, with the last.
    /// </summary>
    /// <param name="section">The section.</param>
    /// <param name="part">The account, or the group of items.</param>
    /// <param name="before">How many rows of the section stand before.</param>
    /// <param name="isLast">Whether the total follows.</param>
    private void Rows(DocumentSection section, DocumentPart part, int before, bool isLast)
    {
        var closing = (part.TotalLabel.Length > 0 ? sheets.RowHeight : 0) + (isLast ? TotalHeight : 0);
        if (part.Heading.Length > 0)
        {
            Name(section, part, before, closing);
        }

        for (var r = 0; r < part.Rows.Count; r++)
        {
            var row = part.Rows[r].Select((cell, i) => columns.Lines(i, cell)).ToList();
            var lines = row.Max(cell => cell.Count);
            var needed = sheets.RowHeight + ((lines - 1) * sheets.RowLine);

            // The last row never stands alone above a sum on the next page: it takes the sum along.
            var endsPage = isLast && rowsAlong > 0 && r > 0 && r == part.Rows.Count - rowsAlong && section == document.Sections[^1];
            TurnOver(section, before + r, endsPage ? sheets.Height : needed + (r == part.Rows.Count - 1 ? closing : 0));
            Row(section, before + r, row, lines, column => document.OriginOf(part, r, column));
        }

        if (part.TotalLabel.Length > 0)
        {
            Sum(part.TotalLabel, part.Total);
        }
    }

    /// <summary>A row, in one piece where a page has room for it.</summary>
    private void Row(DocumentSection section, int rowsBefore, IReadOnlyList<IReadOnlyList<string>> row, int lines, Func<int, Origin?> from)
    {
        for (var first = 0; first < lines; )
        {
            var carried = section.Carried.Count > 0 ? sheets.RowHeight : 0;
            var room = Math.Max(1, 1 + (int)((sheets.Bottom - carried - sheets.Y - sheets.RowHeight) / sheets.RowLine));
            var here = Math.Min(lines - first, room);
            for (var i = 0; i < row.Count; i++)
            {
                for (var l = first; l < Math.Min(first + here, row[i].Count); l++)
                {
                    InColumn(
                        fonts.Regular,
                        i,
                        row[i][l],
                        sheets.Y + (10.5f * sheets.Scale) + ((l - first) * sheets.RowLine),
                        Palette.First,
                        sheets.IsTraced ? from(i) : null
                    );
                }
            }

            sheets.Y += sheets.RowHeight + ((here - 1) * sheets.RowLine);
            first += here;
            if (first < lines)
            {
                TurnOver(section, rowsBefore, sheets.Height);
            }
        }

        var rule = sheets.Y;
        sheets.Add(page => page.Line(sheets.Left, rule, sheets.Right, 0.4f, Palette.Hairline));
    }

    private void Name(DocumentSection section, DocumentPart part, int before, float closing)
    {
        var lines = Lines.Wrapped(fonts.Strong, sheets.TextSize, part.Heading, sheets.Right - sheets.Left);
        var needed = sheets.RowHeight + 3 + ((lines.Count - 1) * sheets.RowLine);
        TurnOver(section, before, needed + sheets.RowHeight + (part.Rows.Count == 1 ? closing : 0));
        for (var l = 0; l < lines.Count; l++)
        {
            sheets.Text(
                fonts.Strong,
                sheets.TextSize,
                lines[l],
                sheets.Left,
                sheets.Y + (13.5f * sheets.Scale) + (l * sheets.RowLine),
                Palette.First
            );
        }

        sheets.Y += needed;
        var rule = sheets.Y;
        sheets.Add(page => page.Line(sheets.Left, rule, sheets.Right, 0.4f, Palette.Hairline));
    }

    /// <summary>
    /// Goes on to the next page where there is no room, with the headings, and where it is wanted with the sum so far on both.
    /// </summary>
    private void TurnOver(DocumentSection section, int rowsBefore, float needed)
    {
        var carries = section.Carried.Count > 0;
        if (sheets.Y + needed <= sheets.Bottom - (carries ? sheets.RowHeight : 0))
        {
            return;
        }

        if (carries && rowsBefore > 0)
        {
            Sum(document.CarriedWords.Foot, section.Carried[rowsBefore - 1]);
        }

        sheets.TurnOver();
        Headings();
        if (carries && rowsBefore > 0)
        {
            Sum(document.CarriedWords.Head, section.Carried[rowsBefore - 1]);
        }
    }

    private void Sum(string label, string sum)
    {
        sheets.Text(fonts.Regular, sheets.TextSize, label, sheets.Left, sheets.Y + (10.5f * sheets.Scale), Palette.Second);
        sheets.TextRight(fonts.Strong, sheets.TextSize, sum, sheets.Right, sheets.Y + (10.5f * sheets.Scale), Palette.First);
        sheets.Y += sheets.RowHeight;
    }

    private void InColumn(Font font, int column, string text, float baseline, SKColor ink, Origin? from = null)
    {
        if (document.Columns[column].IsFigure)
        {
            sheets.TextRight(font, columns.TextSize, text, sheets.Left + columns.RightOf(column), baseline, ink, from);
        }
        else
        {
            sheets.Text(font, columns.TextSize, text, sheets.Left + columns.LeftOf(column), baseline, ink, from);
        }
    }
}
