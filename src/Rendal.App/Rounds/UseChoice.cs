using Rendal.App.Books;
using Rendal.App.Progress;

namespace Rendal.App.Rounds;

/// <summary>Puts a saved choice in place of a round’s.</summary>
public sealed class UseChoice(BookStores stores, TimeProvider clock)
{
    /// <summary>Puts it; the day for which the round holds, and its period, stay the round’s own.</summary>
    /// <param name="round">The round.</param>
    /// <param name="choice">The saved choice.</param>
    /// <param name="revision">The revision of the round that the person saw.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The round or the choice is not there, or what <see cref="ChangeRound"/> says.</exception>
    public async Task RunAsync(long round, long choice, long revision, CancellationToken cancel)
    {
        var of = await stores.Rounds.FindAsync(round, cancel) ?? throw ProblemException.NotFound("This round");
        var saved = await stores.Choices.FindAsync(choice, cancel) ?? throw ProblemException.NotFound("This choice");
        var used = saved.Choice with { AsOf = of.Choice.AsOf, PeriodFrom = of.Choice.PeriodFrom };
        await new ChangeRound(stores, clock).RunAsync(round, revision, of.Settings with { Choice = used }, new ProgressMeter(), cancel);
    }
}
