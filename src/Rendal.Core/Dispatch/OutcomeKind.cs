namespace Rendal.Core.Dispatch;

/// <summary>How one attempt to hand a message to a mail server ended.</summary>
public enum OutcomeKind
{
    /// <summary>The server took it.</summary>
    Accepted,

    /// <summary>The server answered 4yz to this message, or the line was cut before it had the end of the data.</summary>
    TryLater,

    /// <summary>The server answered 5yz to this message.</summary>
    Refused,

    /// <summary>The server had the end of the data and gave no answer.</summary>
    Unanswered,

    /// <summary>The server did not accept the sign-in, so that no other message would fare better.</summary>
    SignInRefused,

    /// <summary>
    /// The server could not be reached, would not talk, or was not the one it should be, so that no other message would fare better now.
    /// </summary>
    Unreachable,

    /// <summary>It was made up for one's own mail program, and no server asked.</summary>
    Exported,

    /// <summary>It was made up for the post, and no server asked.</summary>
    Printed,

    /// <summary>It was broken off on our side, before the server was given the end of the data.</summary>
    Stopped,
}
