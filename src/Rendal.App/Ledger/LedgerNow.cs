using System.Collections.Frozen;
using Rendal.App.Books;
using Rendal.App.Rounds;
using Rendal.Core.Customers;
using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Store.Books;
using Rendal.Store.Intake;

namespace Rendal.App.Ledger;

/// <summary>
/// The ledger as it stands today. It is reckoned once for a day and for what it is made from, and again when something of that changed.
/// </summary>
public sealed class LedgerNow
{
    // What it depends on how far reminders have come.
    private static readonly ContentKind[] OfReminded = [ContentKind.Book, ContentKind.Reminded, ContentKind.Returned];

    private readonly BookStores stores;
    private readonly Figures figures;

    private LedgerNow(BookStores stores, IntakeRecord intake, DateOnly asOf, Figures figures) =>
        (this.stores, Intake, AsOf, this.figures) = (stores, intake, asOf, figures);

    /// <summary>The intake that brought it.</summary>
    public IntakeRecord Intake { get; }

    /// <summary>The day.</summary>
    public DateOnly AsOf { get; }

    /// <summary>How many customers have rows in it.</summary>
    public int Customers => figures.Customers;

    /// <summary>What everybody owes of whom something is open.</summary>
    public IReadOnlyList<Owed> Everybody => figures.Everybody;

    /// <summary>Reckons it; null before the first file was kept.</summary>
    public static async Task<LedgerNow?> OfAsync(BookStores stores, TimeProvider clock, CancellationToken cancel)
    {
        if (await stores.Intakes.CurrentAsync(cancel) is not { } intake)
        {
            return null;
        }

        var asOf = stores.Book.Today(clock);
        return new LedgerNow(
            stores,
            intake,
            asOf,
            await RecentFigures.OfAsync(
                stores,
                [ContentKind.Book, ContentKind.Settlement],
                (intake.Id, asOf),
                () => FiguresAsync(stores, intake, asOf, cancel),
                f => f.Everybody.Count
            )
        );
    }

    /// <summary>To how many which level of reminders is due, by currency.</summary>
    public async Task<ILookup<Currency, RemindersDue>> RemindersAsync(CancellationToken cancel)
    {
        var unsettled = await stores.Reminders.UnsettledAsync(cancel);
        return await RecentFigures.OfAsync(
            stores,
            [.. OfReminded, ContentKind.Settlement, ContentKind.Card, ContentKind.Hold],
            (Intake.Id, AsOf, unsettled),
            async () =>
            {
                var statements = (await RemindAsync(unsettled, cancel)).Statements;
                return statements
                    .Select(s => s.Currency)
                    .Distinct()
                    .SelectMany(c => RemindersDue.Of(statements, c).Select(due => (Currency: c, Due: due)))
                    .ToLookup(d => d.Currency, d => d.Due);
            },
            due => due.Count
        );
    }

    private static async Task<Figures> FiguresAsync(BookStores stores, IntakeRecord intake, DateOnly asOf, CancellationToken cancel)
    {
        var rows = await stores.Ledger.RowsAsync(intake.Id, cancel);
        var hand = new ByHand { Settlements = [.. (await stores.Settlements.ListAsync(null, cancel)).Select(s => s.Settlement)] };
        var everybody = Choosing.Choose(
            rows,
            [],
            new Choice { AsOf = asOf, NeedsAddress = false },
            stores.Book.Rules.SettlementOf(intake.HasOutstanding),
            stores.Book.Rules,
            _ => default,
            hand
        );
        return new Figures(
            rows.Select(r => r.Customer).Distinct(StringComparer.Ordinal).Count(),
            [.. everybody.Statements.Select(Owed.Of)]
        );
    }

    /// <summary>What a round of reminders would send today.</summary>
    private async Task<ChosenRound> RemindAsync(string unsettled, CancellationToken cancel) =>
        Choosing.Choose(
            await stores.Ledger.RowsAsync(Intake.Id, cancel),
            await stores.Ledger.SetAsideAsync(Intake.Id, null, cancel),
            new Choice { AsOf = AsOf }.OfReminders(stores.Book.Rules.Reminders),
            stores.Book.Rules.SettlementOf(Intake.HasOutstanding),
            stores.Book.Rules,
            (await Reach.OfLedgerAsync(stores, Intake.Id, RoundKind.Reminders, FrozenDictionary<string, DateOnly>.Empty, cancel)).Of,
            new ByHand
            {
                Holds = [.. (await stores.Holds.ListAsync(cancel)).Select(h => h.Hold)],
                Settlements = [.. (await stores.Settlements.ListAsync(null, cancel)).Select(s => s.Settlement)],
            },
            await RecentFigures.OfAsync(
                stores,
                OfReminded,
                unsettled,
                () => stores.Reminders.AllAsync(null, null, null, cancel),
                all => all.Count
            )
        );

    private sealed record Figures(int Customers, IReadOnlyList<Owed> Everybody);
}
