using System.Globalization;
using System.Text;

namespace Rendal.Files.Pdf;

/// <summary>
/// In which order the pieces of a line are seen, where scripts of both directions meet: the Unicode bidirectional algorithm (UAX #9) in a
/// paragraph that runs from left to right. Embeddings and overrides that somebody wrote into the text are without effect, so that no name
/// can turn the line around.
/// </summary>
internal static class TextDirection
{
    private const int MostOpen = 63;

    private enum Kind
    {
        Left,
        Right,
        ArabicLetter,
        Number,
        ArabicNumber,
        Sign,
        NumberMark,
        Separator,
        Attached,
        Neutral,
    }

    /// <summary>Whether a character runs from right to left by itself.</summary>
    public static bool IsRightToLeft(Rune character) => Of(character) is Kind.Right or Kind.ArabicLetter or Kind.ArabicNumber;

    /// <summary>The pieces of a line from left to right as they are seen, each with the direction that it is written in.</summary>
    public static IReadOnlyList<(int Start, int Length, bool IsRightToLeft)> Runs(string line)
    {
        var levels = Levels(line);
        var runs = new List<(int Start, int Length, int Level)>();
        for (var i = 0; i < line.Length; i++)
        {
            if (runs.Count > 0 && levels[i] == runs[^1].Level)
            {
                runs[^1] = runs[^1] with { Length = runs[^1].Length + 1 };
            }
            else
            {
                runs.Add((i, 1, levels[i]));
            }
        }

        // L2: from the innermost level outwards, whatever is as deep or deeper is turned round.
        for (var level = 2; level >= 1; level--)
        {
            for (var i = 0; i < runs.Count; i++)
            {
                var end = i;
                while (end < runs.Count && runs[end].Level >= level)
                {
                    end++;
                }

                runs.Reverse(i, end - i);
                i = Math.Max(i, end - 1);
            }
        }

        return [.. runs.Select(r => (r.Start, r.Length, r.Level == 1))];
    }

    private static int[] Levels(string line)
    {
        var kinds = Kinds(line);
        Weak(kinds);
        Brackets(line, kinds);
        Neutrals(kinds);
        return
        [
            .. kinds.Select(k =>
                k switch
                {
                    Kind.Right => 1,
                    Kind.Number or Kind.ArabicNumber => 2,
                    _ => 0,
                }
            ),
        ];
    }

    private static Kind[] Kinds(string line)
    {
        var kinds = new Kind[line.Length];
        for (var i = 0; i < line.Length; i++)
        {
            var isWhole = Rune.TryGetRuneAt(line, i, out var rune);
            kinds[i] = isWhole ? Of(rune) : Kind.Neutral;
            if (isWhole && rune.Utf16SequenceLength == 2)
            {
                kinds[i + 1] = kinds[i];
                i++;
            }
        }

        return kinds;
    }

    /// <summary>Rules W1 to W7: numbers, and what stands at them.</summary>
    private static void Weak(Kind[] kinds)
    {
        var strong = Kind.Left;
        for (var i = 0; i < kinds.Length; i++)
        {
            if (kinds[i] == Kind.Attached)
            {
                kinds[i] = i == 0 ? Kind.Left : kinds[i - 1];
            }

            if (kinds[i] == Kind.Number && strong == Kind.ArabicLetter)
            {
                kinds[i] = Kind.ArabicNumber;
            }

            strong = kinds[i] is Kind.Left or Kind.Right or Kind.ArabicLetter ? kinds[i] : strong;
        }

        for (var i = 0; i < kinds.Length; i++)
        {
            kinds[i] = kinds[i] == Kind.ArabicLetter ? Kind.Right : kinds[i];
            if (
                i > 0
                && i < kinds.Length - 1
                && kinds[i - 1] == kinds[i + 1]
                && (
                    (kinds[i] == Kind.Separator && kinds[i - 1] is Kind.Number or Kind.ArabicNumber)
                    || (kinds[i] == Kind.Sign && kinds[i - 1] == Kind.Number)
                )
            )
            {
                kinds[i] = kinds[i - 1];
            }
        }

        for (var i = 0; i < kinds.Length; i++)
        {
            var end = i;
            while (end < kinds.Length && kinds[end] == Kind.NumberMark)
            {
                end++;
            }

            if (end > i)
            {
                var isAtNumber = (i > 0 && kinds[i - 1] == Kind.Number) || (end < kinds.Length && kinds[end] == Kind.Number);
                Array.Fill(kinds, isAtNumber ? Kind.Number : Kind.Neutral, i, end - i);
                i = end - 1;
            }
        }

        strong = Kind.Left;
        for (var i = 0; i < kinds.Length; i++)
        {
            kinds[i] =
                kinds[i] is Kind.Sign or Kind.Separator ? Kind.Neutral
                : kinds[i] == Kind.Number && strong == Kind.Left ? Kind.Left
                : kinds[i];
            strong = kinds[i] is Kind.Left or Kind.Right ? kinds[i] : strong;
        }
    }

