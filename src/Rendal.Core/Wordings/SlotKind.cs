namespace Rendal.Core.Wordings;

/// <summary>What a slot is filled with, which decides how it can be written.</summary>
public enum SlotKind
{
    /// <summary>A text.</summary>
    Text,

    /// <summary>A day.</summary>
    Date,

    /// <summary>A month of a year.</summary>
    Month,

    /// <summary>An amount in each currency.</summary>
    Money,

    /// <summary>A number without a currency.</summary>
    Number,

    /// <summary>A piece of a page, which can stand in the body of a message only.</summary>
    Block,
}
