namespace Rendal.Core.Wordings;

/// <summary>A condition about the value of a slot, a column of the files among them.</summary>
/// <param name="Slot">The slot; a text or a number.</param>
/// <param name="Comparison">What is asked of its value.</param>
/// <param name="With">The text that it is compared with; empty where none is needed.</param>
public sealed record SlotCondition(Slot Slot, SlotComparison Comparison, string With) : WordingCondition
{
    /// <inheritdoc/>
    public override bool Holds(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding)
    {
        var value = values.GetValueOrDefault(Slot.Name, "");
        return Comparison switch
        {
            SlotComparison.Is => Same(Slot, value, With),
            SlotComparison.IsNot => !Same(Slot, value, With),
            SlotComparison.Contains => value.Contains(With.Trim(), StringComparison.OrdinalIgnoreCase),
            SlotComparison.ContainsNot => !value.Contains(With.Trim(), StringComparison.OrdinalIgnoreCase),
            SlotComparison.IsEmpty => string.IsNullOrWhiteSpace(value),
            SlotComparison.IsNotEmpty => !string.IsNullOrWhiteSpace(value),
            _ => throw new InvalidOperationException($"{Comparison} is no comparison."),
        };
    }

    /// <summary>Whether the value of a slot is a text, as <see cref="SlotComparison.Is"/> says.</summary>
    internal static bool Same(Slot slot, string value, string text)
    {
        var (a, b) = (value.Trim(), text.Trim());
        return string.Equals(a, b, StringComparison.OrdinalIgnoreCase) || (slot.Name == "customer.title" && Salutation.AreAlike(a, b));
    }
}