    /// <summary>Rule N0: a pair of brackets goes with what is in it.</summary>
    private static void Brackets(string line, Kind[] kinds)
    {
        const string opening = "([{",
            closing = ")]}";
        var open = new Stack<int>();
        var waiting = new int[opening.Length];
        var pairs = new List<(int Open, int Close)>();
        for (var i = 0; i < line.Length; i++)
        {
            if (opening.IndexOf(line[i]) is var begun and >= 0)
            {
                // Rule BD16: deeper than this nothing is paired.
                if (open.Count == MostOpen)
                {
                    break;
                }

                open.Push(i);
                waiting[begun]++;
            }
            else if (closing.IndexOf(line[i]) is var which and >= 0 && waiting[which] > 0)
            {
                while (open.Pop() is var o)
                {
                    waiting[opening.IndexOf(line[o])]--;
                    if (line[o] == opening[which])
                    {
                        pairs.Add((o, i));
                        break;
                    }
                }
            }
        }

        foreach (var (from, to) in pairs.Order())
        {
            var within = kinds[(from + 1)..to];
            if (within.Contains(Kind.Left))
            {
                kinds[from] = kinds[to] = Kind.Left;
            }
            else if (within.Any(IsRight))
            {
                var before = Array.FindLastIndex(kinds, from, k => k != Kind.Neutral);
                kinds[from] = kinds[to] = before >= 0 && IsRight(kinds[before]) ? Kind.Right : Kind.Left;
            }
        }
    }

    /// <summary>
    /// Rules N1 and N2: what has no direction takes that of both its sides where they agree, else the paragraph's; so do spaces at the
    /// end.
    /// </summary>
    private static void Neutrals(Kind[] kinds)
    {
        for (var i = 0; i < kinds.Length; i++)
        {
            var end = i;
            while (end < kinds.Length && kinds[end] == Kind.Neutral)
            {
                end++;
            }

            if (end > i)
            {
                var isRight = i > 0 && end < kinds.Length && IsRight(kinds[i - 1]) && IsRight(kinds[end]);
                Array.Fill(kinds, isRight ? Kind.Right : Kind.Left, i, end - i);
                i = end - 1;
            }
        }
    }

    private static bool IsRight(Kind kind) => kind is Kind.Right or Kind.Number or Kind.ArabicNumber;

    private static Kind Of(Rune character) =>
        character.Value switch
        {
            >= '0' and <= '9' or >= 0x06F0 and <= 0x06F9 => Kind.Number,
            >= 0x0660 and <= 0x0669 or 0x066B or 0x066C or >= 0x0600 and <= 0x0605 => Kind.ArabicNumber,
            '+' or '-' or 0x2212 => Kind.Sign,
            '#' or '%' or 0x00B0 or 0x2030 or 0x066A => Kind.NumberMark,
            ',' or '.' or '/' or ':' or 0x00A0 or 0x202F or 0x060C => Kind.Separator,
            0x200E => Kind.Left,
            0x200F => Kind.Right,
            _ => Rune.GetUnicodeCategory(character) switch
            {
                UnicodeCategory.NonSpacingMark or UnicodeCategory.EnclosingMark or UnicodeCategory.Format => Kind.Attached,
                UnicodeCategory.CurrencySymbol => Kind.NumberMark,
                _ when character.Value is >= 0x0590 and <= 0x05FF or >= 0x07C0 and <= 0x085F or >= 0xFB1D and <= 0xFB4F => Kind.Right,
                _ when character.Value
                        is >= 0x0600
                            and <= 0x07BF
                            or >= 0x0860
                            and <= 0x08FF
                            or >= 0xFB50
                            and <= 0xFDFF
                            or >= 0xFE70
                            and <= 0xFEFF => Kind.ArabicLetter,
                _ when Rune.IsLetterOrDigit(character) => Kind.Left,
                UnicodeCategory.SpacingCombiningMark or UnicodeCategory.LetterNumber => Kind.Left,
                _ => Kind.Neutral,
            },
        };
}
