using Rendal.App.Books;
using Rendal.Core.Customers;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>Sends chosen parcels of a round to oneself, exactly as they would go, before any of them goes to its customer.</summary>
public sealed class RehearseRound(BookStores stores, TimeProvider clock)
{
    /// <summary>What the subject of a rehearsal begins with, so that nobody takes it for what a customer got.</summary>
    public const string Mark = "Rehearsal: ";

    /// <summary>
    /// Three parcels in which what can go wrong is likely to show, among those that lack nothing; fewer where there are fewer.
    /// </summary>
    /// <exception cref="ProblemException">The round is not there.</exception>
    public async Task<IReadOnlyList<PickedParcel>> PickAsync(long round, CancellationToken cancel)
    {
        _ = await stores.Rounds.FindAsync(round, cancel) ?? throw ProblemException.NotFound("This round");
        return Pick((await stores.Rounds.ParcelsAsync(round, cancel)).Where(CanBeRehearsed));
    }

    /// <summary>Three of some parcels in which what can go wrong is likely to show.</summary>
    internal static IReadOnlyList<PickedParcel> Pick(IEnumerable<ParcelRecord> parcels) =>
        RehearsalPick.Of([
            .. parcels.Select(p => new RehearsalCandidate(
                p.Id,
                p.Items,
                p.Sums,
                p.Name,
                p.Accounts.Count,
                p.Altered.Count > 0,
                p.OnPaper
            )),
        ]);

    /// <summary>Sends them. They are in no customer's history, count as no reminder, and stand in the log as a rehearsal.</summary>
    /// <param name="id">The round.</param>
    /// <param name="revision">The revision that the person saw.</param>
    /// <param name="parcels">The parcels by number; null for all that lack nothing.</param>
    /// <param name="address">Where they go.</param>
    /// <param name="cancel">Stops it; nothing is sent then.</param>
    /// <returns>The number of the rehearsal.</returns>
    /// <exception cref="ProblemException">The round is not there or was released, the address is none, a parcel lacks something or is not
    /// what it was prepared as, the sender is somebody else's, or the round was changed since it was seen.</exception>
    public async Task<long> RunAsync(long id, long revision, IReadOnlyList<long>? parcels, string address, CancellationToken cancel)
    {
        var to = AddressList.Read(address) is { Good: [var one], Bad: [] }
            ? one
            : throw ProblemException.Invalid($"“{address}” is not one e-mail address.");
        var content = await new PrepareRound(stores, clock).CaughtUpAsync(id, cancel);

        if (content.Round.ReleasedAt is not null)
        {
            throw ProblemException.Conflict("Parcels of this round were released; what went is in the log.");
        }

        if (!content.Sender.IsFor(stores.Person))
        {
            throw ProblemException.Conflict("This round goes by a sender that is somebody’s own. Choose another one under “Goes by”.");
        }

        var wanted = parcels?.ToHashSet();
        var chosen = (await stores.Rounds.ParcelsAsync(id, cancel)).FindAll(p =>
            CanBeRehearsed(p) && (wanted is null || wanted.Contains(p.Id))
        );
        if (chosen.Count == 0 || chosen.Count < wanted?.Count)
        {
            throw ProblemException.Conflict(
                chosen.Count == 0
                    ? "Nothing of this round can be rehearsed yet: what needs you has to be put right first."
                    : "Some of these parcels need you first, or are not in the round any more. Look at them, or leave them out."
            );
        }

        var frozen = await FrozenAsync(content, chosen, to, cancel);
        return await stores.Rehearsals.BeginAsync(
            id,
            revision,
            frozen,
            content.Hand,
            content.Rules,
            to,
            stores.Person,
            clock.GetUtcNow(),
            cancel
        ) ?? throw ProblemException.Conflict("The round was changed since you saw it. Look at it, and rehearse it again.");
    }

    private static async Task<List<FrozenParcel>> FrozenAsync(
        RoundContent content,
        List<ParcelRecord> chosen,
        string to,
        CancellationToken cancel
    )
    {
        var statements = (await content.ChooseAsync(cancel)).ByCustomer();
        using var maker = await ParcelMaker.OfAsync(content, cancel);
        var frozen = new List<FrozenParcel>();
        foreach (var parcel in chosen)
        {
            var now = statements.TryGetValue(parcel.Customer, out var of) ? maker.Make(parcel.Customer, of) : null;
            if (now?.Words is not { } words || now.Parcel.Seal!.Differing(parcel.Seal).Count > 0)
            {
                throw ProblemException.Conflict(
                    $"The parcel of {parcel.Name} is not what it was prepared as. Prepare the round anew, and rehearse it again."
                );
            }

            frozen.Add(
                new FrozenParcel(
                    parcel.Id,
                    Mark + words.Subject,
                    words.Body,
                    content.Card(parcel.Customer),
                    content.Book.Firm,
                    content.Sender.SentAs with
                    {
                        CopyToSelf = false,
                    }
                )
                {
                    Seal = parcel.Seal,
                    Change = (content.ChangeOf(parcel.Customer) ?? new ParcelChange()) with
                    {
                        Recipients = new ParcelRecipients([to], [], []),
                    },
                }
            );
        }

        return frozen;
    }

    private static bool CanBeRehearsed(ParcelRecord parcel) => parcel.Problem.Length == 0;
}
