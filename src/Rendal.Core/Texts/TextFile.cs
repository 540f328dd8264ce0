using System.Globalization;
using System.Text.RegularExpressions;
using Rendal.Core.Wordings;

namespace Rendal.Core.Texts;

/// <summary>
/// A file with texts of one language that customers read, such as <c>de/wordings/reminder-1.txt</c>. It begins with lines of the form
/// <c>Subject: …</c>; after them stand the paragraphs of a letter, with an empty line between two. Lines that begin with <c>#</c> before
/// the paragraphs are remarks. In paragraphs, <c>{customer.name}</c> is a slot and <c>[we-owe]…[/]</c> holds words under a condition;
/// <c>&amp;nbsp;</c> and <c>&amp;#x202F;</c> stand for the spaces that are not seen in an editor.
/// </summary>
internal sealed partial class TextFile
{
    private readonly string name;
    private readonly Dictionary<string, string> lines = new(StringComparer.Ordinal);
    private readonly HashSet<string> read = new(StringComparer.Ordinal);
    private readonly string paragraphs;

    private TextFile(string name, string text)
    {
        this.name = name;
        var rest = text.ReplaceLineEndings("\n")
            .Replace("&nbsp;", "\u00A0", StringComparison.Ordinal)
            .Replace("&#x202F;", "\u202F", StringComparison.Ordinal)
            .Split('\n');
        var number = 0;
        for (; number < rest.Length; number++)
        {
            if (rest[number].StartsWith('#'))
            {
                continue;
            }

            if (Line().Match(rest[number]) is not { Success: true } line)
            {
                break;
            }

            if (!lines.TryAdd(line.Groups[1].Value, line.Groups[2].Value.Trim(' ')))
            {
                throw Wrong($"“{line.Groups[1].Value}” stands twice, again in line {number + 1}.");
            }
        }

        paragraphs = string.Concat(
            string.Join('\n', rest[number..])
                .Split("\n\n", StringSplitOptions.RemoveEmptyEntries)
                .Select(p => p.Trim('\n'))
                .Where(p => p.Length > 0)
                .Select(p => $"<p>{p.Replace("<br>\n", "<br>", StringComparison.Ordinal).Replace('\n', ' ')}</p>")
        );
    }

    /// <summary>The paragraphs, as the HTML fragment that wordings and layouts are made of; empty where there are none.</summary>
    /// <exception cref="InvalidDataException">A slot or a condition is not known.</exception>
    public string Paragraphs => Html(paragraphs);

    /// <summary>Reads a file of a language.</summary>
    /// <param name="language">The folder of the language, which is its code: <c>de</c>.</param>
    /// <param name="path">The file in it: <c>wordings/reminder-1.txt</c>.</param>
    /// <exception cref="InvalidDataException">The language has no such file, or a line stands twice in it.</exception>
    public static TextFile Read(string language, string path) => Parse($"{language}/{path}", Content($"{language}/{path}"));

    /// <summary>Reads the text of a file.</summary>
    /// <param name="name">What errors call it.</param>
    /// <param name="text">What stands in it.</param>
    /// <exception cref="InvalidDataException">A line stands twice in it.</exception>
    public static TextFile Parse(string name, string text) => new(name, text);

    /// <summary>The names of all files: <c>de/document.txt</c>.</summary>
    public static IReadOnlyList<string> Names() => typeof(TextFile).Assembly.GetManifestResourceNames();

    /// <summary>The codes of all languages that there are texts in, in the order in which they are offered.</summary>
    public static IReadOnlyList<string> Languages() => Content("languages.txt").Split('\n', StringSplitOptions.RemoveEmptyEntries);

    /// <summary>What stands in a line.</summary>
    /// <param name="key">How the line begins: <c>Subject</c>.</param>
    /// <param name="filled">What is filled in, each of which has to stand in it once: <c>page</c> for <c>{page}</c>.</param>
    /// <exception cref="InvalidDataException">There is no such line, it is empty, or it has other braces.</exception>
    public string this[string key, params string[] filled] => Optional(key, filled) ?? throw Wrong($"There is no line “{key}: …”.");

