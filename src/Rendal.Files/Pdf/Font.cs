using System.Buffers;
using System.Globalization;
using System.Text;

namespace Rendal.Files.Pdf;

/// <summary>
/// A typeface that text is set in: its own file, and others for the characters that it lacks. Not to be shared between threads.
/// </summary>
internal sealed class Font : IDisposable
{
    private const string AlwaysKept = " !\"#$%&'()*+,-./0123456789:;<=>?@ABCDEFGHIJKLMNOPQRSTUVWXYZ[]_abcdefghijklmnopqrstuvwxyz£€·–—’−";

    private readonly FontFile own;
    private readonly OtherScripts others;
    private readonly Dictionary<int, bool> has = [];
    private readonly Dictionary<string, SetText> recent = new(StringComparer.Ordinal);

    // Longer texts come up once.
    private const int LongestKept = 200;

    /// <summary>Reads a font that is built in.</summary>
    /// <param name="resource">The name of its resource.</param>
    /// <param name="others">The fonts of scripts that it lacks.</param>
    /// <param name="forText">Whether it sets text of documents, so that the usual letters are in it from the beginning.</param>
    public Font(string resource, OtherScripts others, bool forText)
    {
        (own, this.others) = (new FontFile(resource), others);
        if (forText)
        {
            Set(AlwaysKept);
        }
    }

    /// <summary>
    /// Sets a text on one line at a size of one point, with the glyphs of other fonts for characters that this one lacks.
    /// </summary>
    public SetText Set(string text)
    {
        if (recent.TryGetValue(text, out var known))
        {
            return known;
        }

        if (text.Length > LongestKept)
        {
            return SetNew(text);
        }

        if (recent.Count > 4_000)
        {
            recent.Clear();
        }

        return recent[text] = SetNew(text);
    }

    private SetText SetNew(string text) => IsPlain(text) ? Plain(text) : Mixed(text);

    public void Dispose() => own.Dispose();

    /// <summary>Whether a text runs from left to right and the font's own file has all of it.</summary>
    private bool IsPlain(string text)
    {
        foreach (var character in text.EnumerateRunes())
        {
            if (!Has(character))
            {
                return false;
            }
        }

        return true;
    }

    private bool Has(Rune character)
    {
        if (!has.TryGetValue(character.Value, out var known))
        {
            has[character.Value] = known = own.Has(character) && !TextDirection.IsRightToLeft(character);
        }

        return known;
    }

    private SetText Plain(string text)
    {
        var run = own.Set(text, isRightToLeft: false, 0, copied: false, out var width);
        return new SetText([run], width);
    }

    private SetText Mixed(string text)
    {
        var runs = new List<SetRun>();
        var x = 0f;
        foreach (var (start, length, isRightToLeft) in TextDirection.Runs(text))
        {
            var pieces = Pieces(text.Substring(start, length));
            foreach (var (piece, file) in isRightToLeft ? Enumerable.Reverse(pieces) : pieces)
            {
                runs.Add(file.Set(piece, isRightToLeft, x, copied: true, out x));
            }
        }

        return new SetText(runs, x);
    }

    /// <summary>
    /// Parts a text by the files that have its characters. What belongs together is not parted, nor are the spaces and stops within a
    /// script.
    /// </summary>
    private List<(string Text, FontFile File)> Pieces(string text)
    {
        var pieces = new List<(int Start, FontFile File)>();
        for (var i = 0; i < text.Length; )
        {
            var start = i;
            var element = text.AsSpan(i, StringInfo.GetNextTextElementLength(text, i));
            i += element.Length;
            var first = Rune.DecodeFromUtf16(element, out var rune, out _) == OperationStatus.Done ? rune : Rune.ReplacementChar;
            var file =
                pieces.Count > 0 && !Rune.IsLetterOrDigit(first) && pieces[^1].File.Has(first) ? pieces[^1].File
                : own.Has(first) ? own
                : others.Find(first) ?? own;
            if (pieces.Count == 0 || pieces[^1].File != file)
            {
                pieces.Add((start, file));
            }
        }

        return
        [
            .. pieces.Select((piece, i) => (text[piece.Start..(i + 1 < pieces.Count ? pieces[i + 1].Start : text.Length)], piece.File)),
        ];
    }
}
