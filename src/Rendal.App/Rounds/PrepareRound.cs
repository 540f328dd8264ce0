using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.App.Readiness;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>Makes up all parcels of a round anew from what they are made of now.</summary>
public sealed class PrepareRound(BookStores stores, TimeProvider clock)
{
    /// <summary>Makes them up and stores them in place of the earlier ones.</summary>
    /// <param name="round">The round.</param>
    /// <param name="meter">Is told how far it has come.</param>
    /// <param name="cancel">Stops it. What was there before stays, and the round is to be prepared.</param>
    /// <exception cref="Unable">The round is not there, or something of it was released.</exception>
    public async Task RunAsync(long round, ProgressMeter meter, CancellationToken cancel)
    {
        bool isPut;
        do
        {
            // What another person changes meanwhile is in it too: it is made up once more.
            meter.Begin("choosing from the ledger");
            var content = await RoundContent.LoadAsync(stores, round, cancel);
            var marks = stores.Rounds.MarksAsync(round, cancel);
            var chosen = await content.ChooseAsync(cancel);
            var before = await marks;
            var byItself = content.Round.PreparedAt is not null && content.Round.IsBehindBook(content.Book);
            var parcels = (await ParcelsAsync(content, chosen, meter, cancel)).ConvertAll(p => Marked(p, before.GetValueOrDefault(p.Customer), byItself));
            var fellOut = content.Round.FellOut.Concat(byItself ? before.Keys : []).Except(parcels.Select(p => p.Customer), StringComparer.Ordinal).Order(StringComparer.Ordinal);
            meter.Begin("keeping the parcels");
            var basis = new RoundBasis(content.Round.Choice, content.Hand, content.Rules);
            isPut = await stores.Rounds.PutPreparedAsync(round, new PreparedState(content.Round.Revision, content.Book.Changes, clock.GetUtcNow()), parcels, [.. fellOut], chosen, basis, cancel)
                ?? throw Unable.Conflict("Parcels of this round were released; it stays as it is. Make a new round for what is left.");
        }
        while (!isPut);
    }

    private static ParcelRecord Marked(ParcelRecord parcel, SealMark? before, bool byItself)
    {
        var mark = SealMark.After(before, parcel.Seal!, byItself);
        return parcel with { SeenSeal = mark.Seen, Changed = mark.Changed };
    }

    /// <summary>The parcels that a round would have now, each sealed, in the order of their names.</summary>
    internal static async Task<List<ParcelRecord>> ParcelsAsync(RoundContent content, ChosenRound chosen, ProgressMeter meter, CancellationToken cancel)
    {
        var round = content.Round;
        var decisions = content.Decisions.ToDictionary(d => d.Customer, d => d.Decision, StringComparer.Ordinal);
        var sealer = new Sealer(round.Name, round.Choice, content.Rules, content.Book.Firm, content.Sender.SentAs);
        using var readiness = await ParcelReadiness.OfAsync(content, cancel);
        var byCustomer = chosen.Statements.GroupBy(s => s.Customer).ToList();
        meter.Begin("making up parcels", byCustomer.Count, "parcels");
        return
        [
            .. byCustomer.AsParallel().WithCancellation(cancel).Select(of =>
            {
                meter.Step();
                var card = content.Card(of.Key);
                IReadOnlyList<Statement> statements = [.. of];
                IReadOnlyList<ParcelAccount> accounts = [.. statements.SelectMany(s => s.Accounts).Select(a => a.Customer).Distinct().Select(key => new ParcelAccount(key, content.Card(key).Name))];
                var recipients = Recipients.Of(card, round.Choice.Kind);
                var level = statements.Max(s => s.ReminderLevel);
                IReadOnlyList<string> addresses = [.. recipients.All.Take(AddressList.MostRecipients)];
                var layout = content.LayoutFor(card, level);
                var state = decisions.GetValueOrDefault(of.Key) == "held" ? ParcelState.Held : ParcelState.Prepared;
                return new ParcelRecord(0, of.Key, card.Name, accounts, state, addresses, readiness.Problem(card, statements, accounts, recipients, level), [.. statements.Select(ParcelSum.Of)], statements.Sum(s => s.Items.Count), "")
                {
                    ReminderLevel = level,
                    OnPaper = card.GoesByPost,
                    Layout = layout.Ref,
                    Seal = sealer.Seal(new SealedContent(card, statements, [.. accounts.Select(a => KeyValuePair.Create(a.Key, a.Name))], addresses, card.GoesByPost, level, content.WrittenFor(card, level), layout.Template.Layout)),
                };
            }).OrderBy(p => p.Name, StringComparer.OrdinalIgnoreCase).ThenBy(p => p.Customer, StringComparer.Ordinal),
        ];
    }
}
