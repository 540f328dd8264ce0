namespace Rendal.Core.Dispatch;

/// <summary>How one try to hand a message to a mail server ended.</summary>
public enum Ending
{
    /// <summary>The server took it.</summary>
    Accepted,

    /// <summary>The server answered 4yz, could not be reached, or the line was cut before it had the end of the data.</summary>
    TryLater,

    /// <summary>The server answered 5yz to this message.</summary>
    Refused,

    /// <summary>The server had the end of the data and gave no answer.</summary>
    Unanswered,

    /// <summary>The server did not accept the sign-in, so that no other message would fare better.</summary>
    SignInRefused,
}

/// <summary>What one recipient's server answer was.</summary>
/// <param name="Address">The recipient.</param>
/// <param name="Accepted">Whether the server took the recipient.</param>
/// <param name="Answer">The server's words, with code.</param>
public sealed record RecipientAnswer(string Address, bool Accepted, string Answer);

/// <summary>The outcome of one try.</summary>
/// <param name="Ending">How it ended.</param>
/// <param name="Answer">The server's own words with its code, or what happened on our side.</param>
/// <param name="Recipients">The answer for each recipient that the server was asked about.</param>
public sealed record Outcome(Ending Ending, string Answer, IReadOnlyList<RecipientAnswer> Recipients);
