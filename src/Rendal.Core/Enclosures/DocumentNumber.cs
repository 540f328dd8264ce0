using System.Text;

namespace Rendal.Core.Enclosures;

/// <summary>Numbers of documents, compared as they are written in ledgers, in names of files and on pages.</summary>
public static class DocumentNumber
{
    /// <summary>
    /// A number by its runs of letters and of digits, whatever stands between them: <c>TL-10234</c>, <c>tl 10234</c> and <c>TL10234</c>
    /// are all <c>TL 10234</c>. Zeros count: <c>TL-010234</c> is another. Empty where there is no digit, as in <c>Balance</c>.
    /// </summary>
    public static string Key(string number)
    {
        var text = Folded(number);
        var key = new StringBuilder(text.Length);
        foreach (var run in RunsOf(text))
        {
            key.Append(key.Length == 0 ? "" : " ").Append(text, run.Start, run.Length);
        }

        return key.ToString() is var made && made.Any(char.IsDigit) ? made : "";
    }

    /// <summary>A text as it is searched: by NFKC, in capitals. Its runs are those of what was written.</summary>
    internal static string Folded(string text) => text.Normalize(NormalizationForm.FormKC).ToUpperInvariant();

    /// <summary>The runs of letters and those of digits in a folded text, in their order.</summary>
    internal static List<Run> RunsOf(string text)
    {
        var runs = new List<Run>();
        for (var at = 0; at < text.Length; )
        {
            var kind = KindAt(text, at);
            var from = at++;
            while (kind != RunKind.None && at < text.Length && KindAt(text, at) == kind)
            {
                at++;
            }

            if (kind != RunKind.None)
            {
                runs.Add(new Run(from, at - from, kind == RunKind.Digits));
            }
        }

        return runs;
    }

    private static RunKind KindAt(string text, int at) =>
        char.IsAsciiDigit(text[at]) ? RunKind.Digits
        : char.IsLetter(text[at]) || char.IsDigit(text[at]) ? RunKind.Letters
        : RunKind.None;

    /// <summary>Letters that follow each other, or digits.</summary>
    internal readonly record struct Run(int Start, int Length, bool IsDigits)
    {
        /// <summary>The place behind its last character.</summary>
        public int End => Start + Length;
    }

    private enum RunKind
    {
        None,
        Letters,
        Digits,
    }
}
