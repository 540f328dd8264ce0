namespace Rendal.Core.Wordings;

/// <summary>
/// The ways in which a slot can be written. The usual one has an empty name: a date in full (<c>31 October 2026</c>), a month with its
/// year (<c>October 2026</c>), an amount with its currency (<c>£1,234.50</c>).
/// </summary>
public static class SlotFormat
{
    /// <summary>A date in figures: <c>31.10.2026</c>.</summary>
    public const string Short = "short";

    /// <summary>The month alone: <c>October</c>.</summary>
    public const string Month = "month";

    /// <summary>The month of a date with its year: <c>October 2026</c>.</summary>
    public const string MonthAndYear = "month-and-year";

    /// <summary>An amount without its currency: <c>1,234.50</c>. Of several currencies each has it all the same.</summary>
    public const string Bare = "bare";

    /// <summary>The names of the ways beside the usual one; empty where there is none.</summary>
    public static IReadOnlyList<string> Of(SlotKind kind) =>
        kind switch
        {
            SlotKind.Date => [Short, Month, MonthAndYear],
            SlotKind.Month => [Month],
            SlotKind.Money => [Bare],
            _ => [],
        };

    /// <summary>Under which name the values of slots have one that is written so: <c>statement.date:short</c>.</summary>
    /// <param name="slot">The name of the slot.</param>
    /// <param name="format">The way; empty for the usual one.</param>
    public static string Key(string slot, string format) => format.Length == 0 ? slot : $"{slot}:{format}";
}
