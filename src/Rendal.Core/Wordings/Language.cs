using System.Diagnostics.CodeAnalysis;
using System.Globalization;
using Rendal.Core.Money;
using Rendal.Core.Texts;

namespace Rendal.Core.Wordings;

/// <summary>
/// A language in which customers are written to: how it writes dates and amounts. The conventions are fixed here
/// and do not change with the machine or its libraries, because a statement printed again must read the same.
/// </summary>
public sealed class Language
{
    private readonly string[] months;
    private readonly string date;
    private readonly string dateOfFirst;
    private readonly string shortDate;
    private readonly string monthAndYear;
    private readonly string oneOfSeveral;
    private readonly string[] greetings;

    private Language(string code)
    {
        var text = TextFile.Read(code, "language.txt");
        Code = code;
        Name = text["Name"];
        Mark = text["Decimal mark"] == "," ? DecimalMark.Comma : DecimalMark.Point;
        Thousands = text["Thousands mark"];
        shortDate = text["Date in figures"];
        date = text["Date", "day", "month", "year"];
        dateOfFirst = text.Optional("Date of a first", "month", "year") ?? TextFile.Fill(date, ("day", 1));
        months = text["Months"].Split(' ');
        monthAndYear = text["Month and year", "month", "year"];
        oneOfSeveral = text["One of several", "number", "count"];
        greetings = [text["Greeting in the morning"], text["Greeting in the afternoon"], text["Greeting in the evening"]];
        text.End();
    }

    /// <summary>English: 1,234.50 and 31 October 2026.</summary>
    public static Language English => All[0];

    /// <summary>All languages, English first.</summary>
    public static IReadOnlyList<Language> All { get; } = [.. TextFile.Languages().Select(code => new Language(code))];

    /// <summary>Two letters of ISO 639-1.</summary>
    public string Code { get; }

    /// <summary>The language's own name.</summary>
    public string Name { get; }

    /// <summary>The decimal mark.</summary>
    public DecimalMark Mark { get; }

    /// <summary>The thousands mark.</summary>
    public string Thousands { get; }

    /// <summary>The twelve month names, as they stand inside a date.</summary>
    public IReadOnlyList<string> Months => months;

    /// <summary>The language of a code.</summary>
    /// <param name="code">One of <see cref="All"/>, such as <c>de</c>.</param>
    /// <exception cref="ArgumentException">There is no such language.</exception>
    public static Language Of(string code) =>
        TryParse(code, out var language) ? language : throw new ArgumentException($"There is no language “{code}”.", nameof(code));

    /// <summary>The language of a code such as <c>de</c>, <c>DE</c> or <c>de-AT</c>.</summary>
    public static bool TryParse(string? code, [NotNullWhen(true)] out Language? language)
    {
        var first = code?.Trim().Split('-', '_')[0];
        language = All.FirstOrDefault(l => string.Equals(l.Code, first, StringComparison.OrdinalIgnoreCase));
        return language is not null;
    }

    /// <summary>The date in full: <c>31 October 2026</c>.</summary>
    public string Write(DateOnly day) =>
        TextFile.Fill(day.Day == 1 ? dateOfFirst : date, ("day", day.Day), ("month", months[day.Month - 1]), ("year", day.Year));

    /// <summary>
    /// The date in figures, or with the month cut short in English, where a two-figure month would be read two ways: <c>31 Oct 2026</c>,
    /// <c>31.10.2026</c>.
    /// </summary>
    public string WriteShort(DateOnly day) => day.ToString(shortDate, CultureInfo.InvariantCulture);

    /// <summary>The month with its year: <c>October 2026</c>, <c>octubre de 2026</c>.</summary>
    public string WriteMonth(DateOnly day) => TextFile.Fill(monthAndYear, ("month", months[day.Month - 1]), ("year", day.Year));

    /// <summary>How one greets at a time of the day: <c>Good morning</c>.</summary>
    public string Greeting(DayPart part) => greetings[(int)part];

    /// <summary>The part of the day that a time is in: the morning before 12:00, the evening from 18:00; null of none.</summary>
    public static DayPart? PartOf(TimeOnly? time) =>
        time switch
        {
            null => null,
            { Hour: < 12 } => DayPart.Morning,
            { Hour: < 18 } => DayPart.Afternoon,
            _ => DayPart.Evening,
        };

    /// <summary>Which of several: <c>1 of 2</c>, <c>1 von 2</c>.</summary>
    public string WriteOneOf(int number, int count) => TextFile.Fill(oneOfSeveral, ("number", number), ("count", count));

    /// <summary>A rate in per cent, without the sign, with no more decimals than it has: <c>8</c>, <c>8.25</c>, <c>8,25</c>.</summary>
    public string WriteRate(decimal percent)
    {
        var written = percent.ToString("0.####", CultureInfo.InvariantCulture);
        return Mark == DecimalMark.Comma ? written.Replace('.', ',') : written;
    }

    /// <summary>
    /// The amount alone, with thousands marks, the currency's decimals and a true minus (U+2212): <c>−1,234.50</c>.
    /// </summary>
    public string Write(decimal amount, Currency currency)
    {
        var rounded = currency.Round(amount);
        var digits = Math.Abs(rounded).ToString("#,##0." + new string('0', currency.Decimals), CultureInfo.InvariantCulture);
        var dot = digits.IndexOf('.', StringComparison.Ordinal);
        var whole = (dot < 0 ? digits : digits[..dot]).Replace(",", Thousands, StringComparison.Ordinal);
        var part = dot < 0 ? "" : (Mark == DecimalMark.Comma ? "," : ".") + digits[(dot + 1)..];
        return (rounded < 0 ? "\u2212" : "") + whole + part;
    }

    /// <summary>The amount with its currency, as the language places it: <c>£1,234.50</c>, <c>1.234,50 €</c>, <c>−£12.00</c>.</summary>
    public string WriteWithCurrency(decimal amount, Currency currency)
    {
        if (Mark == DecimalMark.Comma)
        {
            return Write(amount, currency) + "\u00A0" + currency.Sign;
        }

        var digits = Write(Math.Abs(currency.Round(amount)), currency);
        var sign = currency.Sign.Length == 1 ? currency.Sign : currency.Sign + "\u00A0";
        return (currency.Round(amount) < 0 ? "\u2212" : "") + sign + digits;
    }
}
