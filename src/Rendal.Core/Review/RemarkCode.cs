namespace Rendal.Core.Review;

/// <summary>What catches the eye in a filled message, the most serious first.</summary>
public enum RemarkCode
{
    /// <summary>The name of another customer of the book stands in it.</summary>
    OtherCustomer,

    /// <summary>Braces or marks of a template are left over in what was typed.</summary>
    BracesLeft,

    /// <summary>It greets nobody: <c>Dear ,</c>.</summary>
    EmptyGreeting,

    /// <summary>It greets twice: <c>Dear Dear Ms Caldera</c>.</summary>
    DoubledGreeting,

    /// <summary>It has no subject.</summary>
    EmptySubject,

    /// <summary>An amount that was typed is none of the parcel's.</summary>
    TypedAmount,

    /// <summary>A date or month that was typed is none of the parcel's.</summary>
    TypedDate,

    /// <summary>A link leads elsewhere than its words say.</summary>
    LinkElsewhere,

    /// <summary>It speaks of enclosures or copies that are not there.</summary>
    MissingEnclosure,

    /// <summary>The customer is written to in another language than the wording’s.</summary>
    OtherLanguage,

    /// <summary>A word stands twice in a row.</summary>
    DoubledWord,

    /// <summary>A space stands before a stop.</summary>
    SpaceBeforeStop,

    /// <summary>Two stops stand in a row.</summary>
    DoubledStop,

    /// <summary>Two spaces stand in a row in what was typed.</summary>
    DoubledSpace,
}
