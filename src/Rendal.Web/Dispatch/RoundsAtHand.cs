using Npgsql;
using Rendal.Store.Books;
using Rendal.Store.Dispatch;
using Rendal.Store.Intake;
using Rendal.Store.Rounds;
using Rendal.Web.Rounds;

namespace Rendal.Web.Dispatch;

/// <summary>The rounds that a worker sends parcels of, each read once for all of them: what was released does not change.</summary>
internal sealed class RoundsAtHand(BookStore books, NpgsqlDataSource source)
{
    private readonly Dictionary<(long Book, long Round), RoundAtHand> read = [];

    /// <summary>The round of a parcel.</summary>
    public async Task<RoundAtHand> OfAsync(ClaimedParcel parcel)
    {
        if (read.TryGetValue((parcel.Book, parcel.Round), out var known))
        {
            return known;
        }

        var book = await books.FindAsync(parcel.Book, CancellationToken.None) ?? throw new InvalidOperationException("A parcel’s book is gone.");
        var round = (await new RoundStore(source, parcel.Book).FindAsync(parcel.Round, CancellationToken.None))!;
        var intake = (await new IntakeStore(source, parcel.Book).FindAsync(round.IntakeId, CancellationToken.None))!;
        var making = new ParcelMaking(book, round, round.Rules.SettlementOf(intake.HasOutstanding), round.ByHand, round.Rules, parcel.Sender.Name);
        return read[(parcel.Book, parcel.Round)] = new RoundAtHand(round, making);
    }
}

/// <summary>A round with what makes its parcels.</summary>
/// <param name="Round">The round.</param>
/// <param name="Making">Makes their content.</param>
internal sealed record RoundAtHand(RoundRecord Round, ParcelMaking Making);
