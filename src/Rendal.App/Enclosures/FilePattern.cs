using Rendal.App.Books;
using Rendal.Core.Enclosures;

namespace Rendal.App.Enclosures;

/// <summary>Where in names of files the number of a document stands.</summary>
public static class FilePattern
{
    // Enough to see what most have in common.
    private const int MostNames = 2_000;

    /// <summary>
    /// The pattern that the book has settled, else the one that most names speak for; null where none does.
    /// </summary>
    /// <param name="stores">The book.</param>
    /// <param name="intake">The intake whose numbers count.</param>
    /// <param name="names">Names of files that are about to be kept, without their endings.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task<NamePattern?> OfAsync(
        BookStores stores,
        long intake,
        IReadOnlyCollection<string> names,
        CancellationToken cancel
    ) =>
        (await stores.Enclosures.SettingsAsync(cancel)).Pattern is { Length: > 0 } settled
            ? NamePattern.Parse(settled)
            : NamePattern.Propose(
                [
                    .. names.Take(MostNames),
                    .. (await stores.Enclosures.CopyNamesAsync(MostNames, cancel)).Select(n => Path.GetFileNameWithoutExtension(n)),
                ],
                await LedgerNumbers.OfAsync(stores, intake, cancel)
            );
}
