using System.Collections.Frozen;
using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Store.Intake;
using Rendal.Web.Books;
using Rendal.Web.Rounds;

namespace Rendal.Web.Today;

/// <summary>The ledger as it stands today, with a statement for everybody who owes.</summary>
/// <param name="Intake">The intake that brought it.</param>
/// <param name="Rows">Its rows.</param>
/// <param name="Everybody">The statements, and who has none.</param>
internal sealed record LedgerNow(IntakeRecord Intake, IReadOnlyList<LedgerRow> Rows, ChosenRound Everybody)
{
    /// <summary>The day.</summary>
    public required DateOnly AsOf { get; init; }

    /// <summary>Reckons it; null before the first file was kept.</summary>
    public static async Task<LedgerNow?> OfAsync(BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        if (await scope.Intakes.CurrentAsync(cancel) is not { } intake)
        {
            return null;
        }

        var rows = await scope.Ledger.RowsAsync(intake.Id, cancel).ToListAsync(cancel);
        var hand = new ByHand { Settlements = [.. (await scope.Settlements.ListAsync(null, cancel)).Select(s => s.Settlement)] };
        var choice = new Choice { AsOf = scope.Book.Today(clock), NeedsAddress = false };
        return new LedgerNow(intake, rows, Choosing.Choose(rows, [], choice, scope.Book.Rules.SettlementOf(intake.HasOutstanding), scope.Book.Rules, _ => default, hand)) { AsOf = choice.AsOf };
    }

    /// <summary>What a round of reminders would send today.</summary>
    public async Task<ChosenRound> RemindAsync(BookScope scope, CancellationToken cancel) => Choosing.Choose(
        Rows,
        await scope.Ledger.SetAsideAsync(Intake.Id, null, cancel),
        RoundEndpoints.Reminding(new Choice { AsOf = AsOf }, scope.Book.Rules),
        scope.Book.Rules.SettlementOf(Intake.HasOutstanding),
        scope.Book.Rules,
        (await Reach.OfLedgerAsync(scope, Intake.Id, RoundKind.Reminders, FrozenDictionary<string, DateOnly>.Empty, cancel)).Of,
        new ByHand { Holds = [.. (await scope.Holds.ListAsync(cancel)).Select(h => h.Hold)], Settlements = [.. (await scope.Settlements.ListAsync(null, cancel)).Select(s => s.Settlement)] },
        await scope.Reminders.AllAsync(null, null, cancel));
}
