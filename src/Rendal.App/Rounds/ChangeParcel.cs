using Rendal.App.Books;
using Rendal.App.Customers;
using Rendal.App.Wordings;
using Rendal.Core.Customers;
using Rendal.Core.Enclosures;
using Rendal.Core.Parcels;

namespace Rendal.App.Rounds;

/// <summary>Changes one parcel of a round that nothing was released of, and none of the others.</summary>
public sealed class ChangeParcel(BookStores stores, TimeProvider clock)
{
    /// <summary>
    /// Puts a change in place of what was changed on a parcel before, and makes the parcel up anew. What comes out as the others have it
    /// is no change.
    /// </summary>
    /// <param name="parcel">The parcel.</param>
    /// <param name="seen">The revision of its round that the person saw.</param>
    /// <param name="change">The change; one without <see cref="ParcelChange.Parts"/> puts the parcel back to what the others are.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The parcel is not there, something of its round was released, somebody else changed the parcel
    /// since, an address is none, there are too many or none that it is to, or a picture is not one of the book.</exception>
    public async Task RunAsync(long parcel, long seen, ParcelChange change, CancellationToken cancel)
    {
        var (round, _, card) = await OfAsync(parcel, cancel);
        var words = await WordsAsync(change.Words, cancel);
        var isAsWording = words is not null && words == await WordsOfAllAsync(parcel, cancel);
        await PutAsync(
            round,
            seen,
            card.Key,
            new ParcelChange
            {
                Recipients = change.Recipients is { } recipients ? Checked(recipients) : null,
                Words = isAsWording ? null : words,
                DocumentNote = Noted(change.DocumentNote),
                LeftOut = [.. change.LeftOut.Distinct()],
                Added = await AddedAsync(change.Added, card.Key, cancel),
            },
            cancel
        );
    }

    /// <summary>
    /// Sets whom the messages of a customer go to on the card, for good; recipients that were set on the parcel alone are taken back.
    /// </summary>
    /// <param name="parcel">The parcel.</param>
    /// <param name="seen">The revision of its round that the person saw.</param>
    /// <param name="recipients">Whom they go to.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">As for <see cref="RunAsync"/>; or the customer has no card, or somebody changes that in this
    /// moment.</exception>
    public async Task RecipientsForGoodAsync(long parcel, long seen, ParcelRecipients recipients, CancellationToken cancel)
    {
        var (round, content, card) = await OfAsync(parcel, cancel);
        var version = await stores.Customers.VersionAsync(card.Key, cancel)
            ?? throw ProblemException.NotFound("The card of this customer");
        var now = (await stores.Customers.FindAsync(card.Key, cancel))!;
        var contacts = ContactList.With(now.Contacts, content.Round.Choice.Kind, Checked(recipients));
        await new ChangeCard(stores, clock).RunAsync(now with { Contacts = contacts }, version, cancel);
        if (content.ChangeOf(card.Key) is { Recipients: not null } own)
        {
            await PutAsync(round, seen, card.Key, own with { Recipients = null }, cancel);
        }
        else
        {
            await new PrepareRound(stores, clock).CatchUpAsync(round, cancel);
        }
    }

    private async Task<ParcelWords> WordsOfAllAsync(long parcel, CancellationToken cancel)
    {
        var made = await ParcelContent.LoadAsync(parcel, stores, cancel);
        var all = made.Round.WordingOf(made.Assigned.Id);
        return new ParcelWords(all.Subject, all.Body);
    }

    private async Task<(long Round, RoundContent Content, Customer Card)> OfAsync(long parcel, CancellationToken cancel)
    {
        var (round, of) = await stores.Rounds.ParcelAsync(parcel, cancel) ?? throw ProblemException.NotFound("This parcel");
        var content = await RoundContent.LoadAsync(stores, round, of.Customer, cancel);
        return (round, content, content.Card(of.Customer));
    }

    private async Task PutAsync(long round, long seen, string customer, ParcelChange change, CancellationToken cancel)
    {
        var update = await stores.ParcelChanges.PutAsync(round, seen, customer, change, stores.Person, cancel);
        await RoundConflict.DemandAsync(update, stores, cancel);
        await new PrepareRound(stores, clock).CatchUpAsync(round, cancel);
    }

    private async Task<ParcelWords?> WordsAsync(ParcelWords? given, CancellationToken cancel)
    {
        if (given is null)
        {
            return null;
        }

        var (subject, body) = await MessageWords.CheckedAsync(stores, given.Subject, given.Body, cancel);
        return new ParcelWords(subject, body);
    }

    private async Task<IReadOnlyList<long>> AddedAsync(IReadOnlyList<long> files, string customer, CancellationToken cancel)
    {
        long[] wanted = [.. files.Distinct()];
        var found = wanted.Length == 0 ? [] : await stores.Enclosures.FindAsync(wanted, cancel);
        return wanted.Length > Enclosing.MostForAll
                ? throw ProblemException.Invalid($"{Enclosing.MostForAll} files at the most can be added to a parcel.")
            : found.Count(f => f.Use == EnclosureUse.Picked || f.Customer == customer) == wanted.Length ? wanted
            : throw ProblemException.Invalid(
                "A file that is to be added is not there any more, or goes with another customer’s messages."
            );
    }

    private static string Noted(string given)
    {
        var note = given.ReplaceLineEndings("\n").Trim();
        return note.Length <= ParcelChange.LongestNote
            ? note
            : throw ProblemException.Invalid(
                $"A remark on a document has {ParcelChange.LongestNote} characters at the most; this one has {note.Length}."
            );
    }

    /// <summary>Recipients with each address once, in the first of the three lists that it stands in.</summary>
    private static ParcelRecipients Checked(ParcelRecipients given)
    {
        var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var recipients = new ParcelRecipients(Of(given.To), Of(given.Copies), Of(given.BlindCopies));
        if (recipients.To.Count == 0)
        {
            throw ProblemException.Invalid("A message needs somebody whom it is to. Hold the parcel, or take it out, if it is not to go.");
        }

        return taken.Count <= AddressList.MostRecipients
            ? recipients
            : throw ProblemException.Invalid(
                $"A message goes to {AddressList.MostRecipients} addresses at the most; these are {taken.Count}."
            );

        List<string> Of(IReadOnlyList<string> fields)
        {
            var read = fields.Select(AddressList.Read).ToList();
            return read.SelectMany(r => r.Bad).FirstOrDefault() is { } bad
                ? throw ProblemException.Invalid($"“{bad}” is no address.")
                : [.. read.SelectMany(r => r.Good).Where(taken.Add)];
        }
    }
}