    /// <summary>What stands in a line that a language need not have; null where it has none.</summary>
    /// <inheritdoc cref="this[string, string[]]" path="/param|/exception" />
    public string? Optional(string key, params string[] filled)
    {
        if (!lines.TryGetValue(key, out var text))
        {
            return null;
        }

        read.Add(key);
        var braces = Braces().Matches(text).Select(m => m.Groups[1].Value).Order(StringComparer.Ordinal);
        return text.Length == 0 ? throw Wrong($"“{key}” is empty.")
            : braces.SequenceEqual(filled.Order(StringComparer.Ordinal)) ? text
            : throw Wrong(
                filled.Length == 0
                    ? $"“{key}” has braces, and nothing is filled in there."
                    : $"“{key}” has to have {string.Join(" and ", filled.Select(f => $"{{{f}}}"))}, each once, and no other braces."
            );
    }

    /// <summary>What stands in a line, as the HTML fragment that wordings and layouts are made of.</summary>
    /// <exception cref="InvalidDataException">There is no such line, or a slot or a condition is not known.</exception>
    public string Fragment(string key) => OptionalFragment(key) ?? throw Wrong($"There is no line “{key}: …”.");

    /// <summary>The same of a line that a language need not have; null where it has none.</summary>
    /// <exception cref="InvalidDataException">A slot or a condition is not known.</exception>
    public string? OptionalFragment(string key)
    {
        read.Add(key);
        return lines.TryGetValue(key, out var text) ? Html(text) : null;
    }

    /// <summary>To be called when all was read: a line that nothing asked for is a mistake in its key.</summary>
    /// <exception cref="InvalidDataException">There is a line that nothing asked for.</exception>
    public void End()
    {
        if (lines.Keys.FirstOrDefault(k => !read.Contains(k)) is { } unknown)
        {
            throw Wrong($"“{unknown}” is not known.");
        }
    }

    /// <summary>Fills in what stands in braces. What is filled in stays as it is, whatever braces stand in it.</summary>
    public static string Fill(string text, params (string Name, object Value)[] values) =>
        Braces()
            .Replace(text, m =>
                Array.FindIndex(values, v => v.Name == m.Groups[1].Value) is var i and >= 0
                    ? string.Create(CultureInfo.InvariantCulture, $"{values[i].Value}")
                    : m.Value
            );

    private static string Content(string name)
    {
        using var stream = typeof(TextFile).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidDataException($"There is no file {name}.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }

    private string Html(string words)
    {
        if (Braces().Matches(words).Select(m => m.Groups[1].Value).FirstOrDefault(s => SlotCatalogue.Find(s) is null) is { } slot)
        {
            throw Wrong($"There is no slot “{{{slot}}}”.");
        }

        if (Condition().Matches(words).Select(m => m.Groups[1].Value).FirstOrDefault(c => TextConditions.Find(c) is null) is { } condition)
        {
            throw Wrong($"There is no condition “[{condition}]”.");
        }

        if (Condition().Count(words) != words.Split("[/]").Length - 1)
        {
            throw Wrong("A condition has no end, or an end no condition.");
        }

        return Braces()
            .Replace(
                Condition().Replace(words, "<span data-when=\"$1\">").Replace("[/]", "</span>", StringComparison.Ordinal),
                "<span data-slot=\"$1\"></span>"
            );
    }

    private InvalidDataException Wrong(string what) => new($"{name}: {what}");

    [GeneratedRegex(@"^([A-Z][A-Za-z ]*):(.*)$")]
    private static partial Regex Line();

    [GeneratedRegex(@"\{([^{}]*)\}")]
    private static partial Regex Braces();

    [GeneratedRegex(@"\[([a-z-]+)\]")]
    private static partial Regex Condition();
}
