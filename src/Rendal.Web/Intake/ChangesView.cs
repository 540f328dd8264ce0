using Rendal.Core.Ledger;
using Rendal.Store.Intake;

namespace Rendal.Web.Intake;

/// <summary>What a newer file changes.</summary>
internal sealed record ChangesView(
    string Before,
    DateTimeOffset BeforeKeptAt,
    int Count,
    int Unchanged,
    IReadOnlyList<ChangeSumView> Sums,
    IReadOnlyList<CustomerChangeView> Customers,
    int CustomerCount,
    IReadOnlyList<ChangedItemView> Items
)
{
    private const int CustomersShown = 500;

    /// <summary>What changed since the ledger before.</summary>
    public static ChangesView Of(LedgerComparison c, IntakeRecord before)
    {
        var customers = c.Customers;
        return new ChangesView(
            before.FileName,
            before.KeptAt!.Value,
            c.Count,
            c.Unchanged,
            [
                .. c.Sums.Select(s => new ChangeSumView(
                    s.Currency.Code,
                    s.Change,
                    s.Items,
                    s.Currency.Plain(s.Before),
                    s.Currency.Plain(s.After)
                )),
            ],
            [
                .. customers
                    .Take(CustomersShown)
                    .Select(x => new CustomerChangeView(
                        x.Customer,
                        x.Currency.Code,
                        x.Items[ItemChange.New],
                        x.Items[ItemChange.Altered],
                        x.Items[ItemChange.Settled],
                        x.Items[ItemChange.Gone],
                        x.Currency.Plain(x.Before),
                        x.Currency.Plain(x.After)
                    )),
            ],
            customers.Count,
            [.. c.Items.Select(ChangedItemView.Of)]
        );
    }
}

/// <summary>The changes of one kind in one currency.</summary>
internal sealed record ChangeSumView(string Currency, ItemChange Change, int Items, string Before, string After);

/// <summary>The changes of one customer in one currency.</summary>
internal sealed record CustomerChangeView(
    string Customer,
    string Currency,
    int New,
    int Altered,
    int Settled,
    int Gone,
    string Before,
    string After
);
