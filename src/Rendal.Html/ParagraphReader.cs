using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Rendal.Core.Layouts;

namespace Rendal.Html;

/// <summary>Reads the paragraphs of a text that is set on paper.</summary>
public static class ParagraphReader
{
    /// <summary>
    /// The paragraphs of a filled text, an HTML fragment. What is no paragraph, list, emphasis, break or link counts by its words alone.
    /// </summary>
    public static IReadOnlyList<TextParagraph> Of(string html)
    {
        var found = new List<TextParagraph>();
        var runs = new List<TextRun>();
        Walk(new HtmlParser().ParseDocument($"<body>{html}</body>").Body!, false, null, "");
        End("");
        return found;

        void Walk(INode node, bool isStrong, string? link, string mark)
        {
            foreach (var child in node.ChildNodes)
            {
                switch (child)
                {
                    case IText text:
                        Take(text.Data, isStrong, link);
                        break;
                    case IElement { LocalName: "br" }:
                        runs.Add(new TextRun("\n", isStrong, null));
                        break;
                    case IElement { LocalName: "p" or "div" or "h1" or "h2" or "h3" or "h4" or "li" or "tr" } block:
                        End(mark);
                        Walk(block, isStrong || block.LocalName[0] == 'h', link, MarkOf(block, mark));
                        End(MarkOf(block, mark));
                        break;
                    case IElement element:
                        Walk(
                            element,
                            isStrong || element.LocalName is "strong" or "b",
                            element.LocalName == "a" ? element.GetAttribute("href") : link,
                            mark
                        );
                        break;
                }
            }
        }

        void Take(string text, bool isStrong, string? link)
        {
            var isFirst = runs.Count == 0 || runs[^1].Text.EndsWith('\n') || runs[^1].Text.EndsWith(' ');
            var words = string.Join(' ', text.Split([' ', '\t', '\r', '\n', '\f'], StringSplitOptions.RemoveEmptyEntries));
            var before = !isFirst && text.Length > 0 && text[0] is ' ' or '\t' or '\r' or '\n' ? " " : "";
            var after = words.Length > 0 && text[^1] is ' ' or '\t' or '\r' or '\n' ? " " : "";
            if (before.Length + words.Length > 0)
            {
                runs.Add(new TextRun(before + words + after, isStrong, link));
            }
        }

        void End(string mark)
        {
            if (runs.Exists(r => !string.IsNullOrWhiteSpace(r.Text)))
            {
                found.Add(new TextParagraph([.. runs], mark));
            }

            runs.Clear();
        }
    }

    private static string MarkOf(IElement block, string mark) =>
        block.LocalName != "li" ? mark
        : block.ParentElement?.LocalName == "ol" ? $"{block.ParentElement.Children.Index().First(c => c.Item == block).Index + 1}."
        : "•";
}
