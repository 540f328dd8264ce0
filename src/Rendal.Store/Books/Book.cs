using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Statements;

namespace Rendal.Store.Books;

/// <summary>One firm's customers, ledger, layouts, wordings and senders.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Currency">The currency of rows that name none.</param>
/// <param name="TermsDays">Days net where neither file nor customer says.</param>
/// <param name="TimeZone">IANA name of the zone that "today" is taken from.</param>
/// <param name="Rules">What holds for all its statements.</param>
/// <param name="Firm">The firm as it stands on letters.</param>
/// <param name="ChangesByKind">How many changes were made until then to what its messages and documents are made from, by kind; what was
/// decided within rounds is not counted.</param>
public sealed record Book(
    long Id,
    Currency Currency,
    int TermsDays,
    string TimeZone,
    StatementRules Rules,
    Firm Firm,
    IReadOnlyDictionary<ContentKind, long> ChangesByKind
)
{
    /// <summary>Whether nobody may release what they prepared themselves.</summary>
    public bool NeedsSecondPerson { get; init; }

    /// <summary>How many changes were made in all; no two states of the book have the same.</summary>
    public long Changes { get; } = ChangesByKind.Values.Sum();

    /// <summary>
    /// How many changes were made of some kinds, as one text: <c>Book 2, Card 14</c>. What depends on these alone is the same as long as
    /// it is.
    /// </summary>
    public string ChangesOf(params ReadOnlySpan<ContentKind> kinds) =>
        string.Join(", ", kinds.ToArray().Select(k => $"{k} {ChangesByKind.GetValueOrDefault(k)}"));

    /// <summary>The day that it is in the book's zone.</summary>
    public DateOnly Today(TimeProvider clock) => DayOf(clock.GetUtcNow());

    /// <summary>The day that it was in the book's zone: of 23:30 UTC on 2 November, in Europe/Paris, 3 November.</summary>
    public DateOnly DayOf(DateTimeOffset time) => DateOnly.FromDateTime(ByItsClock(time).DateTime);

    /// <summary>The time of day that it was in the book's zone: of 23:30 UTC on 2 November, in Europe/Paris, 00:30.</summary>
    public TimeOnly HourOf(DateTimeOffset time) => TimeOnly.FromDateTime(ByItsClock(time).DateTime);

    /// <summary>
    /// The first moment of a day in the book's zone. Where clocks are put forward at midnight and the day begins later, it is that.
    /// </summary>
    public DateTimeOffset StartOf(DateOnly day)
    {
        var zone = TimeZoneInfo.FindSystemTimeZoneById(TimeZone);
        var midnight = day.ToDateTime(TimeOnly.MinValue);
        while (zone.IsInvalidTime(midnight))
        {
            midnight = midnight.AddMinutes(15);
        }

        // Where clocks are put back at midnight it comes twice; the first has the greater offset.
        return new DateTimeOffset(
            midnight,
            zone.IsAmbiguousTime(midnight) ? zone.GetAmbiguousTimeOffsets(midnight).Max() : zone.GetUtcOffset(midnight)
        );
    }

    /// <summary>The same moment, as the clock in the book's zone showed it.</summary>
    public DateTimeOffset ByItsClock(DateTimeOffset time) => TimeZoneInfo.ConvertTime(time, TimeZoneInfo.FindSystemTimeZoneById(TimeZone));
}
