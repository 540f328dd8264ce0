using System.Collections.Frozen;
using Rendal.App.Books;
using Rendal.App.Rounds;
using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Store.Intake;

namespace Rendal.App.Ledger;

/// <summary>The ledger as it stands today, with a statement for everybody who owes.</summary>
/// <param name="Intake">The intake that brought it.</param>
/// <param name="Rows">Its rows.</param>
/// <param name="Everybody">The statements, and who has none.</param>
public sealed record LedgerNow(IntakeRecord Intake, IReadOnlyList<LedgerRow> Rows, ChosenRound Everybody)
{
    /// <summary>The day.</summary>
    public required DateOnly AsOf { get; init; }

    /// <summary>Reckons it; null before the first file was kept.</summary>
    public static async Task<LedgerNow?> OfAsync(BookStores stores, TimeProvider clock, CancellationToken cancel)
    {
        if (await stores.Intakes.CurrentAsync(cancel) is not { } intake)
        {
            return null;
        }

        var rows = await stores.Ledger.RowsAsync(intake.Id, cancel).ToListAsync(cancel);
        var hand = new ByHand { Settlements = [.. (await stores.Settlements.ListAsync(null, cancel)).Select(s => s.Settlement)] };
        var choice = new Choice { AsOf = stores.Book.Today(clock), NeedsAddress = false };
        return new LedgerNow(intake, rows, Choosing.Choose(rows, [], choice, stores.Book.Rules.SettlementOf(intake.HasOutstanding), stores.Book.Rules, _ => default, hand)) { AsOf = choice.AsOf };
    }

    /// <summary>What a round of reminders would send today.</summary>
    public async Task<ChosenRound> RemindAsync(BookStores stores, CancellationToken cancel) => Choosing.Choose(
        Rows,
        await stores.Ledger.SetAsideAsync(Intake.Id, null, cancel),
        new Choice { AsOf = AsOf }.OfReminders(stores.Book.Rules.Reminders),
        stores.Book.Rules.SettlementOf(Intake.HasOutstanding),
        stores.Book.Rules,
        (await Reach.OfLedgerAsync(stores, Intake.Id, RoundKind.Reminders, FrozenDictionary<string, DateOnly>.Empty, cancel)).Of,
        new ByHand { Holds = [.. (await stores.Holds.ListAsync(cancel)).Select(h => h.Hold)], Settlements = [.. (await stores.Settlements.ListAsync(null, cancel)).Select(s => s.Settlement)] },
        await stores.Reminders.AllAsync(null, null, null, cancel));
}
