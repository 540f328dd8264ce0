using Rendal.Core.Ledger;

namespace Rendal.Web.Intake;

/// <summary>An item that changed.</summary>
internal sealed record ChangedItemView(
    ItemChange Change,
    string Customer,
    string Name,
    ItemKind Kind,
    string Number,
    string Currency,
    ItemSideView? Before,
    ItemSideView? After
)
{
    /// <summary>An item of which something changed between two ledgers.</summary>
    public static ChangedItemView Of(ChangedItem i) =>
        new(i.Change, i.Row.Customer, i.Row.CustomerName, i.Row.Kind, i.Row.Number, i.Row.Currency.Code, Side(i.Before), Side(i.After));

    private static ItemSideView? Side(LedgerRow? row) =>
        row is null ? null : new(row.Currency.Plain(row.Open), row.Date, row.Due, row.Held, row.Source.Row);
}

/// <summary>One side of an item that changed.</summary>
internal sealed record ItemSideView(string Open, DateOnly? Date, DateOnly Due, string Held, int Row);
