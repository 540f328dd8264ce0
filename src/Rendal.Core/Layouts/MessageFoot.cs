using System.Net;
using Rendal.Core.Sealing;
using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>What stands at the end of messages: who signs, and the foot of the book.</summary>
internal static class MessageFoot
{
    // A border in a tone that is seen on light and on dark ground; the ink is the mail program's own.
    private const string Style = "margin:20px 0 0;padding-top:8px;border-top:1px solid #b9aea4;font-size:12px";

    /// <summary>
    /// The signature as HTML, a line each: the person's, then the sender's; the sender's name in the place of one that it has not.
    /// </summary>
    public static string Signature(RoundIdentity round, SentAs sender) =>
        Lines(LinesOf(round.Signature).Concat(LinesOf(sender.Signature.Length > 0 ? sender.Signature : sender.Name)));

    /// <summary>The foot under every message of a book; empty where it has none.</summary>
    public static string Of(Firm firm) => firm.FootLines.Count == 0 ? "" : $"<p style=\"{Style}\">{Lines(firm.FootLines)}</p>";

    private static string[] LinesOf(string text) =>
        text.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    private static string Lines(IEnumerable<string> lines) => string.Join("<br>", lines.Select(WebUtility.HtmlEncode));
}
