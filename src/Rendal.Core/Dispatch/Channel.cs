namespace Rendal.Core.Dispatch;

/// <summary>How parcels leave.</summary>
public enum Channel
{
    /// <summary>By the sender's mail server.</summary>
    Mail,

    /// <summary>As files, to be sent from one's own mail program.</summary>
    File,

    /// <summary>On paper alone.</summary>
    Post,
}
