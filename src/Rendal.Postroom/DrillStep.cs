namespace Rendal.Postroom;

/// <summary>Where in a conversation a drill happens (RFC 5321).</summary>
public enum DrillStep
{
    /// <summary>When the line is opened, instead of the first <c>220</c>.</summary>
    Greeting,

    /// <summary>At <c>EHLO</c> or <c>HELO</c>.</summary>
    Hello,

    /// <summary>At <c>STARTTLS</c>.</summary>
    Security,

    /// <summary>At <c>AUTH</c>, once name and password were said.</summary>
    SignIn,

    /// <summary>At <c>MAIL FROM</c>.</summary>
    Sender,

    /// <summary>At each <c>RCPT TO</c>.</summary>
    Recipient,

    /// <summary>At <c>DATA</c>; a cut falls when a part of the message has come.</summary>
    Data,

    /// <summary>After the line with the single dot.</summary>
    End,
}
