using System.Net;
using System.Text;
using System.Text.RegularExpressions;
using Rendal.Core.Wordings;

namespace Rendal.Core.Review;

/// <summary>Puts a filled message together from its pieces in their order.</summary>
internal sealed partial class MessageTextBuilder
{
    private static readonly HashSet<string> Lines = new(StringComparer.Ordinal)
    {
        "p",
        "div",
        "br",
        "hr",
        "li",
        "ul",
        "ol",
        "h1",
        "h2",
        "h3",
        "blockquote",
        "table",
        "tr",
        "td",
        "th",
    };

    private readonly List<MessageLine> lines = [];
    private readonly List<MessageLink> links = [];
    private readonly List<TextSpan> spans = [];
    private string? target;
    private StringBuilder? linked;

    /// <summary>Adds a piece of the body that was typed: HTML that was serialised, so that its tags are well formed.</summary>
    public void Typed(string html)
    {
        foreach (Match token in Token().Matches(html))
        {
            if (token.Value[0] != '<')
            {
                Text(WebUtility.HtmlDecode(token.Value), null);
            }
            else
            {
                Tag(token.Value);
            }
        }
    }

    /// <summary>Adds words.</summary>
    /// <param name="text">They.</param>
    /// <param name="from">The slot that they were filled from; null for typed ones.</param>
    public void Text(string text, Slot? from)
    {
        spans.Add(new TextSpan(text, from));
        linked?.Append(text);
    }

    /// <summary>Adds the place of a piece of a page, whose words are not read.</summary>
    public void Block() => EndLine();

    /// <summary>The message with a subject.</summary>
    public MessageText End(MessageLine subject)
    {
        EndLine();
        return new MessageText(subject, lines, links);
    }

    private void Tag(string tag)
    {
        var name = Name().Match(tag).Groups[1].Value.ToLowerInvariant();
        if (Lines.Contains(name))
        {
            EndLine();
        }
        else if (name == "a" && tag[1] != '/')
        {
            target = WebUtility.HtmlDecode(Target().Match(tag).Groups[1].Value);
            linked = new StringBuilder();
        }
        else if (name == "a" && linked is not null)
        {
            links.Add(new MessageLink(linked.ToString().Trim(), target ?? ""));
            linked = null;
        }
    }

    private void EndLine()
    {
        var line = new MessageLine([.. spans]);
        spans.Clear();
        if (line.Text.Length > 0)
        {
            lines.Add(line);
        }
    }

    [GeneratedRegex("""<(?:[^<>"]|"[^"]*")*>|[^<]+""")]
    private static partial Regex Token();

    [GeneratedRegex("^</?([A-Za-z0-9]+)")]
    private static partial Regex Name();

    [GeneratedRegex("""\shref="([^"]*)["]""")]
    private static partial Regex Target();
}
