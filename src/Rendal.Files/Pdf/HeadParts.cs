using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>What stands above the table: who writes to whom, and what the document is.</summary>
internal sealed class HeadParts(Sheets sheets, StatementDocument document, FontSet fonts, SKColor accent, SKImage? logo)
{
    // Under the first line of the address there is room for what a window shows of it, before anything else goes on.
    private const float AddressHeight = 102;

    // As wide as the address field of DIN 5008, 85 mm.
    private const float AddressWidth = 240;

    private const float ReferencesWidth = 170;

    private float? besideAddress;

    /// <summary>Something else than reference lines comes next, so that those after it do not stand beside the address.</summary>
    public void LeaveAddress() => besideAddress = null;

    /// <summary>The firm’s logo and name at the left, its lines at the right.</summary>
    public void Letterhead(LetterheadPart part)
    {
        var firm = document.Firm;
        var (top, line) = (sheets.Y, sheets.Y + 6);
        var x = sheets.Left;
        if (logo is not null)
        {
            // A long one is made smaller, so that it leaves room for the lines at the right.
            var high = Math.Min(Sheets.Points(part.LogoHeight), (sheets.Right - sheets.Left) / 2 * logo.Height / logo.Width);
            var area = SKRect.Create(x, top, high * logo.Width / logo.Height, high);
            var picture = logo;
            sheets.Add(page => page.Picture(picture, area));
            x = area.Right + 12;
            sheets.Y = top + high;
        }

        if (logo is null || part.WithName)
        {
            foreach (var text in Lines.Wrapped(fonts.Heading, 17, firm.Name, Math.Max(120, sheets.Right - x - 200)))
            {
                top += 14;
                sheets.Text(fonts.Heading, 17, text, x, top, accent);
                top += 6;
            }

            sheets.Y = Math.Max(sheets.Y, top);
        }

        foreach (
            var text in part.WithLines
                ? firm.AddressLines.Concat(firm.ContactLines).SelectMany(l => Lines.Wrapped(fonts.Regular, 8.5f, l, 190))
                : []
        )
        {
            sheets.TextRight(fonts.Regular, 8.5f, text, sheets.Right, line, Palette.Second);
            line += 11;
        }

        sheets.Y = Math.Max(sheets.Y, line) + 14;
    }

    /// <summary>
    /// The address stands where a window shows it, whatever stands above; only a letterhead that reaches into it pushes it down.
    /// </summary>
    public void Address(AddressPart part)
    {
        var (left, top) = (Sheets.Points(part.Begins.Left), Math.Max(sheets.Count == 1 ? Sheets.Points(part.Begins.Top) : 0, sheets.Y));
        if (part.WithReturnLine)
        {
            var back = string.Join(" · ", document.Firm.AddressLines.Prepend(document.Firm.Name));
            sheets.Text(fonts.Regular, Math.Min(6.5f, AddressWidth / fonts.Regular.Set(back).Width), back, left, top - 4, Palette.Second);
        }

        besideAddress = top + 11.6f;
        sheets.Y = top + 11.6f;
        foreach (
            var (text, from) in document
                .AddressLines.Zip(document.AddressFrom)
                .SelectMany(l => Lines.Wrapped(fonts.Regular, 10, l.First, AddressWidth).Select(text => (text, l.Second)))
        )
        {
            sheets.Text(fonts.Regular, 10, text, left, sheets.Y, Palette.First, from);
            sheets.Y += 13.5f;
        }

        sheets.Y = Math.Max(sheets.Y, top + AddressHeight) + 18;
    }

    /// <summary>The reference lines stand beside the address where they follow it, else where they come.</summary>
    public void References()
    {
        var line = besideAddress ?? sheets.Y + 11.6f;
        foreach (var (label, value) in document.References)
        {
            sheets.Text(fonts.Regular, sheets.TextSize, label, sheets.Right - ReferencesWidth, line, Palette.Second);
            foreach (var text in Lines.Wrapped(fonts.Strong, sheets.TextSize, value, ReferencesWidth - 60))
            {
                sheets.TextRight(fonts.Strong, sheets.TextSize, text, sheets.Right, line, Palette.First);
                line += 13.5f * sheets.Scale;
            }
        }

        sheets.Y = besideAddress is null ? line + 8 : Math.Max(sheets.Y, line + 8);
    }

    /// <summary>What the document is, with its dates beside.</summary>
    public void Title()
    {
        foreach (var text in Lines.Wrapped(fonts.Heading, 15, document.Title, sheets.Right - sheets.Left))
        {
            sheets.Room(22);
            sheets.Text(fonts.Heading, 15, text, sheets.Left, sheets.Y, Palette.First);
            sheets.Y += 22;
        }
    }
}
