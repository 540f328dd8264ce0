using Rendal.App.Readiness;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Enclosures;
using Rendal.Core.Parcels;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>A parcel as it would be now.</summary>
/// <param name="Parcel">It, sealed, without what was decided about its customer.</param>
/// <param name="Words">The words of its message; null where a person has to see to something before they can be filled.</param>
internal sealed record MadeParcel(ParcelRecord Parcel, FilledWording? Words);

/// <summary>Makes up the parcels of a round, several at the same time.</summary>
internal sealed class ParcelMaker : IDisposable
{
    private readonly RoundContent content;
    private readonly EnclosureFinder enclosures;
    private readonly Sealer sealer;

    private ParcelMaker(RoundContent content, ParcelReadiness readiness, EnclosureFinder enclosures)
    {
        (this.content, Readiness, this.enclosures) = (content, readiness, enclosures);
        sealer = new Sealer(content.Round.Name, content.Round.Choice, content.Rules, content.Book.Firm, content.Sender.SentAs);
    }

    /// <summary>What tells whether they are ready.</summary>
    public ParcelReadiness Readiness { get; }

    /// <summary>Loads what it needs to know beside the round.</summary>
    public static async Task<ParcelMaker> OfAsync(RoundContent content, CancellationToken cancel) =>
        new(content, await ParcelReadiness.OfAsync(content, cancel), await content.EnclosuresAsync(cancel));

    /// <inheritdoc/>
    public void Dispose() => Readiness.Dispose();

    /// <summary>Makes up a parcel.</summary>
    /// <param name="customer">Who gets it.</param>
    /// <param name="statements">Its statements.</param>
    /// <param name="isKnownAsReady">Whether it was found to be ready when it was prepared, and nothing that this depends on beside its
    /// seal was changed since: then it is not asked again.</param>
    public MadeParcel Make(string customer, IReadOnlyList<Statement> statements, bool isKnownAsReady = false)
    {
        var card = content.CardFor(customer, statements);
        IReadOnlyList<ParcelAccount> accounts =
        [
            .. statements
                .SelectMany(s => s.Accounts)
                .Select(a => a.Customer)
                .Distinct()
                .Select(key => new ParcelAccount(key, content.Card(key).Name)),
        ];
        var change = content.ChangeOf(customer);
        var recipients = Recipients.Of(card, content.Round.Choice.Kind, change);
        var level = statements.Max(s => s.ReminderLevel);
        IReadOnlyList<string> addresses = [.. recipients.All.Take(AddressList.MostRecipients)];
        var layout = content.LayoutFor(card, level);
        var assigned = content.AssignedTo(card, level, statements);

        // What goes on paper alone has no message that files could go with.
        var enclosed =
            recipients.All.Count == 0
                ? ParcelEnclosures.None
                : enclosures.Of(customer, statements, change?.LeftOut ?? [], change?.Added ?? []);
        var (problem, words, files) =
            isKnownAsReady && !Readiness.MaySplit(enclosed)
                ? ("", Readiness.Words(card, statements, accounts, level, assigned, enclosed), enclosed.Files)
                : Readiness.Look(card, statements, accounts, recipients, level, assigned, enclosed);
        var review = words is null ? (Remarks: [], Passages: 0) : Readiness.Review(card, statements, accounts, level, assigned, enclosed);
        var parcel = new ParcelRecord(
            0,
            customer,
            card.Name,
            accounts,
            ParcelState.Prepared,
            addresses,
            problem,
            [.. statements.Select(ParcelSum.Of)],
            statements.Sum(s => s.Items.Count),
            ""
        )
        {
            ReminderLevel = level,
            OnPaper = card.GoesByPost,
            Layout = layout.Ref,
            Altered = change?.Parts ?? [],
            Enclosures = files,
            Wording = words is null ? null : assigned.Id,
            Passages = review.Passages,
            Remarks = review.Remarks,
            Seal = sealer.Seal(
                new SealedContent(
                    card,
                    statements,
                    [.. accounts.Select(a => KeyValuePair.Create(a.Key, a.Name))],
                    addresses,
                    card.GoesByPost,
                    level,
                    content.WrittenFor(card, assigned),
                    layout.Template.Layout,
                    change
                )
                {
                    Enclosures = files,
                    Copies = content.Round.Enclosing.Copies,
                    SaidOfRound = content.Identity.Said(slot =>
                        content.WordingFor(card, assigned).Uses.Contains(slot) || layout.Template.Uses.Contains(slot)
                    ),
                }
            ),
        };
        return new MadeParcel(parcel, words);
    }
}
