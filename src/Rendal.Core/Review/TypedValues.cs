using System.Globalization;
using System.Text.RegularExpressions;
using Rendal.Core.Wordings;

namespace Rendal.Core.Review;

/// <summary>Amounts, dates and months in a text of a language.</summary>
internal static partial class TypedValues
{
    /// <summary>Amounts of money: figures with two decimals, or with a sign or code of a currency. Rates and hours are none.</summary>
    public static IEnumerable<(Match At, decimal Amount)> Amounts(string text) =>
        Amount()
            .Matches(text)
            .Where(m => m.Groups["sign"].Success || m.Groups["code"].Success || m.Groups["part"].Success)
            .Select(m => (At: m, Amount: Value(m.Groups["whole"].Value, m.Groups["part"].Value)))
            .Where(a => a.Amount is not null)
            .Select(a => (a.At, a.Amount!.Value));

    /// <summary>
    /// Days, in figures or with the month in words. A year of two figures counts between strokes alone: 15/11/26, not 4.05.12.
    /// </summary>
    public static IEnumerable<(Match At, DateOnly Day)> Days(string text, Language language)
    {
        foreach (Match m in InFigures().Matches(text))
        {
            var (first, second, third) = (Int(m.Groups[1]), Int(m.Groups[2]), Int(m.Groups[3]));
            var isShort = m.Groups[1].Length <= 2 && m.Groups[3].Length <= 2;
            if (
                (!isShort || m.Value.Contains('/', StringComparison.Ordinal))
                && Day(first > 31 ? first : third, second, first > 31 ? third : first) is { } day
            )
            {
                yield return (m, day);
            }
        }

        foreach (Match m in InWords(language).Matches(text))
        {
            if (m.Groups["day"].Success && Day(Int(m.Groups["year"]), MonthOf(language, m), Int(m.Groups["day"])) is { } day)
            {
                yield return (m, day);
            }
        }
    }

    /// <summary>Months with their year, without a day.</summary>
    public static IEnumerable<(Match At, int Year, int Month)> Months(string text, Language language) =>
        InWords(language).Matches(text).Where(m => !m.Groups["day"].Success).Select(m => (m, Int(m.Groups["year"]), MonthOf(language, m)));

    /// <summary>An amount; null where it has more figures than one can have.</summary>
    private static decimal? Value(string whole, string part) =>
        decimal.TryParse(
            string.Concat(whole.Where(char.IsAsciiDigit)) + "." + (part.Length > 0 ? part : "0"),
            NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var amount
        )
            ? amount
            : null;

    private static int Int(Group group) => int.Parse(group.Value, CultureInfo.InvariantCulture);

    private static DateOnly? Day(int year, int month, int day)
    {
        year = year < 100 ? 2000 + year : year;
        return year is >= 1 and <= 9999 && month is >= 1 and <= 12 && day >= 1 && day <= DateTime.DaysInMonth(year, month)
            ? new DateOnly(year, month, day)
            : null;
    }

    private static int MonthOf(Language language, Match m) =>
        language.Months.Index().First(of => string.Equals(of.Item, m.Groups["month"].Value, StringComparison.OrdinalIgnoreCase)).Index + 1;

    private static Regex InWords(Language language) => ByLanguage.Of(language);

    /// <summary>The dates of each language; made once.</summary>
    private static class ByLanguage
    {
        private static readonly Dictionary<string, Regex> Made = Language.All.ToDictionary(
            l => l.Code,
            l => new Regex(
                @"\b(?:(?<day>\d{1,2})(?:\.|er|st|nd|rd|th)? (?:de )?)?(?<month>"
                    + string.Join('|', l.Months.Select(Regex.Escape))
                    + @")(?: de)? (?<year>\d{4})\b",
                RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
                TimeSpan.FromSeconds(1)
            ),
            StringComparer.Ordinal
        );

        public static Regex Of(Language language) => Made[language.Code];
    }

    // The whole with any thousands mark, then decimals after the other mark. Not within a date, a longer number, a rate or an hour.
    [GeneratedRegex(
        """
            (?<![\w.,:/-])(?<sign>[£€$]\s?)?
            (?<whole>\d{1,3}(?:[.,'’\s\u202F]\d{3})+|\d+)(?:[.,](?<part>\d{2}))?
            (?![\d/:-])(?![.,]\d)(?!\s?(?:%|Uhr|h\b|am\b|pm\b|uur\b))
            (?:\s?(?<code>€|£|\$|(?:EUR|GBP|USD|CHF|Euro)\b))?
            """,
        RegexOptions.IgnorePatternWhitespace
    )]
    private static partial Regex Amount();

    [GeneratedRegex(@"(?<![\d./-])(\d{1,4})[./-](\d{1,2})[./-](\d{4}|\d{1,2})(?![\d/-])")]
    private static partial Regex InFigures();
}
