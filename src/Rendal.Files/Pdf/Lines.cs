using System.Globalization;
using Rendal.Core.Layouts;

namespace Rendal.Files.Pdf;

/// <summary>Breaks text into lines of a width.</summary>
internal static class Lines
{
    /// <summary>Breaks a text at spaces; a word wider than the line is broken where the line ends.</summary>
    public static IReadOnlyList<string> Wrapped(Face face, float size, string text, float within)
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

            line = word;
            while (!Fits(line) && StringInfo.GetNextTextElementLength(line) < line.Length)
            {
                var fits = Fitting(line, Fits);
                lines.Add(line[..fits]);
                line = line[fits..];
            }
        }

        lines.Add(line);
        return lines;

        // A column is as wide as its widest cell, and adding up columns leaves a little less than that.
        bool Fits(string part) => face.Set(part).Width * size <= within + 0.05f;
    }

    /// <summary>Breaks a paragraph, whose words may be strong or links, into lines of words that look alike.</summary>
    public static IReadOnlyList<IReadOnlyList<PaperRun>> Of(PaperParagraph paragraph, Face regular, Face strong, float size, float within)
    {
        var lines = new List<IReadOnlyList<PaperRun>>();
        var line = new List<PaperRun>();
        var used = 0f;
        foreach (var run in paragraph.Runs)
        {
            var face = run.IsStrong ? strong : regular;
            float Width(string text) => face.Set(text).Width * size;
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
                if (used > 0 && used + Width(text.TrimEnd(' ')) > within)
                {
                    End();
                    text = text.TrimStart(' ');
                }

                while (Width(text.TrimEnd(' ')) > within && StringInfo.GetNextTextElementLength(text) < text.Length)
                {
                    var fits = Fitting(text, part => Width(part) <= within);
                    Put(run with { Text = text[..fits] });
                    End();
                    text = text[fits..];
                }

                Put(run with { Text = text });
                used += Width(text);
            }
        }

        End();
        return lines;

        // Words that look alike and follow each other are drawn in one piece, so that they are found as one text.
        void Put(PaperRun run)
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

    /// <summary>The longest beginning of a text that fits, one character at least, none of which is cut in two: neither from its accent nor within an emoji.</summary>
    private static int Fitting(string text, Func<string, bool> fits)
    {
        var ends = StringInfo.ParseCombiningCharacters(text);
        var last = ends.Length - 1;
        while (last > 1 && !fits(text[..ends[last]]))
        {
            last--;
        }

        return last < 1 ? text.Length : ends[last];
    }

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
