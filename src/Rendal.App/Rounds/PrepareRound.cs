using Rendal.App.Books;
using Rendal.App.Enclosures;
using Rendal.App.Progress;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Enclosures;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>
/// Makes up the parcels of a round anew from what they are made of now: of those customers about whom something was decided, where
/// nothing else is another since it was prepared; else all.
/// </summary>
public sealed class PrepareRound(BookStores stores, TimeProvider clock)
{
    // So many are made up one family after the other; of more, all are made up at once.
    private const int MostInPart = 200;

    /// <summary>Makes them up and stores them in place of the earlier ones.</summary>
    /// <param name="round">The round.</param>
    /// <param name="meter">Is told how far it has come.</param>
    /// <param name="cancel">Stops it. What was there before stays, and the round is to be prepared.</param>
    /// <exception cref="ProblemException">The round is not there, or something of it was released.</exception>
    public async Task RunAsync(long round, ProgressMeter meter, CancellationToken cancel)
    {
        while (!await OnceAsync(round, meter, cancel))
        {
            // What another person changed meanwhile is in it too: it is made up once more.
        }
    }

    /// <summary>
    /// Makes up what the round is behind by. Where somebody else's making has it already, or nothing was changed, there is nothing to do.
    /// </summary>
    /// <param name="round">The round.</param>
    /// <param name="cancel">Stops it. What was there before stays, and the round is to be prepared.</param>
    /// <exception cref="ProblemException">The round is not there, or something of it was released.</exception>
    public async Task CatchUpAsync(long round, CancellationToken cancel)
    {
        while (await IsBehindAsync(round, cancel) && !await OnceAsync(round, new ProgressMeter(), cancel))
        {
            // What another person changed meanwhile is in it too: it is made up once more.
        }
    }

    /// <summary>Loads a round as it is once what it is behind by is made up.</summary>
    /// <param name="round">The round.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The round is not there, or something of it was released while it was made up.</exception>
    public async Task<RoundContent> CaughtUpAsync(long round, CancellationToken cancel)
    {
        var content = await RoundContent.LoadAsync(stores, round, cancel);
        if (!content.Round.IsBehind(content.Book))
        {
            return content;
        }

        await CatchUpAsync(round, cancel);
        return await RoundContent.LoadAsync(stores, round, cancel);
    }

    /// <summary>Makes up the part that has to be, or all. False where something was changed meanwhile.</summary>
    private async Task<bool> OnceAsync(long round, ProgressMeter meter, CancellationToken cancel) =>
        await InPartAsync(round, cancel) ?? await WholeAsync(round, meter, cancel);

    private async Task<bool> IsBehindAsync(long round, CancellationToken cancel)
    {
        var now = await stores.Rounds.FindAsync(round, cancel) ?? throw ProblemException.NotFound("This round");
        return now.PreparedAt is null || now.IsBehind(await stores.BookNowAsync(cancel));
    }

    /// <summary>
    /// Makes up the parcels of those about whom something was decided. False where something was changed meanwhile; null where all are to
    /// be made up.
    /// </summary>
    private async Task<bool?> InPartAsync(long round, CancellationToken cancel)
    {
        var before = await stores.Rounds.FindAsync(round, cancel) ?? throw ProblemException.NotFound("This round");
        if (
            before.ReleasedAt is not null
            || before.ToBePrepared
            || before.Awaiting.Count is 0 or > MostInPart
            || before.IsBehindBook(await stores.BookNowAsync(cancel))
        )
        {
            return null;
        }

        var family = await FamilyAsync(before.Awaiting, cancel);
        if (family.Count > MostInPart)
        {
            return null;
        }

        var content = await RoundContent.LoadAsync(stores, round, family, cancel);
        if (content.Round.Revision != before.Revision)
        {
            return false;
        }

        var marks = await stores.Rounds.MarksAsync(round, family, cancel);
        var chosen = await content.ChooseAsync(cancel);
        var parcels = (await ParcelsAsync(content, chosen, allAnew: true, new ProgressMeter(), cancel)).ConvertAll(p =>
            Marked(p, marks.GetValueOrDefault(p.Customer), byItself: false)
        );
        return await stores.InPart.PutAsync(round, StateOf(content), family, parcels, chosen, BasisOf(content), cancel);
    }

