namespace Rendal.App;

/// <summary>Why something cannot be done.</summary>
public enum ProblemReason
{
    /// <summary>What it is about is not there, or not for this person.</summary>
    NotFound,

    /// <summary>It does not fit what others did meanwhile, or where things stand.</summary>
    Conflict,

    /// <summary>What was asked for makes no sense as it is.</summary>
    Invalid,

    /// <summary>This person may not.</summary>
    Forbidden,

    /// <summary>Nobody is signed in, or the name or the password is wrong.</summary>
    NotSignedIn,

    /// <summary>It was tried too often.</summary>
    TooMany,
}

/// <summary>Something that cannot be done, in words for the person who asked.</summary>
/// <param name="reason">Why.</param>
/// <param name="message">What happened, where, and what to do.</param>
public sealed class ProblemException(ProblemReason reason, string message) : Exception(message)
{
    /// <summary>Why.</summary>
    public ProblemReason Reason { get; } = reason;

    /// <summary>After how many seconds it is worth trying again; null where waiting changes nothing.</summary>
    public int? RetryAfterSeconds { get; init; }

    /// <summary>It is not there: of “This round”, “This round is not there.”</summary>
    public static ProblemException NotFound(string what) => new(ProblemReason.NotFound, $"{what} is not there.");

    /// <summary>It does not fit where things stand.</summary>
    public static ProblemException Conflict(string message) => new(ProblemReason.Conflict, message);

    /// <summary>It makes no sense as it is.</summary>
    public static ProblemException Invalid(string message) => new(ProblemReason.Invalid, message);
}
