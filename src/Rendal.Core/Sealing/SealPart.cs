namespace Rendal.Core.Sealing;

/// <summary>What of a parcel can change after it was prepared. The order is that in which a person is told.</summary>
public enum SealPart
{
    /// <summary>Every line of its statements: items, what is open of each, ages, interest, movements.</summary>
    Figures,

    /// <summary>The addresses that it goes to, whether it goes on paper, and the accounts on it with their names.</summary>
    Recipients,

    /// <summary>The customer's card, without the notes.</summary>
    Card,

    /// <summary>The level of the reminder that it is.</summary>
    ReminderLevel,

    /// <summary>The wording, or what was written for this parcel alone, in its message or on its document.</summary>
    Wording,

    /// <summary>The layout.</summary>
    Layout,

    /// <summary>The firm's name and lines, with how to pay.</summary>
    Letterhead,

    /// <summary>The name and the addresses that it is sent under.</summary>
    Sender,

    /// <summary>The round's name, its as-of date, what it is about, its rate of interest, and the age bands.</summary>
    Round,

    /// <summary>The files that go with it beside its document, and in what form.</summary>
    Enclosures,
}

/// <summary>The parts in the words that people see.</summary>
public static class SealParts
{
    /// <summary>A part as it stands in a sentence: <c>the wording</c>.</summary>
    public static string Words(this SealPart part) =>
        part switch
        {
            SealPart.Figures => "the figures",
            SealPart.Recipients => "the recipients",
            SealPart.Card => "the card",
            SealPart.ReminderLevel => "the reminder level",
            SealPart.Wording => "the wording",
            SealPart.Layout => "the layout",
            SealPart.Letterhead => "the letterhead",
            SealPart.Sender => "the sender",
            SealPart.Enclosures => "the enclosures",
            SealPart.Round => "the round’s name, date or ages",
            _ => throw new ArgumentOutOfRangeException(nameof(part)),
        };
}
