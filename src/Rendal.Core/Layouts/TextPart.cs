namespace Rendal.Core.Layouts;

/// <summary>When a text stands on a document.</summary>
public enum TextWhen
{
    /// <summary>Always.</summary>
    Always,

    /// <summary>Where something is past due.</summary>
    Overdue,

    /// <summary>Where nothing is past due.</summary>
    NotOverdue,

    /// <summary>On reminders.</summary>
    Reminder,

    /// <summary>On statements that are no reminder.</summary>
    NoReminder,

    /// <summary>Where one item stands on it.</summary>
    OneItem,

    /// <summary>Where several items stand on it.</summary>
    SeveralItems,
}

/// <summary>Paragraphs and lists with slots.</summary>
public sealed record TextPart : LayoutPart
{
    /// <summary>The text as an HTML fragment, written as the body of a <see cref="Wordings.Wording"/> is.</summary>
    public required string Text { get; init; }

    /// <summary>When it stands there.</summary>
    public TextWhen When { get; init; }
}
