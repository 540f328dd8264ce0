using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Wordprocessing;

namespace Rendal.Files.Docx;

/// <summary>
/// The text of one paragraph as a person sees it, over all the runs that a word processor has broken it into. A text box that is anchored
/// in the paragraph has paragraphs of its own.
/// </summary>
internal sealed class ParagraphText
{
    private readonly List<Text> texts;

    /// <summary>The text of a paragraph.</summary>
    public ParagraphText(Paragraph paragraph)
    {
        texts = [.. paragraph.Descendants<Text>().Where(t => t.Ancestors<Paragraph>().First() == paragraph)];
        All = string.Concat(texts.Select(t => t.Text));
    }

    /// <summary>The text.</summary>
    public string All { get; private set; }

    /// <summary>
    /// Puts another text in the place of a piece. It takes the look of the first letter that it stands for; its line breaks become such of
    /// the document.
    /// </summary>
    /// <param name="start">Where the piece begins.</param>
    /// <param name="length">Its length.</param>
    /// <param name="value">The text instead.</param>
    public void Replace(int start, int length, string value)
    {
        var at = 0;
        var left = length;
        var isPut = false;
        foreach (var text in texts.ToList())
        {
            var was = text.Text;
            var from = Math.Max(0, start - at);
            if (left > 0 && from < was.Length)
            {
                var taken = Math.Min(left, was.Length - from);
                Set(text, was[..from], isPut ? "" : value, was[(from + taken)..]);
                (left, isPut, start) = (left - taken, true, start + taken);
            }

            at += was.Length;
        }

        All = string.Concat(texts.Select(t => t.Text));
    }

    private void Set(Text text, string before, string value, string after)
    {
        var lines = XmlText.Clean(value).Split('\n');
        Write(text, before + lines[0] + (lines.Length == 1 ? after : ""));
        OpenXmlElement last = text;
        for (var i = 1; i < lines.Length; i++)
        {
            var more = new Text();
            Write(more, lines[i] + (i == lines.Length - 1 ? after : ""));
            last = last.InsertAfterSelf(new Break()).InsertAfterSelf(more);
            texts.Insert(texts.IndexOf(text) + i, more);
        }
    }

    private static void Write(Text text, string words)
    {
        text.Text = words;
        text.Space = SpaceProcessingModeValues.Preserve;
    }
}
