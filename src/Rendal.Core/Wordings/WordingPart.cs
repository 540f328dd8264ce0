namespace Rendal.Core.Wordings;

/// <summary>
/// A piece of a template: what people typed, a slot, a choice of a word, or pieces under a condition. What was typed is never read as
/// anything else.
/// </summary>
public abstract record WordingPart;

/// <summary>What stands as it is.</summary>
/// <param name="Text">Text of a subject, HTML of a body.</param>
public sealed record WordingText(string Text) : WordingPart;

/// <summary>A place to be filled.</summary>
/// <param name="Slot">The slot.</param>
/// <param name="OrElse">What stands there instead where it is empty; empty for nothing, so that a message lacks it.</param>
/// <param name="Format">
/// How it is written, one of <see cref="SlotFormat.Of"/>; of a table its columns (<see cref="TableColumns"/>), of a button the words on
/// it. Empty for the usual way.
/// </param>
/// <param name="IsCapital">Whether its first letter is made a large one.</param>
public sealed record WordingSlot(Slot Slot, string OrElse, string Format = "", bool IsCapital = false) : WordingPart
{
    /// <summary>Under which name its value stands among those of a customer.</summary>
    public string Key => SlotFormat.Key(Slot.Name, Format);
}

/// <summary>A word that is chosen by the value of a slot: his, her or their by the title; invoice or invoices by a number.</summary>
/// <param name="By">The slot.</param>
/// <param name="Words">The values, compared as <see cref="SlotComparison.Is"/> says, and the word for each.</param>
/// <param name="OrElse">The word for any other value; it may be empty, and nothing stands there then.</param>
public sealed record WordingChoice(Slot By, IReadOnlyList<(string Value, string Word)> Words, string OrElse) : WordingPart
{
    /// <summary>The word for a customer.</summary>
    /// <param name="values">The values of the slots.</param>
    public string WordFor(IReadOnlyDictionary<string, string> values)
    {
        var value = values.GetValueOrDefault(By.Name, "");
        return Words.Where(w => SlotCondition.Same(By, value, w.Value)).Select(w => w.Word).FirstOrDefault(OrElse);
    }
}

/// <summary>Pieces that stand only where a condition holds.</summary>
/// <param name="When">The condition.</param>
/// <param name="Parts">The pieces.</param>
public sealed record WordingPassage(WordingCondition When, IReadOnlyList<WordingPart> Parts) : WordingPart;
