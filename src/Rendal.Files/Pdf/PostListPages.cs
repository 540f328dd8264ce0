using System.Globalization;
using Rendal.Core.Budgets;
using Rendal.Core.Layouts;
using Rendal.Files.Post;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>Sets the list of what is in a bundle for the post.</summary>
internal sealed class PostListPages
{
    private const float Gap = 10;
    private const float NumberWidth = 24;
    private const float CodeWidth = 62;
    private const float NameWidth = 150;
    private const float FigureWidth = 40;

    private readonly FontSet fonts;
    private readonly Sheets sheets;

    /// <summary>Sets a list.</summary>
    /// <param name="list">The list.</param>
    /// <param name="fonts">The fonts.</param>
    /// <param name="budget">What it may take.</param>
    public PostListPages(PostList list, FontSet fonts, Budget budget)
    {
        (this.fonts, sheets) = (fonts, new Sheets(Layout.BuiltIn, budget));
        sheets.Y += 14;
        foreach (var text in Lines.Wrapped(fonts.Heading, 15, $"For the post: {list.Title}", sheets.Right - sheets.Left))
        {
            sheets.Text(fonts.Heading, 15, text, sheets.Left, sheets.Y, SKColor.Parse(Layout.BuiltIn.Accent));
            sheets.Y += 19;
        }

        sheets.Text(fonts.Regular, sheets.TextSize, Count(list), sheets.Left, sheets.Y, Palette.Second);
        sheets.Y += 24;
        Heading();
        foreach (var (line, at) in list.Lines.Select((line, at) => (line, at)))
        {
            Row(line, at + 1);
        }

        for (var page = 1; page <= sheets.Count; page++)
        {
            fonts.Regular.Set(Foot(page));
        }
    }

    private float NameAt => sheets.Left + NumberWidth + CodeWidth;

    private float AddressAt => NameAt + NameWidth;

    /// <summary>Draws all pages.</summary>
    public void Draw(SKDocument document)
    {
        for (var number = 1; number <= sheets.Count; number++)
        {
            using var canvas = document.BeginPage(sheets.Width, sheets.Height);
            var page = new Page(canvas);
            sheets.Draw(number - 1, page);
            page.TextRight(fonts.Regular, 8, Foot(number), sheets.Right, sheets.Height - 32, Palette.Second);
            document.EndPage();
        }
    }

    private static string Count(PostList list)
    {
        var (letters, pages, paper) = (list.Lines.Count, list.Lines.Sum(l => l.Pages), list.Lines.Sum(l => l.Sheets));
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{letters} {(letters == 1 ? "letter" : "letters")}, {pages} {(pages == 1 ? "page" : "pages")} on {paper} "
                + $"{(paper == 1 ? "sheet" : "sheets")}, without this list"
        );
    }

    private string Foot(int page) => string.Create(CultureInfo.InvariantCulture, $"List, page {page} of {sheets.Count}");

    private void Heading()
    {
        sheets.Text(fonts.Strong, sheets.TextSize, "Code", sheets.Left + NumberWidth, sheets.Y, Palette.Second);
        sheets.Text(fonts.Strong, sheets.TextSize, "Name", NameAt, sheets.Y, Palette.Second);
        sheets.Text(fonts.Strong, sheets.TextSize, "Address", AddressAt, sheets.Y, Palette.Second);
        sheets.TextRight(fonts.Strong, sheets.TextSize, "Pages", sheets.Right - FigureWidth, sheets.Y, Palette.Second);
        sheets.TextRight(fonts.Strong, sheets.TextSize, "Sheets", sheets.Right, sheets.Y, Palette.Second);
        var y = sheets.Y + 4;
        sheets.Add(page => page.Line(sheets.Left, y, sheets.Right, 0.8f, Palette.Second));
        sheets.Y += sheets.RowHeight;
    }

    private void Row(PostListLine line, int number)
    {
        var piece = line.Piece;
        var code = Lines.Wrapped(fonts.Regular, sheets.TextSize, piece.Customer, CodeWidth - Gap);
        var name = Lines.Wrapped(fonts.Regular, sheets.TextSize, piece.Name, NameWidth - Gap);
        var address = Lines.Wrapped(
            fonts.Regular,
            sheets.TextSize,
            string.Join(", ", piece.Lines.Append(piece.Country).Where(l => l.Length > 0)),
            sheets.Right - (2 * FigureWidth) - AddressAt - Gap
        );
        var high = Math.Max(code.Count, Math.Max(name.Count, address.Count)) * sheets.RowLine;
        if (sheets.Y + high > sheets.Bottom)
        {
            sheets.TurnOver();
            sheets.Y += 14;
            Heading();
        }

        sheets.Text(fonts.Regular, sheets.TextSize, number.ToString(CultureInfo.InvariantCulture), sheets.Left, sheets.Y, Palette.Second);
        Column(code, sheets.Left + NumberWidth);
        Column(name, NameAt);
        Column(address, AddressAt);
        sheets.TextRight(
            fonts.Regular,
            sheets.TextSize,
            line.Pages.ToString(CultureInfo.InvariantCulture),
            sheets.Right - FigureWidth,
            sheets.Y,
            Palette.First
        );
        sheets.TextRight(
            fonts.Regular,
            sheets.TextSize,
            line.Sheets.ToString(CultureInfo.InvariantCulture),
            sheets.Right,
            sheets.Y,
            Palette.First
        );
        sheets.Y += high + (sheets.RowHeight - sheets.RowLine);
    }

    private void Column(IEnumerable<string> lines, float x)
    {
        var y = sheets.Y;
        foreach (var text in lines)
        {
            sheets.Text(fonts.Regular, sheets.TextSize, text, x, y, Palette.First);
            y += sheets.RowLine;
        }
    }
}
