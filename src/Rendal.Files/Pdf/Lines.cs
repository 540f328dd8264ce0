using System.Globalization;
using Rendal.Core.Layouts;

namespace Rendal.Files.Pdf;

/// <summary>
/// Breaks text into lines of a width. A text is measured piece by piece and never whole, so that the time it takes grows with its length
/// and not with the square of it.
/// </summary>
internal static class Lines
{
    // A line has fewer characters than this, nearly always; where it has more, twice as many are looked at.
    private const int Piece = 64;

    // A column is as wide as its widest cell, and adding up columns leaves a little less than that.
    private const float Rounding = 0.05f;

    /// <summary>Whether a text is no wider than so much, at size 1.</summary>
    public static bool Fits(Font font, string text, float within)
    {
        for (var length = Piece; length < text.Length; length *= 2)
        {
            if (font.Set(text[..Whole(text, length)]).Width > within)
            {
                return false;
            }
        }

        return font.Set(text).Width <= within;
    }

    /// <summary>Breaks a text at spaces; a word wider than the line is broken where the line ends.</summary>
    public static IReadOnlyList<string> Wrapped(Font font, float size, string text, float within)
    {
        if (Fits(text))
        {
            return [text];
        }

        var lines = new List<string>();
        var line = "";
        foreach (var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var longer = line.Length == 0 ? word : line + " " + word;
            if (Fits(longer))
            {
                line = longer;
                continue;
            }

            if (line.Length > 0)
            {
                lines.Add(line);
            }

            var start = 0;
            while (Fitting(word, start, Width, within + Rounding) is var end && end < word.Length)
            {
                lines.Add(word[start..end]);
                start = end;
            }

            line = word[start..];
        }

        lines.Add(line);
        return lines;

        bool Fits(string part) => Lines.Fits(font, part, (within + Rounding) / size);
        float Width(string part) => font.Set(part).Width * size;
    }

    /// <summary>Breaks a paragraph, whose words may be strong or links, into lines of words that look alike.</summary>
    public static IReadOnlyList<IReadOnlyList<TextRun>> Of(TextParagraph paragraph, Font regular, Font strong, float size, float within)
    {
        var lines = new List<IReadOnlyList<TextRun>>();
        var line = new List<TextRun>();
        var used = 0f;
        foreach (var run in paragraph.Runs)
        {
            var font = run.IsStrong ? strong : regular;
            float Width(string text) => font.Set(text).Width * size;
            bool IsWithin(string text, float room) => Fits(font, text, room / size);
            foreach (var piece in Pieces(run.Text))
            {
                if (piece == "\n")
                {
                    // Two breaks after each other leave a line empty.
                    lines.Add([.. line]);
                    line.Clear();
                    used = 0;
                    continue;
                }

                var text = used == 0 ? piece.TrimStart(' ') : piece;
                if (used > 0 && !IsWithin(text.TrimEnd(' '), within - used))
                {
                    End();
                    text = text.TrimStart(' ');
                }

                var (word, start) = (text.TrimEnd(' '), 0);
                while (Fitting(word, start, Width, within) is var end && end < word.Length)
                {
                    Put(run with { Text = word[start..end] });
                    End();
                    start = end;
                }

                Put(run with { Text = text[start..] });
                used += Width(text[start..]);
            }
        }

        End();
        return lines;

        // Words that look alike and follow each other are drawn in one piece, so that they are found as one text.
        void Put(TextRun run)
        {
            if (run.Text.Length == 0)
            {
                return;
            }

            if (line.Count > 0 && line[^1].IsStrong == run.IsStrong && line[^1].Link == run.Link)
            {
                line[^1] = run with { Text = line[^1].Text + run.Text };
            }
            else
            {
                line.Add(run);
            }
        }

        void End()
        {
            if (line.Count > 0)
            {
                lines.Add([.. line]);
            }

            line.Clear();
            used = 0;
        }
    }

    /// <summary>
    /// Where the longest piece of a text ends that begins somewhere and is not wider than so much. It has one character at least, none of
    /// which is cut in two: neither from its accent nor within an emoji. The end of the text where all of the rest fits.
    /// </summary>
    private static int Fitting(string text, int start, Func<string, float> width, float within)
    {
        var (end, whole) = (start, 0f);
        for (var length = Piece; whole <= within && end < text.Length; length *= 2)
        {
            end = start + length < text.Length ? Whole(text, start + length) : text.Length;
            whole = width(text[start..end]);
        }

        if (whole <= within)
        {
            return end;
        }

        // Each place where a character begins after the first, and the end, which is too far.
        var piece = text[start..end];
        int[] places = [.. StringInfo.ParseCombiningCharacters(piece).Skip(1), piece.Length];
        if (places.Length == 1)
        {
            return start + StringInfo.GetNextTextElementLength(text, start);
        }

        var (least, most) = (0, places.Length - 1);
        var (narrow, wide) = (width(piece[..places[0]]), whole);
        for (var halves = false; most - least > 1 && narrow <= within; halves = !halves)
        {
            // Characters are about as wide as each other, so that the place is near where that puts it; where they are not, every other
            // step halves what is left.
            var guess = halves
                ? (least + most) / 2
                : Math.Clamp(least + (int)((most - least) * (within - narrow) / (wide - narrow)), least + 1, most - 1);
            var guessed = width(piece[..places[guess]]);
            (least, narrow, most, wide) = guessed <= within ? (guess, guessed, most, wide) : (least, narrow, guess, guessed);
        }

        return start + places[least];
    }

    /// <summary>A place in a text at or after the one that is given where no character of two halves is cut.</summary>
    private static int Whole(string text, int at) => at < text.Length && char.IsLowSurrogate(text[at]) ? at + 1 : at;

    /// <summary>The words of a text with the space before each, and its line breaks.</summary>
    private static IEnumerable<string> Pieces(string text)
    {
        var start = 0;
        for (var i = 1; i <= text.Length; i++)
        {
            if (i == text.Length || text[i] is ' ' or '\n' || text[i - 1] == '\n')
            {
                yield return text[start..i];
                start = i;
            }
        }
    }
}
