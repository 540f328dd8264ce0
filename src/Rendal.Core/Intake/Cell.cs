using System.Globalization;
using System.Text;

namespace Rendal.Core.Intake;

/// <summary>
/// One cell as a file holds it: nothing, text, a number, or a date. It is one reference wide: a file has millions of them, and they are
/// handed on all the time.
/// </summary>
public readonly record struct Cell
{
    // Text, a decimal, a Displayed one, a DateOnly, a Code, an Error, or any of them Merged.
    private readonly object? content;

    private Cell(object? value) => content = value;

    private object? Value => content is Merged merged ? merged.Value : content;

    /// <summary>A cell with nothing in it.</summary>
    public static Cell Empty => default;

    /// <summary>The number of a spreadsheet cell; null for text, dates and empty cells.</summary>
    public decimal? Number =>
        Value switch
        {
            decimal number => number,
            Displayed displayed => displayed.Number,
            Code code => code.Number,
            _ => null,
        };

    /// <summary>How the workbook displays its number; null where it does so plainly, or as <see cref="DisplayedAs"/> says.</summary>
    public CellFormat? Format => (Value as Displayed)?.How as CellFormat;

    /// <summary>The number as the workbook displays it, where the file has that in words; null for every other cell.</summary>
    public string? DisplayedAs => (Value as Displayed)?.How as string;

    /// <summary>The date of a spreadsheet cell.</summary>
    public DateOnly? Date => Value is DateOnly date ? date : null;

    /// <summary>The text of a number that stands as a code, with leading zeros; null for every other cell.</summary>
    public string? ShownAs => (Value as Code)?.Shown;

    /// <summary>Whether it holds the error that a formula came to; its text is what is displayed: <c>#N/A</c>.</summary>
    public bool IsError => Value is Error;

    /// <summary>Whether it is the rest of a cell that spans rows: the value stands in a row above, and holds here too.</summary>
    public bool IsMerged => content is Merged;

    /// <summary>Whether there is nothing to read: no value, or white space only.</summary>
    public bool IsEmpty => content is null;

    /// <summary>Whether it holds text, as each filled cell of a text file does.</summary>
    public bool IsText => Value is string;

    /// <summary>How many characters of text are content; 0 for numbers and dates, which are as long as they are written.</summary>
    public int Length => Value is string text ? text.Length : (Value as Code)?.Shown.Length ?? 0;

    /// <summary>
    /// The value as text: trimmed, no-break spaces made plain, Unicode NFC. Numbers have a full stop as decimal
    /// mark and dates are ISO, whatever the cell displayed. Never null.
    /// </summary>
    public string Text =>
        Value switch
        {
            string text => text,
            null => "",
            decimal number => number.ToString(CultureInfo.InvariantCulture),
            Displayed displayed => displayed.Number.ToString(CultureInfo.InvariantCulture),
            Code code => code.Shown,
            Error error => error.Shown,
            var date => ((DateOnly)date).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
        };

    /// <summary>The value as the cell displays it: as <see cref="Text"/>, but for numbers that have a format.</summary>
    public string Shown => Value is Displayed displayed ? displayed.Shown : Text;

    /// <summary>
    /// A cell of text; white space around it does not count, and text of white space only is an empty cell. Control characters other than
    /// tabs and line ends, which mean nothing in a cell, become spaces.
    /// </summary>
    public static Cell Of(string? text)
    {
        if (string.IsNullOrEmpty(text))
        {
            return Empty;
        }

        // Most cells are of ordinary characters with nothing around them; one look tells.
        if (text[0] != ' ' && text[^1] != ' ' && text.AsSpan().IndexOfAnyExceptInRange(' ', '~') < 0)
        {
            return new Cell(text);
        }

        var plain = Ascii.IsValid(text) ? text : Normalised(text.Replace('\u00A0', ' ').Replace('\u202F', ' '));
        var left = (
            plain.AsSpan().ContainsAnyInRange('\0', '\u001F') || plain.Contains('\u007F', StringComparison.Ordinal)
                ? WithoutControls(plain)
                : plain
        ).Trim();
        return left.Length == 0 ? Empty : new Cell(left);
    }

    /// <summary>A cell of text that is encoded in UTF-8, read as <see cref="Of(string)"/> reads it.</summary>
    public static Cell Of(ReadOnlySpan<byte> utf8) =>
        utf8.Length > 0 && utf8[0] != ' ' && utf8[^1] != ' ' && utf8.IndexOfAnyExceptInRange((byte)' ', (byte)'~') < 0
            ? new Cell(Encoding.Latin1.GetString(utf8))
            : Of(Encoding.UTF8.GetString(utf8));

    /// <summary>A cell that holds a number.</summary>
    public static Cell Of(decimal number) => new(number);

    /// <summary>A cell that holds a number which stands as a code, with leading zeros: 42 shown as <c>00042</c>.</summary>
    public static Cell Of(decimal number, string shown) => new(new Code(number, shown));

    /// <summary>A cell that holds a number with a format.</summary>
    public static Cell Of(decimal number, CellFormat format) => new(new Displayed(number, format));

    /// <summary>A cell that holds a number which the file also has in words, as it is displayed: 1234.5 as <c>1.234,50 €</c>.</summary>
    public static Cell OfDisplayed(decimal number, string shown) => new(new Displayed(number, shown));

    /// <summary>A cell that holds a date.</summary>
    public static Cell Of(DateOnly date) => new(date);

    /// <summary>A cell that holds the error that a formula came to, as it is displayed: <c>#DIV/0!</c>.</summary>
    public static Cell OfError(string shown) => new(new Error(shown));

    /// <summary>What this cell is in a row below that it spans too.</summary>
    public Cell Below() => content is null or Merged ? this : new(new Merged(content));

    /// <inheritdoc cref="Text"/>
    public override string ToString() => Text;

    private static string WithoutControls(string text) => string.Create(text.Length, text, (to, from) =>
        {
            for (var i = 0; i < from.Length; i++)
            {
                to[i] = char.IsControl(from[i]) && from[i] is not ('\t' or '\n' or '\r') ? ' ' : from[i];
            }
        });

    private static string Normalised(string text)
    {
        try
        {
            return text.Normalize(NormalizationForm.FormC);
        }
        catch (ArgumentException)
        {
            // Half a surrogate pair has no normal form; it is replaced so that what is stored is valid Unicode.
            return new string([.. text.EnumerateRunes().SelectMany(r => r.ToString())]).Normalize(NormalizationForm.FormC);
        }
    }

    private sealed record Code(decimal Number, string Shown);

    private sealed record Displayed(decimal Number, object How)
    {
        /// <summary>The number as the cell shows it in its workbook: <c>1,234.50</c> for 1234.5 under two decimals.</summary>
        public string Shown => How as string ?? ((CellFormat)How).Show(Number);
    }

    private sealed record Error(string Shown);

    private sealed record Merged(object Value);
}
