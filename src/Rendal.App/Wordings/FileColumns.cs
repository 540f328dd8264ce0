using Rendal.App.Books;
using Rendal.Core.Wordings;

namespace Rendal.App.Wordings;

/// <summary>The columns of a book's files that can be slots: those of the ledger, and those of the customer lists.</summary>
public static class FileColumns
{
    /// <summary>Their headings, those of the ledger first; null before there is a ledger.</summary>
    public static async Task<IReadOnlyList<string>?> OfAsync(BookStores stores, CancellationToken cancel) =>
        await stores.Intakes.CurrentAsync(cancel) is { } intake
            ?
            [
                .. (await stores.Ledger.ExtraHeadingsAsync(intake.Id, cancel)).Union(
                    await stores.Customers.ExtraHeadingsAsync(cancel),
                    StringComparer.Ordinal
                ),
            ]
            : null;

    /// <summary>The columns that a wording uses and the files have not any more, each with the one that it may be called now.</summary>
    /// <param name="wording">The wording.</param>
    /// <param name="headings">The columns that there are; null where that is not known, and none is gone.</param>
    public static IReadOnlyList<GoneColumn> Gone(WordingTemplate wording, IReadOnlyList<string>? headings) =>
        headings is null
            ? []
            :
            [
                .. wording
                    .Uses.Where(u => u.StartsWith(SlotCatalogue.Column, StringComparison.Ordinal))
                    .Select(u => u[SlotCatalogue.Column.Length..])
                    .Except(headings, StringComparer.Ordinal)
                    .Order(StringComparer.Ordinal)
                    .Select(h => new GoneColumn(h, SlotCatalogue.Nearest(h, headings) ?? "")),
            ];
}

/// <summary>A column that a wording uses and the files have not.</summary>
/// <param name="Heading">Its heading.</param>
/// <param name="Likely">The heading of the one that is probably meant; empty where none is near.</param>
public sealed record GoneColumn(string Heading, string Likely);
