using System.Text.RegularExpressions;

namespace Rendal.Core.Dispatch;

/// <summary>What a mail server answered when it was given one recipient.</summary>
/// <param name="Address">The recipient.</param>
/// <param name="Accepted">Whether the server took the recipient.</param>
/// <param name="Answer">The server's words, with code.</param>
public sealed partial record RecipientAnswer(string Address, bool Accepted, string Answer)
{
    /// <summary>Whether it is to be asked for again later (4yz of RFC 5321).</summary>
    public bool IsPutOff => !Accepted && Answer.StartsWith('4');

    /// <summary>
    /// Whether there is nobody at this address: a status 5.1.x of RFC 3463 that is not about the sender, 5.2.1, or without a status one of
    /// 550, 551 and 553. A message that is too large, a full mailbox and a matter of policy say nothing of that.
    /// </summary>
    public bool IsAddressBad =>
        !Accepted && (StatusIn(Answer) is { Length: > 0 } status ? BadAddress().IsMatch(status) : BadMailbox().IsMatch(Answer));

    /// <summary>
    /// The first status of RFC 3463 in a server's words, such as 5.1.1; empty where there is none. The parts of an IP address or a date
    /// are none.
    /// </summary>
    public static string StatusIn(string words) => Status().Match(words).Value;

    [GeneratedRegex(@"(?<![\d.])[245]\.\d{1,3}\.\d{1,3}(?!\.?\d)")]
    private static partial Regex Status();

    [GeneratedRegex(@"^5\.(?:1\.(?!7$|8$)\d+|2\.1)$")]
    private static partial Regex BadAddress();

    [GeneratedRegex("^55[013]")]
    private static partial Regex BadMailbox();
}
