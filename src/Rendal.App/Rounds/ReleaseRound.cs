using System.Globalization;
using Rendal.App.Books;
using Rendal.Core.Dispatch;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Store.Books;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>What a person lets go.</summary>
/// <param name="Parcels">The parcels by number; null for all that are ready.</param>
/// <param name="Revision">The revision of the round that the person was shown.</param>
/// <param name="Seen">What <see cref="ReadyParcels.Seen"/> was of what the person was shown.</param>
/// <param name="At">When they leave, by the clock of the book, as <c>2026-11-02T07:30</c>; null for now.</param>
/// <param name="Channel">How they leave.</param>
/// <param name="DespiteLedger">Whether they are let go although the ledger that the round is from was undone, or is not the
/// newest.</param>
/// <param name="SeenChanges">Whether the person has seen what <see cref="ReleaseSummed.Changed"/> says.</param>
public sealed record ReleaseOrder(
    IReadOnlyList<long>? Parcels,
    long Revision,
    string Seen,
    string? At,
    Channel Channel,
    bool DespiteLedger,
    bool SeenChanges
);

/// <summary>
/// Lets parcels go, if they are exactly those that a person was shown: everything is reckoned once more, and where a parcel would have
/// another seal now, nothing goes and it is said what changed.
/// </summary>
public sealed class ReleaseRound(BookStores stores, TimeProvider clock)
{
    // Enough for all processors, and a few megabytes.
    private const int Batch = 1_000;

    /// <summary>Lets them go, all or none.</summary>
    /// <param name="id">The round.</param>
    /// <param name="order">What is let go.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">They are not what was shown, or not what they would be now; or nothing is ready, the ledger is
    /// in doubt, the sender is somebody else's, the proof does not close, or the
    /// person prepared the round in a book in which another one releases it.</exception>
    public async Task RunAsync(long id, ReleaseOrder order, CancellationToken cancel)
    {
        var content = await RoundContent.LoadAsync(stores, id, cancel);

        // What they would be now is reckoned while it is read what they are.
        var choosing = Task.Run(() => content.ChooseAsync(cancel), cancel);
        var reading = stores.Rounds.ReadyAsync(id, cancel);
        await Task.WhenAll(choosing, reading);
        var wanted = order.Parcels?.ToHashSet();
        var ready = (await reading).FindAll(p => wanted is null || wanted.Contains(p.Id));
        if (ready.Count == 0)
        {
            throw ProblemException.Conflict("Nothing of this round is ready to be released.");
        }

        if (
            content.Round.Revision != order.Revision
            && await stores.Changes.SinceAsync(id, order.Revision, cancel) is { Count: > 0 } changes
        )
        {
            throw ProblemException.Conflict(
                $"{await RoundConflict.SinceAsync(changes, stores, cancel)} since you were shown what would be released. "
                    + $"{LookAgain(content.Round)}"
            );
        }

        if (content.Round.IsUnprepared)
        {
            throw ProblemException.Conflict(
                $"The parcels are not made up for what was chosen or decided since. {LookAgain(content.Round)}"
            );
        }

        if (ParcelSeal.Digest(ready.Select(p => (p.Id, p.Seal))) != order.Seen)
        {
            throw ProblemException.Conflict(
                "What is ready to be released is not what you were shown: the round was prepared anew meanwhile. "
                    + $"{LookAgain(content.Round)}"
            );
        }

        if (!order.SeenChanges && SinceLookedThrough.Of(content.Round, ready.Select(p => p.Changed)) is { Length: > 0 } unseen)
        {
            throw ProblemException.Conflict($"{unseen} Look at it, or say that you have seen it.");
        }

        if (!order.DespiteLedger && await LedgerDoubt.OfAsync(content.Intake, stores, cancel) is { Length: > 0 } doubt)
        {
            throw ProblemException.Conflict($"{doubt} Say that it is to be released all the same, or make a new round.");
        }

        if (!content.Sender.IsFor(stores.Person))
        {
            throw ProblemException.Conflict(
                "This round goes by a sender that is somebody’s own. Choose another one under “Goes by”, or let them release it."
            );
        }

        if (stores.Book.NeedsSecondPerson && (await stores.ReleaseRequests.PreparersAsync(id, cancel)).Exists(p => p.Id == stores.Person))
        {
            throw ProblemException.Conflict(
                "You made or changed this round, and in this book somebody else releases it. Request its release."
            );
        }

        var now = clock.GetUtcNow();
        var leaves = order.At is { } at ? LeavesAt(at, stores.Book, now) : now;
        var proof = await stores.Rounds.ProofAsync(id, cancel);
        if (proof.Find(p => p.Difference != 0) is { } open)
        {
            throw ProblemException.Conflict(
                $"The proof does not close: {open.Difference} {open.Currency} are unaccounted for. Nothing can be released."
            );
        }

        using var maker = await ParcelMaker.OfAsync(content, cancel);
        var frozen = Freeze(content, ready, (await choosing).ByCustomer(), maker, cancel);
        if (
            !await stores.Release.ReleaseAsync(
                id,
                content.Round.Revision,
                frozen,
                content.Hand,
                content.Rules,
                stores.Person,
                now,
                leaves,
                order.Channel,
                cancel
            )
        )
        {
            throw ProblemException.Conflict($"The round was changed in this moment. {LookAgain(content.Round)}");
        }
    }

