using System.Text.RegularExpressions;
using Rendal.App.Books;
using Rendal.Core.Enclosures;

namespace Rendal.App.Enclosures;

/// <summary>Settles for a book how files that are given in are looked at.</summary>
public sealed partial class SettleEnclosing(BookStores stores)
{
    /// <summary>Settles it. Files that are there already stay as they were recognised.</summary>
    /// <param name="pattern">Where in names of files the number stands; empty to find that out by the names.</param>
    /// <param name="kinds">Endings that are allowed beside the usual ones, as <c>.p7m</c>.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The pattern has no place for the number, or an ending is none.</exception>
    public async Task RunAsync(string pattern, IReadOnlyList<string> kinds, CancellationToken cancel)
    {
        var text = pattern.Trim();
        if (text.Length > 0 && NamePattern.Parse(text) is null)
        {
            throw ProblemException.Invalid(
                $"The pattern needs {NamePattern.Number} once, where the number stands in the names of the files."
            );
        }

        var endings = kinds.Select(k => k.Trim().ToLowerInvariant()).Where(k => k.Length > 0).Distinct(StringComparer.Ordinal).ToList();
        if (endings.Find(k => !Ending().IsMatch(k)) is { } wrong)
        {
            throw ProblemException.Invalid($"“{wrong}” is no ending of a file. Write it with its dot: .p7m");
        }

        await stores.Enclosures.SettleAsync(text, endings, stores.Person, cancel);
    }

    [GeneratedRegex(@"^\.[a-z0-9]{1,10}$")]
    private static partial Regex Ending();
}
