namespace Rendal.Core.Intake;

/// <summary>Days that spreadsheets keep as numbers.</summary>
public static class SerialDay
{
    private const int First = 25_569;
    private const int Last = 65_745;

    private static readonly DateOnly Zero1900 = new(1899, 12, 30);
    private static readonly DateOnly Zero1904 = new(1904, 1, 1);

    /// <summary>
    /// The day of a serial number, its part of a day left off: 46326 is 31 October 2026 in the 1900 system and 44864 in the 1904 system. A
    /// number of eight figures that is a date by ISO 8601 is one too: 20261031. Null for numbers outside 1970 to 2079, which are more
    /// likely something else.
    /// </summary>
    public static DateOnly? Of(decimal number, bool from1904)
    {
        if (number is >= 19_700_101 and <= 20_791_231 && number == decimal.Truncate(number))
        {
            var (y, m, d) = ((int)number / 10_000, (int)number / 100 % 100, (int)number % 100);
            return m is >= 1 and <= 12 && d >= 1 && d <= DateTime.DaysInMonth(y, m) ? new DateOnly(y, m, d) : null;
        }

        var zero = from1904 ? Zero1904 : Zero1900;
        var shift = from1904 ? Zero1904.DayNumber - Zero1900.DayNumber : 0;
        return number >= First - shift && number < Last - shift + 1 ? zero.AddDays((int)number) : null;
    }
}
