using System.Text;
using Rendal.Core.Wordings;

namespace Rendal.Core.Review;

/// <summary>A line of a filled message as it is read: a paragraph, an entry of a list, or what stands between two breaks.</summary>
public sealed class MessageLine
{
    private readonly List<TextSpan> from = [];

    /// <summary>A line of stretches. Spaces in a row are one, as HTML shows them, and there are none at its ends.</summary>
    public MessageLine(IReadOnlyList<TextSpan> spans)
    {
        Spans = spans;
        var text = new StringBuilder();
        foreach (var span in spans)
        {
            foreach (var character in span.Text)
            {
                var isSpace = character is ' ' or '\t' or '\r' or '\n' or '\f';
                if (!isSpace || (text.Length > 0 && text[^1] != ' '))
                {
                    text.Append(isSpace ? ' ' : character);
                    from.Add(span);
                }
            }
        }

        if (text.Length > 0 && text[^1] == ' ')
        {
            text.Length--;
        }

        Text = text.ToString();
    }

    /// <summary>Its words.</summary>
    public string Text { get; }

    /// <summary>The stretches that it is made of, with all spaces.</summary>
    public IReadOnlyList<TextSpan> Spans { get; }

    /// <summary>Whether a part of it was typed, all of it.</summary>
    public bool IsTyped(int start, int length) => from.Skip(start).Take(length).All(s => s.From is null);

    /// <summary>The slot that a part of it was filled from, all of it by one; null where that is not so.</summary>
    public Slot? FilledFrom(int start, int length)
    {
        var first = from[start];
        return first.From is not null && from.Skip(start).Take(length).All(s => ReferenceEquals(s, first)) ? first.From : null;
    }
}
