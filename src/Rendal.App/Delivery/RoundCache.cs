using Npgsql;
using Rendal.Core.Parcels;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Store.Dispatch;
using Rendal.Store.Intake;
using Rendal.Store.Rounds;

namespace Rendal.App.Delivery;

/// <summary>The rounds that a worker sends parcels of, each read once for all of them: what was released does not change.</summary>
internal sealed class RoundCache(NpgsqlDataSource source)
{
    private readonly Dictionary<(long Book, long Round), RoundAtHand> read = [];

    /// <summary>The round of a parcel.</summary>
    public async Task<RoundAtHand> OfAsync(ClaimedParcel parcel)
    {
        if (read.TryGetValue((parcel.Book, parcel.Round), out var known))
        {
            return known;
        }

        var round = (await new RoundStore(source, parcel.Book).FindAsync(parcel.Round, CancellationToken.None))!;
        var intake = (await new IntakeStore(source, parcel.Book).FindAsync(round.IntakeId, CancellationToken.None))!;
        return read[(parcel.Book, parcel.Round)] = new RoundAtHand(round, round.Rules.SettlementOf(intake.HasOutstanding));
    }
}

/// <summary>A round with what its parcels have in common.</summary>
/// <param name="Round">The round.</param>
/// <param name="Settlement">How payments were set against invoices.</param>
internal sealed record RoundAtHand(RoundRecord Round, SettlementRule Settlement)
{
    /// <summary>
    /// Makes the content of a parcel, with the letterhead and under the identity that it was released with. Its message was filled then,
    /// so that no greeting is wanted any more.
    /// </summary>
    public ParcelComposer ComposerOf(ClaimedParcel parcel) =>
        new(
            parcel.Letterhead,
            new RoundIdentity(Round.Name, Round.MadeBy),
            Round.Choice,
            Settlement,
            Round.ByHand,
            Round.Rules,
            parcel.SentAs
        );
}
