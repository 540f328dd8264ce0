using System.Globalization;
using System.Text.RegularExpressions;

namespace Rendal.Core.Customers;

/// <summary>How long after a document's date it is to be paid.</summary>
/// <param name="Days">Days to add; 0 to 3650.</param>
/// <param name="FromMonthEnd">Whether they are added to the last day of the document's month.</param>
public readonly partial record struct PaymentTerms(int Days, bool FromMonthEnd = false)
{
    /// <summary>The most days that terms may have.</summary>
    public const int MostDays = 3650;

    /// <summary>
    /// When a document of this date is due: 30 days net from 15 January give 14 February; end of month and 30 days give 2 March (in a year
    /// with 28 days in February).
    /// </summary>
    public DateOnly DueOn(DateOnly date) =>
        (FromMonthEnd ? new DateOnly(date.Year, date.Month, DateTime.DaysInMonth(date.Year, date.Month)) : date).AddDays(Days);

    /// <summary>
    /// Understands <c>30</c>, <c>30 days</c>, <c>net 30</c>, <c>30 net</c>, <c>EOM</c>, <c>EOM + 30</c>, <c>30 days end of month</c> and
    /// <c>30 Tage netto</c>.
    /// </summary>
    public static bool TryParse(string text, out PaymentTerms terms)
    {
        terms = default;
        var match = Written().Match(text.Trim());
        if (!match.Success)
        {
            return false;
        }

        var monthEnd = match.Groups["eom"].Success;
        var digits = match.Groups["days"].Value;
        var days = 0;
        if (
            (digits.Length == 0 && !monthEnd)
            || (digits.Length > 0 && !int.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out days))
            || days > MostDays
        )
        {
            return false;
        }

        terms = new PaymentTerms(days, monthEnd);
        return true;
    }

    /// <summary>As people write it: <c>30 days</c>, <c>end of month + 30 days</c>.</summary>
    public override string ToString() =>
        FromMonthEnd
            ? Days == 0
                ? "end of month"
                : $"end of month + {Days} days"
            : $"{Days} days";

    [GeneratedRegex(
        @"^(?:(?<eom>eom|end of month)\s*(?:\+\s*)?)?(?:net\s*)?(?<days>[0-9]*)\s*"
            + @"(?:d|days?|tage|jours|días|dias|giorni|dagen)?\s*(?:net|netto)?\s*"
            + @"(?<eom>eom|end of month|from end of month)?$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Written();
}
