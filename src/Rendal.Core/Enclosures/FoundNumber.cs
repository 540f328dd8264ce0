namespace Rendal.Core.Enclosures;

/// <summary>A number of a document that was found in the name of a file or on a page.</summary>
/// <param name="Key">The number, as <see cref="DocumentNumber.Key"/>.</param>
/// <param name="Start">Where it begins in the text that was searched.</param>
/// <param name="End">Where it ends, exclusively.</param>
/// <param name="Documents">The documents of the ledger that have it; none for a number that only looks like the ledger’s.</param>
public sealed record FoundNumber(string Key, int Start, int End, IReadOnlyList<LedgerDocument> Documents)
{
    // Fewer characters stand on a page by chance: a quantity, a year, a part of a date.
    private const int Shortest = 5;

    /// <summary>
    /// Whether it may be a part of something longer, as <c>10234</c> in <c>2026-10234</c>, or only the last digits of the ledger’s number.
    /// </summary>
    public bool IsPart { get; init; }

    /// <summary>
    /// Whether it can hardly be anything else: it has letters and digits, five at least. Digits alone may as well be a postal code or an
    /// amount.
    /// </summary>
    public bool IsDistinctive => !IsPart && IsDistinctiveKey(Key);

    /// <summary>The same for a number by its key.</summary>
    public static bool IsDistinctiveKey(string key) => key.Any(char.IsLetter) && key.Count(c => c != ' ') >= Shortest;
}
