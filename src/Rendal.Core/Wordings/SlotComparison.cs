namespace Rendal.Core.Wordings;

/// <summary>What is asked of the value of a slot. Large and small letters count as the same.</summary>
public enum SlotComparison
{
    /// <summary>Whether it is a text. Of titles, those of women count as the same, and those of men: Ms is Mrs, and Frau.</summary>
    Is,

    /// <summary>Whether it is any other, or empty.</summary>
    IsNot,

    /// <summary>Whether a text stands in it.</summary>
    Contains,

    /// <summary>Whether a text does not stand in it.</summary>
    ContainsNot,

    /// <summary>Whether there is none.</summary>
    IsEmpty,

    /// <summary>Whether there is one.</summary>
    IsNotEmpty,
}
