using Rendal.App.Books;
using Rendal.Core.Enclosures;
using Rendal.Core.Parcels;
using Rendal.Store.Rounds;

namespace Rendal.App.Enclosures;

/// <summary>What there is to enclose in a round.</summary>
internal static class RoundEnclosures
{
    /// <summary>What finds the files of its parcels.</summary>
    /// <param name="stores">The book.</param>
    /// <param name="round">The round.</param>
    /// <param name="only">The customers whose parcels are made up; null for all.</param>
    /// <param name="changes">What was changed on single parcels.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task<EnclosureFinder> FinderAsync(
        BookStores stores,
        RoundRecord round,
        IReadOnlyCollection<string>? only,
        IEnumerable<ParcelChange> changes,
        CancellationToken cancel
    )
    {
        var enclosing = round.Enclosing;
        var files = new List<EnclosureFile>();
        if (!enclosing.WithoutOwn)
        {
            files.AddRange(await stores.Enclosures.ListAsync(EnclosureUse.Customer, cancel));
        }

        long[] picked = [.. enclosing.ForAll.Concat(changes.SelectMany(c => c.Added)).Distinct()];
        files.AddRange(
            enclosing.Column.Length > 0 ? await stores.Enclosures.ListAsync(EnclosureUse.Picked, cancel)
            : picked.Length > 0 ? await stores.Enclosures.FindAsync(picked, cancel)
            : []
        );
        var copies =
            enclosing.Copies == CopyForm.None && enclosing.Column.Length == 0
                ? CopyMatching.None
                : await MatchingAsync(stores, round, enclosing.Column.Length > 0 ? null : only, cancel);
        return new EnclosureFinder(enclosing, copies, [.. files.DistinctBy(f => f.Id)]);
    }

    /// <summary>Which file is the copy of which document.</summary>
    /// <param name="stores">The book.</param>
    /// <param name="round">The round.</param>
    /// <param name="only">The customers whose documents it is asked for; null for all.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task<CopyMatching> MatchingAsync(
        BookStores stores,
        RoundRecord round,
        IReadOnlyCollection<string>? only,
        CancellationToken cancel
    )
    {
        var files = only is null
            ? await stores.Enclosures.ListAsync(EnclosureUse.Copy, cancel)
            : await stores.Enclosures.CopiesOfAsync(
                [
                    .. LedgerDocument
                        .Of(await stores.Ledger.RowsAsync(round.IntakeId, only, cancel))
                        .Select(d => DocumentNumber.Key(d.Number))
                        .Distinct(StringComparer.Ordinal),
                ],
                cancel
            );
        return files.Count == 0 ? CopyMatching.None : CopyMatching.Of(files, await LedgerNumbers.OfAsync(stores, round.IntakeId, cancel));
    }
}
