using System.Text;

namespace Rendal.Core.Money;

/// <summary>
/// An amount as it stands in a file, taken apart into sign, currency and digits, before it is known which
/// mark is the decimal mark.
/// </summary>
/// <param name="Digits">Digits and marks only, for example <c>1.234,50</c>. White space of any width is folded to one plain space.</param>
/// <param name="Negative">Whether a minus before or after, brackets, or <c>CR</c> was written.</param>
/// <param name="Currency">The currency written with it, if any.</param>
public readonly record struct WrittenAmount(string Digits, bool Negative, Currency? Currency)
{
    /// <summary>
    /// Takes an amount apart. Understood are <c>-12.00</c>, <c>−12.00</c> (U+2212), <c>12.00-</c>, <c>(12.00)</c>,
    /// <c>12.00 CR</c>, <c>12.00 DR</c>, a currency code or sign before or after, and thousands marks.
    /// Two signs at once (<c>-(12.00)</c>, <c>-12.00 CR</c>) are not an amount, nor is text without a digit.
    /// </summary>
    public static bool TryTake(string text, out WrittenAmount amount)
    {
        amount = default;
        if (IsPlain(text))
        {
            amount = text[0] == '-' ? new WrittenAmount(text[1..], true, null) : new WrittenAmount(text, false, null);
            return true;
        }

        var rest = Fold(text);
        var signs = 0;
        var negative = false;
        Currency? currency = null;

        bool again;
        do
        {
            again = false;
            if (rest.Length == 0)
            {
                return false;
            }

            // Before CR and DR: an amount in IDR ends in DR too.
            if (currency is null && TryTakeCurrency(rest, out var found, out var without))
            {
                (currency, rest, again) = (found, without, true);
            }
            else if (rest[0] == '(' && rest[^1] == ')')
            {
                (rest, negative, signs, again) = (rest[1..^1].Trim(), true, signs + 1, true);
            }
            else if (rest[0] is '-' or '+')
            {
                (negative, rest, signs, again) = (negative || rest[0] == '-', rest[1..].Trim(), signs + 1, true);
            }
            else if (rest[^1] is '-' or '+')
            {
                (negative, rest, signs, again) = (negative || rest[^1] == '-', rest[..^1].Trim(), signs + 1, true);
            }
            else if (rest.EndsWith("CR", StringComparison.OrdinalIgnoreCase) || rest.EndsWith("DR", StringComparison.OrdinalIgnoreCase))
            {
                (negative, rest, signs, again) = (negative || rest[^2] is 'C' or 'c', rest[..^2].Trim(), signs + 1, true);
            }
            else if (rest.Length > 1 && (rest[0] == '$' || rest[^1] == '$'))
            {
                // The sign says nothing about whose dollar: it is taken off, and the row's currency stands.
                (rest, again) = (rest[0] == '$' ? rest[1..].Trim() : rest[..^1].Trim(), true);
            }
        } while (again);

        if (signs > 1 || !rest.Any(char.IsAsciiDigit) || rest.Any(c => !char.IsAsciiDigit(c) && c is not (',' or '.' or '\'' or ' ')))
        {
            return false;
        }

        amount = new WrittenAmount(rest, negative, currency);
        return true;
    }

    /// <summary>
    /// What the marks of this one value say about the decimal mark of its column; null where it says nothing
    /// (<c>120</c>, and <c>1,234</c> which could be either). <c>1.234,5</c>, <c>12,50</c>, <c>1.234.567</c>,
    /// <c>1 234,567</c>, <c>0,500</c> and <c>12345,678</c> all say comma.
    /// </summary>
    public DecimalMark? Evidence()
    {
        var commas = Digits.AsSpan().Count(',');
        var points = Digits.AsSpan().Count('.');
        if (commas > 0 && points > 0)
        {
            return Digits.LastIndexOf(',') > Digits.LastIndexOf('.') ? DecimalMark.Comma : DecimalMark.Point;
        }

        if (commas + points == 0)
        {
            return null;
        }

        var mark = commas > 0 ? DecimalMark.Comma : DecimalMark.Point;
        if (commas + points > 1)
        {
            return mark == DecimalMark.Comma ? DecimalMark.Point : DecimalMark.Comma;
        }

        var at = Digits.IndexOfAny([',', '.']);
        var couldBeThousands =
            Digits.Length - at - 1 == 3 && at is >= 1 and <= 3 && Digits[0] != '0' && !Digits.Contains('\'') && !Digits.Contains(' ');
        return couldBeThousands ? null : mark;
    }

    /// <summary>Whether the value has one mark that could be a thousands mark as well as the decimal mark, like <c>1,234</c>.</summary>
    public bool IsAmbiguous => Evidence() is null && Digits.AsSpan().ContainsAny(',', '.');

    /// <summary>
    /// The signed value when the column's decimal mark is <paramref name="mark"/>. False when the value contradicts it: <c>12,50</c> under
    /// a point, <c>1.23.456</c>, <c>1,234 567</c> with two kinds of thousands marks.
    /// </summary>
    public bool TryValue(DecimalMark mark, out decimal value)
    {
        value = 0;
        var decimalChar = mark == DecimalMark.Comma ? ',' : '.';
        if (TryPlain(Digits, decimalChar, out var plain))
        {
            value = Negative ? -plain : plain;
            return true;
        }

        var at = Digits.IndexOf(decimalChar);
        var whole = at < 0 ? Digits : Digits[..at];
        var part = at < 0 ? "" : Digits[(at + 1)..];
        if (
            part.Any(c => !char.IsAsciiDigit(c))
            || !TryGroups(whole, out var wholeDigits)
            || wholeDigits.Length + part.Length is 0 or > 26
        )
        {
            return false;
        }

        value = decimal.Parse(
            $"{(wholeDigits.Length == 0 ? "0" : wholeDigits)}.{(part.Length == 0 ? "0" : part)}",
            System.Globalization.CultureInfo.InvariantCulture
        );
        value = Negative ? -value : value;
        return true;
    }

    /// <summary>
    /// Whether the text is nothing but figures with at most one mark among them, and perhaps a minus in front: the most usual way.
    /// </summary>
    private static bool IsPlain(string text)
    {
        var rest = text.AsSpan();
        rest = rest.Length > 0 && rest[0] == '-' ? rest[1..] : rest;
        var marks = 0;
        foreach (var c in rest)
        {
            if (c is '.' or ',')
            {
                marks++;
            }
            else if (!char.IsAsciiDigit(c))
            {
                return false;
            }
        }

        return marks <= 1 && rest.Length > marks;
    }

    /// <summary>The value of up to 18 figures with at most one decimal mark and no other; false for everything else.</summary>
    private static bool TryPlain(string digits, char decimalMark, out decimal value)
    {
        value = 0;
        long number = 0;
        var decimals = -1;
        if (digits.Length is 0 or > 18)
        {
            return false;
        }

        foreach (var c in digits)
        {
            if (char.IsAsciiDigit(c))
            {
                number = (number * 10) + (c - '0');
                decimals += decimals >= 0 ? 1 : 0;
            }
            else if (c == decimalMark && decimals < 0)
            {
                decimals = 0;
            }
            else
            {
                return false;
            }
        }

        value = new decimal((int)number, (int)(number >> 32), 0, false, (byte)Math.Max(decimals, 0));
        return true;
    }

    private static bool TryGroups(string whole, out string digits)
    {
        digits = whole;
        var mark = whole.FirstOrDefault(c => !char.IsAsciiDigit(c));
        if (mark == default)
        {
            return true;
        }

        var groups = whole.Split(mark);
        digits = string.Concat(groups);
        return groups[0].Length is >= 1 and <= 3 && groups.Skip(1).All(g => g.Length == 3) && digits.All(char.IsAsciiDigit);
    }

    private static bool TryTakeCurrency(string text, out Currency currency, out string rest)
    {
        foreach (var length in new[] { 1, 3 })
        {
            if (text.Length > length && Money.Currency.TryParse(text[..length], out currency))
            {
                rest = text[length..].Trim();
                return true;
            }

            if (text.Length > length && Money.Currency.TryParse(text[^length..], out currency))
            {
                rest = text[..^length].Trim();
                return true;
            }
        }

        (currency, rest) = (default, text);
        return false;
    }

    private static string Fold(string text)
    {
        var folded = new StringBuilder(text.Length);
        foreach (var c in text)
        {
            folded.Append(
                c switch
                {
                    '\u2212' or '\u2013' => '-',
                    '\u2019' => '\'',
                    '\u00A0' or '\u202F' or '\u2009' or '\t' => ' ',
                    _ => c,
                }
            );
        }

        return folded.ToString().Trim();
    }
}