    private async Task<bool> WholeAsync(long round, ProgressMeter meter, CancellationToken cancel)
    {
        if (await stores.Rounds.FindAsync(round, cancel) is { ReleasedAt: null, Enclosing.Copies: not CopyForm.None } encloses)
        {
            meter.Begin("looking for copies");
            await CopiesAnew.RecogniseAsync(stores, encloses.IntakeId, cancel);
        }

        meter.Begin("choosing from the ledger");
        var content = await RoundContent.LoadAsync(stores, round, cancel);
        var marks = stores.Rounds.MarksAsync(round, null, cancel);
        var chosen = await content.ChooseAsync(cancel);
        var before = await marks;
        var byItself = content.Round.PreparedAt is not null && content.Round.IsBehindBook(content.Book);
        var parcels = (await ParcelsAsync(content, chosen, allAnew: false, meter, cancel)).ConvertAll(p =>
            Marked(p, before.GetValueOrDefault(p.Customer), byItself)
        );
        var fellOut = content
            .Round.FellOut.Concat(byItself ? before.Keys : [])
            .Except(parcels.Select(p => p.Customer), StringComparer.Ordinal)
            .Order(StringComparer.Ordinal);
        meter.Begin("keeping the parcels");
        return await stores.Rounds.PutPreparedAsync(round, StateOf(content), parcels, [.. fellOut], chosen, BasisOf(content), cancel)
            ?? throw ProblemException.Conflict(
                "Parcels of this round were released; it stays as it is. Make a new round for what is left."
            );
    }

    /// <summary>
    /// Some customers, and with each all that it shares a head office with: whether one is in a round may depend on them.
    /// </summary>
    private async Task<HashSet<string>> FamilyAsync(IReadOnlyList<string> customers, CancellationToken cancel)
    {
        var officeOf = await stores.Customers.HeadOfficesAsync(cancel);
        var offices = new HeadOffices(officeOf);
        var family = new HashSet<string>(customers, StringComparer.Ordinal);
        var tops = customers.Select(offices.TopOf).OfType<string>().ToHashSet(StringComparer.Ordinal);
        family.UnionWith(tops);
        family.UnionWith(officeOf.Keys.Where(key => offices.TopOf(key) is { } top && tops.Contains(top)));
        return family;
    }

    private PreparedState StateOf(RoundContent content) => new(content.Round.Revision, content.Book.Changes, clock.GetUtcNow());

    private static RoundBasis BasisOf(RoundContent content) => new(content.Round.Choice, content.Hand, content.Rules);

    private static ParcelRecord Marked(ParcelRecord parcel, SealMark? before, bool byItself)
    {
        var mark = SealMark.After(before, parcel.Seal!, byItself);
        return parcel with { SeenSeal = mark.Seen, Changed = mark.Changed };
    }

    /// <summary>The parcels that a round would have now, each sealed, in the order of their names.</summary>
    /// <param name="content">The round.</param>
    /// <param name="chosen">Who is chosen.</param>
    /// <param name="allAnew">Whether all are to be made up, those too that are known to come out as they did a moment ago.</param>
    /// <param name="meter">Is told how far it has come.</param>
    /// <param name="cancel">Stops it.</param>
    private static async Task<List<ParcelRecord>> ParcelsAsync(
        RoundContent content,
        ChosenRound chosen,
        bool allAnew,
        ProgressMeter meter,
        CancellationToken cancel
    )
    {
        var decisions = content.Decisions.ToDictionary(d => d.Customer, d => d.Decision, StringComparer.Ordinal);
        using var maker = await ParcelMaker.OfAsync(content, cancel);
        var recent = allAnew ? null : RecentParcels.Of(content, maker.Readiness);
        var byCustomer = chosen.ByCustomer();
        meter.Begin("making up parcels", byCustomer.Count, "parcels");
        var made = byCustomer
            .AsParallel()
            .WithCancellation(cancel)
            .Select(of =>
            {
                meter.Step();
                return (Parcel: recent?.Of(of.Key, of.Value, Make) ?? Make(), Statements: of.Value);

                ParcelRecord Make() => maker.Make(of.Key, of.Value).Parcel;
            })
            .ToList();
        recent?.Keep(made);
        return
        [
            .. made.Select(m =>
                    decisions.GetValueOrDefault(m.Parcel.Customer) == "held" ? m.Parcel with { State = ParcelState.Held } : m.Parcel
                )
                .OrderBy(p => (p.Name, p.Customer), ParcelOrder.Is),
        ];
    }
}
