using System.Text.Json;
using AngleSharp.Dom;
using Rendal.Core.Wordings;

namespace Rendal.Html;

/// <summary>
/// The attributes by which an element of a wording is a slot, a choice of a word or a passage under a condition.
/// <code>
/// &lt;span data-slot="statement.date" data-format="short" data-capital data-or-else="…"&gt;
/// &lt;span data-choice="customer.title" data-words='[["Mr","his"],["Ms","her"]]' data-or-else="their"&gt;
/// &lt;span data-when="overdue"&gt;…&lt;/span&gt;
/// &lt;span data-when="slot" data-of="column.Round" data-is="contains" data-with="N7"&gt;…&lt;/span&gt;
/// </code>
/// </summary>
internal static class WordingMarks
{
    /// <summary>The name of a slot.</summary>
    public const string Slot = "data-slot";

    /// <summary>What stands where a slot is empty, or where no value of a choice is met.</summary>
    public const string OrElse = "data-or-else";

    /// <summary>How a slot is written.</summary>
    public const string Format = "data-format";

    /// <summary>There where the first letter of a slot is made a large one.</summary>
    public const string Capital = "data-capital";

    /// <summary>The slot that a word is chosen by.</summary>
    public const string Choice = "data-choice";

    /// <summary>The values and words of a choice: JSON, an array of pairs of texts.</summary>
    public const string Words = "data-words";

    /// <summary>The condition of a passage, a name of <see cref="TextConditions"/>, or <see cref="BySlot"/>.</summary>
    public const string When = "data-when";

    /// <summary>The condition that asks for the value of a slot.</summary>
    public const string BySlot = "slot";

    /// <summary>The slot that such a condition asks for.</summary>
    public const string Of = "data-of";

    /// <summary>What it asks: a <see cref="SlotComparison"/> in kebab-case.</summary>
    public const string Is = "data-is";

    /// <summary>What the value is compared with.</summary>
    public const string With = "data-with";

    /// <summary>All of them.</summary>
    public static IReadOnlyList<string> Attributes { get; } = [Slot, OrElse, Format, Capital, Choice, Words, When, Of, Is, With];

    private static readonly Dictionary<string, SlotComparison> Comparisons = new(StringComparer.Ordinal)
    {
        ["is"] = SlotComparison.Is,
        ["is-not"] = SlotComparison.IsNot,
        ["contains"] = SlotComparison.Contains,
        ["contains-not"] = SlotComparison.ContainsNot,
        ["is-empty"] = SlotComparison.IsEmpty,
        ["is-not-empty"] = SlotComparison.IsNotEmpty,
    };

    /// <summary>The comparison of an element; null where it says none that is known.</summary>
    public static SlotComparison? Comparison(IElement element) =>
        Comparisons.TryGetValue(element.GetAttribute(Is) ?? "", out var comparison) ? comparison : null;

    /// <summary>The values and words of a choice; null where they are not written as they should be.</summary>
    public static IReadOnlyList<(string Value, string Word)>? ChoiceWords(IElement element)
    {
        try
        {
            var pairs = JsonSerializer.Deserialize<string?[]?[]>(element.GetAttribute(Words) ?? "");
            return pairs is { Length: > 0 } && pairs.All(p => p is [not null, not null]) ? [.. pairs.Select(p => (p![0]!, p[1]!))] : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
