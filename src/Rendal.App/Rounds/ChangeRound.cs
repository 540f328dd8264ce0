using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.App.Senders;
using Rendal.Core.Enclosures;
using Rendal.Core.Rounds;

namespace Rendal.App.Rounds;

/// <summary>Changes what a round is about and how it goes, and prepares it anew.</summary>
public sealed class ChangeRound(BookStores stores, TimeProvider clock)
{
    /// <summary>Changes the settings of a round and prepares it anew with them.</summary>
    /// <param name="id">The round.</param>
    /// <param name="seen">The revision that the person saw; what others changed since stands beside this, unless it is the same.</param>
    /// <param name="wanted">The settings instead of those that the person saw. Where the round is about something else than before and the
    /// wording that was picked for it is the same, none is picked any more.</param>
    /// <param name="meter">Is told how far preparing has come.</param>
    /// <param name="cancel">Stops it. Where it is stopped while the round is prepared, the change stands, and the round is to be
    /// prepared.</param>
    /// <exception cref="ProblemException">The round or what it names is not there, the sender is somebody else's, something of the round
    /// was released, or somebody else changed the same since.</exception>
    public async Task RunAsync(long id, long seen, RoundSettings wanted, ProgressMeter meter, CancellationToken cancel)
    {
        wanted = wanted with { Name = RoundName.Checked(wanted.Name) };
        if (
            (wanted.Wording is { } wording && await stores.Wordings.FindAsync(wording, cancel) is null)
            || await stores.Senders.FindAsync(wanted.Sender, cancel) is null
            || (wanted.Layout is { } picked && await stores.Layouts.FindAsync(picked, cancel) is null)
        )
        {
            throw ProblemException.Invalid("The wording, the layout or the sender is not there any more.");
        }

        if (
            wanted.Enclosing.ForAll is { Count: > 0 } forAll
            && (await stores.Enclosures.FindAsync(forAll, cancel)).Count(f => f.Use == EnclosureUse.Picked) < forAll.Count
        )
        {
            throw ProblemException.Invalid("A file that is to go with all messages is not there any more.");
        }

        var before = await stores.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        if (before.SenderId != wanted.Sender)
        {
            await UsableSender.FindAsync(wanted.Sender, stores, cancel);
        }

        if (before.Choice.Kind != wanted.Choice.Kind)
        {
            await ReadyMadeTemplates.AddForAsync(stores, wanted.Choice.Kind, clock, cancel);
            wanted = before.WordingId == wanted.Wording ? wanted with { Wording = null } : wanted;
        }

        await RoundConflict.DemandAsync(await stores.Changes.ChangeSettingsAsync(id, seen, wanted, stores.Person, cancel), stores, cancel);

        await new PrepareRound(stores, clock).RunAsync(id, meter, cancel);
    }
}
