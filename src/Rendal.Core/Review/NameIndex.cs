namespace Rendal.Core.Review;

/// <summary>The names of the customers of a book, found in texts word by word.</summary>
public sealed class NameIndex
{
    // A shorter one is a word like any other: a customer “Inn”.
    private const int ShortestSingleWord = 5;

    // By the first word of those of one word, by the first two of the others: of many books, half the names begin with “Hotel”.
    private readonly Dictionary<string, List<string[]>> byBeginning = new(StringComparer.Ordinal);

    /// <summary>An index of names. A name of one short word is not looked for, nor one that begins with a small letter.</summary>
    public NameIndex(IEnumerable<string> names)
    {
        foreach (var name in names)
        {
            var words = WordsOf(name).Select(w => w.Word).ToArray();
            if (words.Length > 0 && char.IsUpper(words[0][0]) && (words.Length > 1 || words[0].Length >= ShortestSingleWord))
            {
                var beginning = string.Join(' ', words.Take(2));
                if (!byBeginning.TryGetValue(beginning, out var list))
                {
                    byBeginning[beginning] = list = [];
                }

                list.Add(words);
            }
        }
    }

    /// <summary>The places of names in a text, the longest name at each. Large and small letters are told apart.</summary>
    /// <param name="text">The text.</param>
    public IEnumerable<(int Start, int Length)> In(string text)
    {
        var words = WordsOf(text).ToList();
        for (var i = 0; i < words.Count; i++)
        {
            var count = Beginning(words, i)
                .Where(n => n.Length <= words.Count - i && n.Index().All(w => words[i + w.Index].Word == w.Item))
                .Select(n => n.Length)
                .DefaultIfEmpty()
                .Max();
            if (count > 0)
            {
                var (start, last) = (words[i].Start, words[i + count - 1]);
                yield return (start, last.Start + last.Word.Length - start);
                i += count - 1;
            }
        }
    }

    /// <summary>Whether the words of a name stand in another one, side by side: “Harbour Inn” in “Old Harbour Inn Ltd”.</summary>
    public static bool Contains(string name, string part) =>
        $" {string.Join(' ', WordsOf(name).Select(w => w.Word))} ".Contains(
            $" {string.Join(' ', WordsOf(part).Select(w => w.Word))} ",
            StringComparison.Ordinal
        );

    /// <summary>The names that begin as the words from a place on do.</summary>
    private IEnumerable<string[]> Beginning(List<(int Start, string Word)> words, int at) =>
        byBeginning
            .GetValueOrDefault(words[at].Word, [])
            .Concat(at + 1 < words.Count ? byBeginning.GetValueOrDefault($"{words[at].Word} {words[at + 1].Word}", []) : []);

    private static IEnumerable<(int Start, string Word)> WordsOf(string text)
    {
        for (var i = 0; i < text.Length; i++)
        {
            var start = i;
            while (i < text.Length && (char.IsLetterOrDigit(text[i]) || char.IsSurrogate(text[i])))
            {
                i++;
            }

            if (i > start)
            {
                yield return (start, text[start..i]);
            }
        }
    }
}
