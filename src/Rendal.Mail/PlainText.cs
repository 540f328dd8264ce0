using System.Text;
using System.Text.RegularExpressions;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Rendal.Core.Layouts;

namespace Rendal.Mail;

/// <summary>Makes the plain text of a message from its HTML, for mail programs that show no HTML.</summary>
public static partial class PlainText
{
    /// <summary>
    /// Paragraphs are parted by an empty line, list items begin with a dash, links show where they lead, and the cells of tables stand
    /// under one another, figures to the right. In the place of a picture stands what it says.
    /// </summary>
    public static string Of(string html)
    {
        var body = new HtmlParser().ParseDocument($"<body>{html}</body>").Body!;
        var text = new StringBuilder();
        Write(body, text);
        return ManyBreaks().Replace(text.ToString().Replace("\r", "", StringComparison.Ordinal), "\n\n").Trim() + "\n";
    }

    private static void Write(INode node, StringBuilder text)
    {
        switch (node)
        {
            case IText t:
                var folded = WhiteSpace().Replace(t.Data, " ");
                text.Append(AtLineStart(text) || text[^1] == ' ' ? folded.TrimStart(' ') : folded);
                break;
            case IElement { LocalName: "img" } picture:
                text.Append(picture.GetAttribute("alt") is { Length: > 0 } says ? says.Trim() + ' ' : "");
                break;
            case IElement { LocalName: "div", Children: [{ LocalName: "img" } scanned] } when scanned.HasAttribute(PaymentCode.Attribute):
                // Its caption says what to scan, and here nothing is.
                Break(text, 2);
                Write(scanned, text);
                Break(text, 2);
                break;
            case IElement { LocalName: "br" }:
                text.Append('\n');
                break;
            case IElement { LocalName: "table" } table:
                Break(text, 2);
                WriteTable(table, text);
                Break(text, 2);
                break;
            case IElement { LocalName: "li" } item:
                Break(text, 1);
                text.Append("- ");
                WriteChildren(item, text);
                Break(text, 1);
                break;
            case IElement { LocalName: "a" } link:
                WriteChildren(link, text);
                var target = link.GetAttribute("href") ?? "";
                var shown = link.TextContent.Trim();
                if (target.Length > 0 && target != shown && target != "mailto:" + shown)
                {
                    text.Append(" <").Append(target).Append('>');
                }

                break;
            case IElement { LocalName: "p" or "div" or "ul" or "ol" or "h1" or "h2" or "h3" or "blockquote" } block:
                Break(text, 2);
                WriteChildren(block, text);
                Break(text, 2);
                break;
            default:
                WriteChildren(node, text);
                break;
        }
    }

    private static void WriteChildren(INode node, StringBuilder text)
    {
        foreach (var child in node.ChildNodes)
        {
            Write(child, text);
        }
    }

    private static void WriteTable(IElement table, StringBuilder text)
    {
        var rows = table
            .QuerySelectorAll("tr")
            .Select(row =>
                row.Children.Select(cell =>
                        (
                            Text: WhiteSpace()
                                .Replace(
                                    string.Join(' ', cell.ChildNodes.Select(n => n is IElement { LocalName: "br" } ? "" : n.TextContent)),
                                    " "
                                )
                                .Trim(),
                            Right: (cell.GetAttribute("style") ?? "").Contains("text-align:right", StringComparison.Ordinal),
                            Span: int.TryParse(cell.GetAttribute("colspan"), out var span) && span > 0 ? span : 1
                        )
                    )
                    .ToList()
            )
            .ToList();
        var columns = rows.Select(r => r.Sum(c => c.Span)).DefaultIfEmpty().Max();
        var widths = new int[columns];
        foreach (var row in rows)
        {
            var at = 0;
            foreach (var cell in row)
            {
                if (cell.Span == 1)
                {
                    widths[at] = Math.Max(widths[at], cell.Text.Length);
                }

                at += cell.Span;
            }
        }

        foreach (var row in rows)
        {
            var line = new StringBuilder();
            var at = 0;
            foreach (var (content, right, span) in row)
            {
                var width = widths.Skip(at).Take(span).Sum() + (2 * (span - 1));
                line.Append(right ? content.PadLeft(width) : content.PadRight(width)).Append("  ");
                at += span;
            }

            text.Append(line.ToString().TrimEnd()).Append('\n');
        }
    }

    private static bool AtLineStart(StringBuilder text) => text.Length == 0 || text[^1] == '\n';

    private static void Break(StringBuilder text, int lines)
    {
        while (text.Length > 0 && text[^1] == ' ')
        {
            text.Length--;
        }

        for (
            var have =
                text.Length == 0
                    ? lines
                    : text.ToString(Math.Max(0, text.Length - lines), Math.Min(lines, text.Length))
                        .Reverse()
                        .TakeWhile(c => c == '\n')
                        .Count();
            have < lines;
            have++
        )
        {
            text.Append('\n');
        }
    }

    [GeneratedRegex(@"[ \t\r\n]+")]
    private static partial Regex WhiteSpace();

    [GeneratedRegex(@"\n{3,}")]
    private static partial Regex ManyBreaks();
}
