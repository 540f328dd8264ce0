using System.Globalization;
using Rendal.Core.Money;

namespace Rendal.Core.Ledger;

/// <summary>
/// By what an item is known again in a later intake: customer, currency, kind and number; without a number, by its date and amount. Two
/// rows that are alike in that are the same item.
/// </summary>
public readonly record struct ItemKey
{
    private const char Parting = '\u001F';

    private ItemKey(string customer, Currency currency, ItemKind kind, string number, DateOnly? date, decimal amount) =>
        (Customer, Currency, Kind, Number, Date, Amount) = (customer, currency, kind, number, date, amount);

    /// <summary>The key of the customer whose account it is on.</summary>
    public string Customer { get; }

    /// <summary>The currency of its amounts: the same number in two currencies is two items.</summary>
    public Currency Currency { get; }

    /// <summary>The kind: an invoice and a credit note of one number are two items.</summary>
    public ItemKind Kind { get; }

    /// <summary>The number; empty where it has none, and its date and amount tell it from others.</summary>
    public string Number { get; }

    private DateOnly? Date { get; }

    private decimal Amount { get; }

    /// <summary>The key of a row. Two rows without a number, of one day and one original amount, have the same.</summary>
    public static ItemKey Of(LedgerRow row) =>
        row.Number.Length > 0
            ? new ItemKey(row.Customer, row.Currency, row.Kind, row.Number, null, 0)
            : new ItemKey(row.Customer, row.Currency, row.Kind, "", row.Date, row.Original);

    /// <summary>
    /// The key as text, to be kept and compared: <c>AB01␟GBP␟invoice␟T-1</c>. It is the same for the same item at any time.
    /// </summary>
    public string Text =>
        Number.Length > 0
            ? string.Join(Parting, Customer, Currency.Code, Kind.Code(), Number)
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{Customer}{Parting}{Currency.Code}{Parting}{Kind.Code()}{Parting}{Parting}{Date:yyyy-MM-dd}{Parting}"
                    + $"{Currency.Plain(Amount)}"
            );

    /// <summary>What the keys of all items of a customer begin with, as text: <c>AB01␟</c>. No other customer's key begins so.</summary>
    public static string BeginningOf(string customer) => customer + Parting;

    /// <summary>What people call the item of a key that was kept as text: its number, or its kind where it has none.</summary>
    public static string NumberIn(string text) =>
        text.Split(Parting) is [_, _, var kind, var number, ..]
            ? number.Length > 0
                ? number
                : kind
            : text;

    /// <summary>The same as <see cref="Text"/>.</summary>
    public override string ToString() => Text;
}
