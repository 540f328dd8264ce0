using System.Globalization;
using Rendal.Core.Money;
using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>A value of a statement before it is written: a text, an amount, a day or a number of days; or nothing.</summary>
public readonly record struct SheetCell
{
    /// <summary>The text; null where it is something else.</summary>
    public string? Text { get; private init; }

    /// <summary>The amount; null where it is something else.</summary>
    public decimal? Amount { get; private init; }

    /// <summary>The day; null where it is something else.</summary>
    public DateOnly? Day { get; private init; }

    /// <summary>The whole number; null where it is something else.</summary>
    public int? Count { get; private init; }

    /// <summary>A text; an empty one is an empty cell.</summary>
    public static SheetCell Of(string text) => new() { Text = text };

    /// <summary>An amount; null for nothing.</summary>
    public static SheetCell Of(decimal? amount) => new() { Amount = amount };

    /// <summary>A day; null for nothing.</summary>
    public static SheetCell Of(DateOnly? day) => new() { Day = day };

    /// <summary>A whole number; null for nothing.</summary>
    public static SheetCell Of(int? count) => new() { Count = count };

    /// <summary>
    /// The value as people read it in a language: an amount with the currency’s decimals, a day in its short form. Empty for nothing.
    /// </summary>
    public string Written(Language language, Currency currency) =>
        Amount is { } amount ? language.Write(amount, currency)
        : Day is { } day ? language.WriteShort(day)
        : Count is { } count ? count.ToString(CultureInfo.InvariantCulture)
        : Text ?? "";
}
