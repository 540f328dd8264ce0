using Rendal.App.Books;
using Rendal.App.Progress;

namespace Rendal.App.Rounds;

/// <summary>Makes a round that sends a parcel once more, to its customer alone, at the address as it is now.</summary>
public sealed class RepeatParcel(BookStores stores, TimeProvider clock)
{
    /// <summary>Makes the round and prepares it; it goes when somebody has looked at it and releases it.</summary>
    /// <param name="parcel">The parcel.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>The number of the new round.</returns>
    /// <exception cref="ProblemException">The parcel is not there, or it is still on its way.</exception>
    public async Task<long> RunAsync(long parcel, CancellationToken cancel)
    {
        var (round, of) = await stores.Rounds.ParcelAsync(parcel, cancel) ?? throw ProblemException.NotFound("This parcel");
        var choice = (await stores.Rounds.FindAsync(round, cancel))!.Choice with
        {
            Customers = of.Accounts.Select(a => a.Key).Append(of.Customer).ToHashSet(StringComparer.Ordinal),
        };
        var made = await stores.Following.MakeRepeatAsync(parcel, choice, stores.Person, cancel)
            ?? throw ProblemException.Conflict(
                "It is still on its way. It can be sent once more when it has gone out or come to its end."
            );
        await new PrepareRound(stores, clock).RunAsync(made, new ProgressMeter(), cancel);
        return made;
    }
}
