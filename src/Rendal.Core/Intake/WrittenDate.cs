using System.Globalization;
using System.Text;
using Rendal.Core.Wordings;

namespace Rendal.Core.Intake;

/// <summary>
/// A date as it stands in a file, taken apart before it is known whether the day or the month comes first.
/// </summary>
public readonly record struct WrittenDate
{
    private static readonly DateOnly SerialZero = new(1899, 12, 30);

    private readonly int first;
    private readonly int second;
    private readonly int year;
    private readonly DateOnly? settled;

    private WrittenDate(int first, int second, int year, DateOnly? settled, bool shortYear = false) =>
        (this.first, this.second, this.year, this.settled, HasShortYear) = (first, second, year, settled, shortYear);

    /// <summary>Whether the part that stands last has two figures, so that the year could also stand first: 26/10/31.</summary>
    public bool HasShortYear { get; }

    /// <summary>
    /// Takes a date apart: ISO (<c>2026-10-31</c>, also with a time behind it, and <c>20261031</c>), figures with <c>/ . -</c> or spaces
    /// (<c>31/10/26</c>), month names in the languages of <see cref="Language.All"/> in full or cut to three letters and more (<c>31 Oct
    /// 2026</c>, <c>Okt. 31, 2026</c>), and serial numbers of spreadsheets in the 1900 system (<c>46326</c>). Years 00–79 are 20xx, 80–99
    /// are 19xx. Whether the day exists is asked later, by <see cref="TryDay"/>.
    /// </summary>
    public static bool TryTake(string text, out WrittenDate date)
    {
        date = default;
        var parts = Split(WithoutTime(text));
        if (parts.Count == 1)
        {
            return TryDigits(parts[0], out date);
        }

        if (parts.Count != 3)
        {
            return false;
        }

        var named = parts.FindIndex(p => !char.IsAsciiDigit(p[0]));
        if (named >= 0)
        {
            return TryNamed(parts, named, out date);
        }

        if (!parts.TrueForAll(p => p.Length is 1 or 2 or 4 && p.All(char.IsAsciiDigit)))
        {
            return false;
        }

        var numbers = parts.ConvertAll(p => int.Parse(p, CultureInfo.InvariantCulture));
        if (parts[0].Length == 4)
        {
            return parts[1].Length <= 2 && parts[2].Length <= 2 && Settle(numbers[0], numbers[1], numbers[2], out date);
        }

        if (parts[0].Length > 2 || parts[1].Length > 2 || parts[2].Length == 1)
        {
            return false;
        }

        // 26-10-31 could be the 26th or the year 26; two-digit years stand last unless the reading says year first.
        var shortYear = parts[2].Length == 2;
        date = new WrittenDate(numbers[0], numbers[1], shortYear ? Century(numbers[2]) : numbers[2], null, shortYear);
        return true;
    }

    /// <summary>Whether the value is clear by itself: ISO, with a month name, or a serial number.</summary>
    public bool IsSettled => settled is not null || year == 0;

    /// <summary>
    /// What this one value says about its column: a first part over 12 means day first, a second part over 12 month first, else null.
    /// </summary>
    public DateOrder? Evidence() =>
        IsSettled ? null
        : first > 12 && second <= 12 ? DateOrder.DayFirst
        : second > 12 && first <= 12 ? DateOrder.MonthFirst
        : null;

    /// <summary>Whether day and month could change places and give another date: 03/04/2026, but not 04/04/2026.</summary>
    public bool IsAmbiguous => !IsSettled && first <= 12 && second <= 12 && first != second;

    /// <summary>The day, when the column is read in this order. False where there is no such day: 31/02/2026 in either order.</summary>
    public bool TryDay(DateOrder order, out DateOnly day)
    {
        if (settled is { } known)
        {
            day = known;
            return true;
        }

        var (y, m, d) = order switch
        {
            DateOrder.DayFirst => (year, second, first),
            DateOrder.MonthFirst => (year, first, second),
            _ => HasShortYear ? (Century(first), second, year % 100) : default,
        };
        return TryMake(y, m, d, out day);
    }

    private static bool Settle(int y, int m, int d, out WrittenDate date)
    {
        var exists = TryMake(y, m, d, out var day);

        // A date that is clear but does not exist stays one: year 0 makes every order fail later, on its row.
        date = exists ? new WrittenDate(0, 0, 0, day) : new WrittenDate(99, 99, 0, null);
        return true;
    }

    private static bool TryMake(int y, int m, int d, out DateOnly day)
    {
        var exists = y is >= 1 and <= 9999 && m is >= 1 and <= 12 && d >= 1 && d <= DateTime.DaysInMonth(y, m);
        day = exists ? new DateOnly(y, m, d) : default;
        return exists;
    }

    private static bool TryDigits(string text, out WrittenDate date)
    {
        date = default;
        if (!text.All(char.IsAsciiDigit))
        {
            return false;
        }

        if (text.Length == 8)
        {
            var n = int.Parse(text, CultureInfo.InvariantCulture);
            return Settle(n / 10000, n / 100 % 100, n % 100, out date);
        }

        if (text.Length != 5)
        {
            return false;
        }

        date = new WrittenDate(0, 0, 0, SerialZero.AddDays(int.Parse(text, CultureInfo.InvariantCulture)));
        return true;
    }

    private static bool TryNamed(List<string> parts, int named, out WrittenDate date)
    {
        date = default;
        var month = MonthOf(parts[named]);
        var others = parts.Where((_, i) => i != named).ToList();
        if (month == 0 || named == 2 || !others.TrueForAll(p => p.Length <= 4 && p.All(char.IsAsciiDigit)))
        {
            return false;
        }

        var yearFirst = others[0].Length == 4;
        var (y, d) = yearFirst ? (others[0], others[1]) : (others[1], others[0]);
        var number = int.Parse(y, CultureInfo.InvariantCulture);
        return y.Length is 2 or 4
            && d.Length <= 2
            && Settle(y.Length == 2 ? Century(number) : number, month, int.Parse(d, CultureInfo.InvariantCulture), out date);
    }

    private static int MonthOf(string word)
    {
        var wanted = Plain(word);
        if (wanted.Length < 3)
        {
            return 0;
        }

        foreach (var language in Language.All)
        {
            for (var i = 0; i < 12; i++)
            {
                if (Plain(language.Months[i]).StartsWith(wanted, StringComparison.Ordinal))
                {
                    return i + 1;
                }
            }
        }

        // Abbreviations that are not the beginning of the word: September cut to four, March and May in German and Dutch.
        return wanted switch
        {
            "sept" => 9,
            "mrz" => 3,
            "mrt" => 3,
            "mae" => 3,
            _ => 0,
        };
    }

    private static string Plain(string word)
    {
        var plain = new StringBuilder();
        foreach (var c in word.Normalize(NormalizationForm.FormD).Where(char.IsLetter))
        {
            plain.Append(char.ToLowerInvariant(c));
        }

        return plain.ToString();
    }

    private static int Century(int twoDigits) =>
        twoDigits <= 79 ? 2000 + twoDigits
        : twoDigits <= 99 ? 1900 + twoDigits
        : twoDigits;

    private static string WithoutTime(string text)
    {
        var trimmed = text.Trim();
        var time = trimmed.IndexOf(':', StringComparison.Ordinal);
        if (time < 0)
        {
            return trimmed;
        }

        var end = trimmed.LastIndexOfAny([' ', 'T'], time);
        return end < 0 ? trimmed : trimmed[..end];
    }

    private static List<string> Split(string text)
    {
        var parts = new List<string>();
        var part = new StringBuilder();
        foreach (var c in text)
        {
            if (char.IsLetterOrDigit(c))
            {
                // 31Oct2026 and 1er octobre: a change from figures to letters ends a part.
                if (part.Length > 0 && char.IsDigit(part[^1]) != char.IsDigit(c))
                {
                    parts.Add(part.ToString());
                    part.Clear();
                }

                part.Append(c);
            }
            else if (c is '/' or '.' or '-' or ' ' or ',' or '\'')
            {
                if (part.Length > 0)
                {
                    parts.Add(part.ToString());
                    part.Clear();
                }
            }
            else
            {
                return [];
            }
        }

        if (part.Length > 0)
        {
            parts.Add(part.ToString());
        }

        // Spanish "31 de octubre de 2026", English "31st", French "1er": little words say nothing.
        parts.RemoveAll(p => p is "de" or "of" or "st" or "nd" or "rd" or "th" or "er");
        return parts;
    }
}
