using Rendal.Core.Customers;

namespace Rendal.Core.Enclosures;

/// <summary>
/// Tells by its name and its text which document of the ledger a file is a copy of. It is sure only where nothing speaks against it: a
/// file on the wrong message is worse than a question.
/// </summary>
/// <param name="numbers">The numbers of the ledger.</param>
/// <param name="pattern">Where the number stands in names; null where that is not known.</param>
public sealed class CopyRecognition(DocumentNumbers numbers, NamePattern? pattern)
{
    private const int ShortestName = 4;

    /// <summary>Tells it of a file.</summary>
    /// <param name="name">Its name without the ending.</param>
    /// <param name="text">Its text, its lines parted by <c>\n</c>; empty where it has none or it cannot be read.</param>
    public Recognised Of(string name, string text)
    {
        var inName = InName(name);
        var onPages = OnPages(text);
        if (inName.Sure is [var named])
        {
            var other = onPages.Sure.Where(key => key != named).ToList();
            return onPages.Sure.Count > 0 && !onPages.Sure.Contains(named)
                    ? Recognised.Question(Known([named, .. other]), $"its name says {Written([named])}, its text {Written(other)}")
                : numbers.Of(named).Count == 0 ? Recognised.Nothing($"{Written([named])} is not in the ledger")
                : Recognised.As(named);
        }

        if (inName.Sure.Count > 1)
        {
            return Recognised.Question(Known(inName.Sure), $"its name says {Written(inName.Sure)}");
        }

        return onPages.Sure switch
        {
            [var only] when numbers.Of(only).Count > 0 => Recognised.As(only),
            [var only] => Recognised.Nothing($"{only} is not in the ledger"),
            { Count: > 1 } several when Known(several).Any() => Recognised.Question(Known(several), $"its text says {Written(several)}"),
            { Count: > 1 } several => Recognised.Nothing($"{Written(several)} are not in the ledger"),
            _ => Known([.. inName.Doubtful, .. onPages.Doubtful]).Distinct(StringComparer.Ordinal).ToList() is { Count: > 0 } doubtful
                ? Recognised.Question(doubtful, $"{Written(doubtful)} may be its number, or something else")
                : Recognised.Nothing(Recognised.NoNumber),
        };
    }

    /// <summary>Whether the name of a file says which document it is a copy of, so that it is not parted.</summary>
    public bool IsNamed(string name) => InName(name).Sure.Count > 0;

    /// <summary>A number as the ledger writes it, by its key.</summary>
    public string Written(string key) => numbers.Written(key);

    /// <summary>
    /// The numbers on pages: those that are surely numbers of documents, known or not, and those that may be. Digits alone are sure where
    /// the page names the customer, too.
    /// </summary>
    internal (IReadOnlyList<string> Sure, IReadOnlyList<string> Doubtful) OnPages(string text)
    {
        string? folded = null;
        return Parted(numbers.OnPage(text), f => f.IsDistinctive || (!f.IsPart && f.Documents.Any(IsNamed)));

        bool IsNamed(LedgerDocument document) =>
            IsIn(document.CustomerName)
            || (FoundNumber.IsDistinctiveKey(DocumentNumber.Key(document.Customer)) && IsIn(document.Customer));

        bool IsIn(string name) =>
            FoldedName.Of(name) is { Length: >= ShortestName } sought
            && (folded ??= FoldedName.Of(text)).Contains(sought, StringComparison.Ordinal);
    }

    /// <summary>
    /// What on a page is written like a number of the ledger that is digits alone, and is none of the ledger: a postal code, or the number
    /// of an invoice that was settled.
    /// </summary>
    internal IEnumerable<string> LookAlikes(string text) =>
        numbers.OnPage(text).Where(f => f.Documents.Count == 0 && !f.IsDistinctive && !f.IsPart).Select(f => f.Key);

    private (IReadOnlyList<string> Sure, IReadOnlyList<string> Doubtful) InName(string name)
    {
        var found = numbers.InName(name);
        var fitting = pattern is null ? [] : found.Where(f => pattern.Fits(name, f)).ToList();
        return fitting.Exists(f => f.Documents.Count > 0 || f.IsDistinctive)
            ? Parted(fitting, f => f.Documents.Count > 0 || f.IsDistinctive)
            : Parted(found, f => f.IsDistinctive);
    }

    private static (IReadOnlyList<string> Sure, IReadOnlyList<string> Doubtful) Parted(
        IReadOnlyList<FoundNumber> found,
        Func<FoundNumber, bool> isSure
    )
    {
        var sure = found.Where(isSure).Select(f => f.Key).Distinct(StringComparer.Ordinal).ToList();
        return (sure, [.. found.Where(f => f.Documents.Count > 0).Select(f => f.Key).Except(sure, StringComparer.Ordinal)]);
    }

    // A list of a hundred invoices is named by its first ones.
    private string Written(IReadOnlyList<string> keys) =>
        string.Join(" and ", keys.Take(3).Select(numbers.Written))
        + (keys.Count > 3 ? FormattableString.Invariant($" and {keys.Count - 3} more") : "");

    private IEnumerable<string> Known(IEnumerable<string> keys) => keys.Where(key => numbers.Of(key).Count > 0);
}