    /// <summary>
    /// The content of parcels as it is to be frozen, batch by batch and made as it is asked for, so that a few are in memory. What is
    /// frozen is what was compared: after the last it is said, as an error, what changed of any.
    /// </summary>
    private static IEnumerable<IReadOnlyList<FrozenParcel>> Freeze(
        RoundContent content,
        IReadOnlyList<ReadyParcel> parcels,
        IReadOnlyDictionary<string, IReadOnlyList<Statement>> chosen,
        ParcelMaker maker,
        CancellationToken cancel
    )
    {
        var changed = new ChangedSince("Since this round was prepared");

        // Whether a parcel is ready follows from what is in its seal and from what the book counts the changes of.
        var isAsPrepared = content.Round.PreparedAtChange == content.Book.Changes;
        foreach (var batch in parcels.Chunk(Batch))
        {
            var made = batch
                .AsParallel()
                .AsOrdered()
                .WithCancellation(cancel)
                .Select(p => chosen.TryGetValue(p.Customer, out var statements) ? maker.Make(p.Customer, statements, isAsPrepared) : null)
                .ToList();
            foreach (var (parcel, now) in batch.Zip(made))
            {
                changed.Compare(parcel.Seal, now?.Parcel.Seal, now?.Parcel.Problem.Length > 0);
            }

            if (changed.IsNothing)
            {
                yield return [.. batch.Zip(made, (parcel, now) => Frozen(content, parcel, chosen[parcel.Customer], now!.Words!))];
            }
        }

        if (!changed.IsNothing)
        {
            throw ProblemException.Conflict($"{changed} {LookAgain(content.Round)}");
        }
    }

    private static FrozenParcel Frozen(
        RoundContent content,
        ReadyParcel parcel,
        IReadOnlyList<Statement> statements,
        FilledWording words
    ) =>
        new(parcel.Id, words.Subject, words.Body, content.CardFor(parcel.Customer, statements), content.Book.Firm, content.Sender.SentAs)
        {
            Seal = parcel.Seal,
            Change = content.ChangeOf(parcel.Customer),
            Accounts = parcel.Accounts,
            Numbers =
            [
                .. statements.SelectMany(s => s.Items).Select(i => i.Row.Number).Where(n => n.Length > 0).Distinct(StringComparer.Ordinal),
            ],
            Reminded = parcel.ReminderLevel is null
                ? []
                : [.. statements.SelectMany(s => content.Rules.Reminders.Counted(s, s.ReminderLevel!.Value, content.Reminded))],
        };

    /// <summary>What a person does where something changed since the round was prepared.</summary>
    private static string LookAgain(RoundRecord round) =>
        round.ReleasedAt is null
            ? "Prepare it anew and look through it again."
            : "A part of it was let go already: make a round of the rest, which is prepared anew, and look through that.";

    /// <summary>
    /// The moment that a person means by the clock of the book. Where clocks are put forward and the moment is skipped, it is the one an
    /// hour on.
    /// </summary>
    private static DateTimeOffset LeavesAt(string at, Book book, DateTimeOffset now)
    {
        if (!DateTime.TryParseExact(at, "yyyy-MM-dd'T'HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var local))
        {
            throw ProblemException.Invalid($"“{at}” is no date and time.");
        }

        var zone = TimeZoneInfo.FindSystemTimeZoneById(book.TimeZone);
        var moment = new DateTimeOffset(local, zone.GetUtcOffset(local));
        return moment > now
            ? moment
            : throw ProblemException.Invalid(
                $"{local.ToString("d MMMM yyyy, HH:mm", CultureInfo.InvariantCulture)} is over. Choose a later moment, or release now."
            );
    }
}
