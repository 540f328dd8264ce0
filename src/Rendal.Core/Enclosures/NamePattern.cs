using System.Text;
using System.Text.RegularExpressions;

namespace Rendal.Core.Enclosures;

/// <summary>
/// Where in the names of files the number of a document stands: <c>Invoice {number} *</c>. A star stands for any text, and letters are the
/// same in either case.
/// </summary>
public sealed partial class NamePattern
{
    /// <summary>What stands for the number.</summary>
    public const string Number = "{number}";

    /// <summary>The most characters of a pattern.</summary>
    public const int Longest = 200;

    private readonly Regex before;
    private readonly Regex after;
    private readonly string text;

    private NamePattern(string text, string before, string after)
    {
        this.text = text;
        this.before = Compile(before);
        this.after = Compile(after);
    }

    /// <summary>Reads a pattern that somebody typed; null where the number is not in it exactly once, or it is too long.</summary>
    public static NamePattern? Parse(string text)
    {
        var parts = text.Split(Number);
        return parts.Length == 2 && text.Length <= Longest ? new NamePattern(text, parts[0], parts[1]) : null;
    }

    /// <summary>
    /// The pattern by which most names give a number of the ledger. Of those that serve nearly as many the one that says most wins. Null
    /// where fewer than two names would be read by it, or not half of those in which a number of the ledger stands.
    /// </summary>
    /// <param name="names">Names of files without their endings.</param>
    /// <param name="numbers">The numbers of the ledger.</param>
    public static NamePattern? Propose(IReadOnlyCollection<string> names, DocumentNumbers numbers)
    {
        var votes = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        var withNumber = 0;

        // As it is searched, but in its own case: a person reads the pattern.
        foreach (var name in names.Select(n => n.Normalize(NormalizationForm.FormKC)))
        {
            var found = numbers.InName(name).Where(f => f.Documents.Count > 0).ToList();
            withNumber += found.Count > 0 ? 1 : 0;
            foreach (
                var pattern in found
                    .SelectMany(f =>
                        Ways(name[..f.Start], isBefore: true)
                            .SelectMany(b => Ways(name[f.End..], isBefore: false).Select(a => b + Number + a))
                    )
                    .Distinct(StringComparer.OrdinalIgnoreCase)
            )
            {
                votes[pattern] = votes.GetValueOrDefault(pattern) + 1;
            }
        }

        // One that says more is worth a name or two that are called otherwise.
        var most = votes.Values.DefaultIfEmpty().Max();
        var best = votes
            .Where(v => v.Value * 10 >= most * 9)
            .OrderByDescending(v => v.Key.Count(c => c != '*'))
            .ThenByDescending(v => v.Value)
            .ThenBy(v => v.Key.Length)
            .ThenBy(v => v.Key, StringComparer.Ordinal)
            .FirstOrDefault();
        return best.Value >= 2 && best.Value * 2 >= withNumber ? Parse(best.Key) : null;
    }

    /// <summary>Whether a number that was found in a name stands where the pattern has it.</summary>
    /// <param name="name">The name without its ending.</param>
    /// <param name="found">What was found in it.</param>
    public bool Fits(string name, FoundNumber found)
    {
        var folded = DocumentNumber.Folded(name);
        return before.IsMatch(folded[..found.Start]) && after.IsMatch(folded[found.End..]);
    }

    /// <summary>The pattern as a person reads and types it.</summary>
    public override string ToString() => text;

    /// <summary>
    /// How what stands on one side of a number can be said: as it is with its digits left open, by the marks next to the number, or
    /// whatever it is.
    /// </summary>
    private static IEnumerable<string> Ways(string side, bool isBefore)
    {
        var marks = isBefore ? MarksAtEnd().Match(side).Value : MarksAtStart().Match(side).Value;
        string[] ways = [Digits().Replace(side.Replace('*', '?'), "*"), isBefore ? "*" + marks : marks + "*", "*"];
        return side.Length == 0 ? ["", "*"] : ways.Distinct();
    }

    // What has to match is short, and a star is the only thing in it that is not literal.
    private static Regex Compile(string glob) =>
        new(
            "^" + string.Join(".*", DocumentNumber.Folded(glob).Split('*').Select(Regex.Escape)) + "$",
            RegexOptions.Singleline | RegexOptions.CultureInvariant | RegexOptions.NonBacktracking
        );

    [GeneratedRegex("[^\\p{L}\\p{N}]*$", RegexOptions.RightToLeft)]
    private static partial Regex MarksAtEnd();

    [GeneratedRegex("^[^\\p{L}\\p{N}]*")]
    private static partial Regex MarksAtStart();

    [GeneratedRegex("[0-9]+")]
    private static partial Regex Digits();
}
