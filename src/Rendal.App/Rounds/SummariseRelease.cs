using Rendal.App.Books;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;

namespace Rendal.App.Rounds;

/// <summary>What would be released, for the person who is about to.</summary>
/// <param name="Revision">The revision of the round.</param>
/// <param name="Ready">The parcels.</param>
/// <param name="All">All parcels of the round.</param>
/// <param name="LeftOut">How many customers are left out of the round.</param>
/// <param name="Totals">What the parcels come to, by currency, the book's own first; what stands on two of them is counted once.</param>
/// <param name="Sender">The sender that they go out under.</param>
/// <param name="Wordings">How many parcels have which wording, the most first.</param>
/// <param name="Layouts">The layout of each parcel's document.</param>
/// <param name="Rehearsed">How many of the parcels were rehearsed as they are now.</param>
/// <param name="LookedAt">How many of those somebody said to have looked at.</param>
/// <param name="Changed">What changed of the parcels since somebody looked at them, in one sentence; empty for nothing. Where it is not,
/// the release says that it was seen.</param>
/// <param name="LedgerDoubt">What is doubtful about the ledger that the round is from; empty for nothing.</param>
/// <param name="Forecast">When they go, as far as the sender's allowance tells.</param>
/// <param name="Approval">What a second person is told; null where the book asks for none.</param>
public sealed record ReleaseSummed(
    long Revision,
    ReadyParcels Ready,
    IReadOnlyList<ParcelRecord> All,
    int LeftOut,
    IReadOnlyList<(Currency Currency, decimal Total)> Totals,
    Sender Sender,
    IReadOnlyList<(string Wording, int Parcels)> Wordings,
    IReadOnlyList<Layout> Layouts,
    int Rehearsed,
    int LookedAt,
    string Changed,
    string LedgerDoubt,
    Forecast Forecast,
    Approval? Approval
);

/// <summary>Sums up what would be released.</summary>
public sealed class SummariseRelease(BookStores stores, TimeProvider clock)
{
    /// <summary>Sums it up, of parcels as they are now.</summary>
    /// <param name="round">The round.</param>
    /// <param name="wanted">The parcels by number; null for all that are ready.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The round is not there.</exception>
    public async Task<ReleaseSummed> RunAsync(long round, IReadOnlyList<long>? wanted, CancellationToken cancel)
    {
        var content = await new PrepareRound(stores, clock).CaughtUpAsync(round, cancel);

        var all = await stores.Rounds.ParcelsAsync(round, cancel);
        var ready = ReadyParcels.Among(all, wanted);
        var wantedOnes = ready.Parcels.Select(p => p.Id).ToHashSet();
        var rehearsals = await stores.Rehearsals.OfAsync(round, cancel);
        var rehearsed = rehearsals
            .SelectMany(r => r.Parcels)
            .Where(p => p.IsAsNow && wantedOnes.Contains(p.Of))
            .GroupBy(p => p.Of)
            .ToList();
        var own = stores.Book.Currency.Code;
        return new ReleaseSummed(
            content.Round.Revision,
            ready,
            all,
            await stores.Listing.LeftOutCountAsync(round, cancel),
            [
                .. ready
                    .Parcels.SelectMany(p => p.Sums)
                    .Where(s => s.AlsoOn is null)
                    .GroupBy(s => s.Currency)
                    .OrderByDescending(g => g.Key == own)
                    .ThenBy(g => g.Key, StringComparer.Ordinal)
                    .Select(g => (Currency.Of(g.Key), g.Sum(s => s.Total))),
            ],
            content.Sender,
            [
                .. ready
                    .Parcels.Where(p => p.Wording is not null)
                    .GroupBy(p => content.WordingOf(p.Wording!.Value).Name)
                    .Select(g => (Wording: g.Key, Parcels: g.Count()))
                    .OrderByDescending(w => w.Parcels)
                    .ThenBy(w => w.Wording, StringComparer.Ordinal),
            ],
            [.. ready.Parcels.Select(p => content.LayoutFor(content.Card(p.Customer), p.ReminderLevel).Template.Layout)],
            rehearsed.Count,
            rehearsed.Count(g => g.Any(p => p.LookedAtBy.Count > 0)),
            SinceLookedThrough.Of(content.Round, ready.Parcels.Select(p => p.Changed)),
            await LedgerDoubt.OfAsync(content.Intake, stores, cancel),
            await SendingForecast.OfAsync(
                content.Sender,
                ready.Parcels.Where(p => p.Recipients.Count > 0).Sum(p => p.Messages),
                stores,
                clock,
                cancel
            ),
            await Approval.OfAsync(content.Round, all, rehearsals, stores, cancel)
        );
    }
}
