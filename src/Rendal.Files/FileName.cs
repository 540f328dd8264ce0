using System.Globalization;
using System.Text;

namespace Rendal.Files;

/// <summary>Names of files made from customers' data.</summary>
public static class FileName
{
    /// <summary>The most characters of a name, its ending included.</summary>
    public const int Longest = 120;

    private static readonly HashSet<string> Reserved = new(StringComparer.OrdinalIgnoreCase)
    {
        "CON",
        "PRN",
        "AUX",
        "NUL",
        "COM1",
        "COM2",
        "COM3",
        "COM4",
        "COM5",
        "COM6",
        "COM7",
        "COM8",
        "COM9",
        "LPT1",
        "LPT2",
        "LPT3",
        "LPT4",
        "LPT5",
        "LPT6",
        "LPT7",
        "LPT8",
        "LPT9",
    };

    /// <summary>
    /// A name that every file system takes: characters that some forbid, controls and direction marks become <c>_</c>; dots and spaces at
    /// the ends go; <c>../../etc/passwd</c> gives <c>_.._etc_passwd</c>; names of devices get a <c>_</c> in front; an empty name becomes
    /// <c>document</c>. With the ending it has at most <see cref="Longest"/> characters.
    /// </summary>
    /// <param name="stem">The name without ending, from customers' data.</param>
    /// <param name="ending">The ending with its dot, ours.</param>
    public static string Safe(string stem, string ending)
    {
        var safe = new StringBuilder(stem.Length);
        foreach (var c in stem.Normalize(NormalizationForm.FormC))
        {
            var category = char.GetUnicodeCategory(c);
            safe.Append(
                c is '/' or '\\' or ':' or '*' or '?' or '"' or '<' or '>' or '|'
                || category is UnicodeCategory.Control or UnicodeCategory.Format
                    ? '_'
                    : c
            );
        }

        var name = safe.ToString().Trim(' ', '.');
        if (name.Length > Longest - ending.Length)
        {
            var cut = Longest - ending.Length;
            name = name[..(char.IsHighSurrogate(name[cut - 1]) ? cut - 1 : cut)].TrimEnd(' ', '.');
        }

        name =
            name.Length == 0 ? "document"
            : Reserved.Contains(name.Split('.')[0]) ? "_" + name
            : name;
        return name + ending;
    }

    /// <summary>
    /// The name, or the name with <c> (2)</c> and so on before its ending when it was taken; case does not make names differ.
    /// </summary>
    /// <param name="name">A safe name.</param>
    /// <param name="taken">The names in use, to which the result is added. It must compare without case.</param>
    public static string Unique(string name, ISet<string> taken)
    {
        var ending = Path.GetExtension(name);
        var unique = name;
        for (var n = 2; !taken.Add(unique); n++)
        {
            unique = Safe(
                string.Create(CultureInfo.InvariantCulture, $"{Cut(Path.GetFileNameWithoutExtension(name), ending)} ({n})"),
                ending
            );
        }

        return unique;
    }

    private static string Cut(string stem, string ending) =>
        stem.Length > Longest - ending.Length - 8 ? stem[..(Longest - ending.Length - 8)] : stem;
}
