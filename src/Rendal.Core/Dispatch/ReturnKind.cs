namespace Rendal.Core.Dispatch;

/// <summary>What a message is that came in answer to one that was sent.</summary>
public enum ReturnKind
{
    /// <summary>A report that it could not be delivered to a recipient, for good.</summary>
    Failed,

    /// <summary>A report that it could not be delivered yet; the server goes on trying.</summary>
    Delayed,

    /// <summary>A program answers in the recipient's place: out of office.</summary>
    AutomaticReply,

    /// <summary>A report about the copy that went to the sender: nothing of the recipients'.</summary>
    OwnCopy,

    /// <summary>It may be a report, and does not say so in a form that can be relied upon: a person decides.</summary>
    Unclear,

    /// <summary>Anything else: a person's answer, a receipt, a report of a delivery that went well.</summary>
    Other,
}

/// <summary>The names of the kinds in the database and between programs.</summary>
public static class ReturnKinds
{
    /// <summary>The kind in kebab-case: <c>automatic-reply</c>.</summary>
    public static string Code(this ReturnKind kind) =>
        kind switch
        {
            ReturnKind.AutomaticReply => "automatic-reply",
            ReturnKind.OwnCopy => "own-copy",
            _ => kind.ToString().ToLowerInvariant(),
        };
}
