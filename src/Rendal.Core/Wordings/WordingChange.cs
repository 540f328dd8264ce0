namespace Rendal.Core.Wordings;

/// <summary>What of a wording a person changed.</summary>
public enum WordingChange
{
    /// <summary>What the bookkeeper calls it.</summary>
    Name,

    /// <summary>The language that it is written in.</summary>
    Language,

    /// <summary>Its subject.</summary>
    Subject,

    /// <summary>Its body.</summary>
    Body,
}
