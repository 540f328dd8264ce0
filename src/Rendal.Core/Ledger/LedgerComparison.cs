using Rendal.Core.Money;

namespace Rendal.Core.Ledger;

/// <summary>What became of an item from one ledger to the next.</summary>
public enum ItemChange
{
    /// <summary>It was not there before.</summary>
    New,

    /// <summary>It is there in both and something about it is different.</summary>
    Altered,

    /// <summary>Nothing is open of it any more: it stands at zero, or is missing from a file of open items.</summary>
    Settled,

    /// <summary>It is missing from a file of movements, which ought to have it.</summary>
    Gone,
}

/// <summary>An item that is not the same in two ledgers.</summary>
/// <param name="Change">What became of it.</param>
/// <param name="Before">The row before; null for a new one.</param>
/// <param name="After">The row after; null where there is none.</param>
public sealed record ChangedItem(ItemChange Change, LedgerRow? Before, LedgerRow? After)
{
    /// <summary>The row after, or the one before where there is none after.</summary>
    public LedgerRow Row => After ?? Before!;
}

/// <summary>The items of one customer and currency that changed, in numbers and sums.</summary>
/// <param name="Customer">The customer.</param>
/// <param name="Currency">The currency.</param>
/// <param name="Items">How many there are of each change.</param>
/// <param name="Before">What was open before, unchanged items included.</param>
/// <param name="After">What is open after.</param>
public sealed record CustomerChange(
    string Customer,
    Currency Currency,
    IReadOnlyDictionary<ItemChange, int> Items,
    decimal Before,
    decimal After
);

/// <summary>The changes of one kind in one currency.</summary>
/// <param name="Currency">The currency.</param>
/// <param name="Change">What became of the items.</param>
/// <param name="Items">How many there are.</param>
/// <param name="Before">What was open of them before.</param>
/// <param name="After">What is open of them after.</param>
public sealed record ChangeSum(Currency Currency, ItemChange Change, int Items, decimal Before, decimal After);

/// <summary>
/// Compares a ledger with the one before it. An item is known by customer, kind and number, and by its currency; one without a number by
/// its date and amount as well. Of several with the same key the first is compared with the first.
/// </summary>
public sealed class LedgerComparison
{
    /// <summary>How many changed items are kept with their rows; the rest are counted.</summary>
    public const int ItemsKept = 2_000;

    private readonly List<ChangedItem> items = [];
    private readonly Dictionary<(string Customer, Currency Currency), (int[] Items, decimal Before, decimal After)> customers = [];
    private readonly SortedDictionary<(Currency Currency, ItemChange Change), (int Items, decimal Before, decimal After)> sums = [];

    private LedgerComparison() { }

    /// <summary>
    /// The changed items, the first <see cref="ItemsKept"/>: those of the newer file in its order, then what is not in it any more.
    /// </summary>
    public IReadOnlyList<ChangedItem> Items => items;

    /// <summary>How many items changed, those beyond the kept ones included.</summary>
    public int Count { get; private set; }

    /// <summary>How many items are the same in both.</summary>
    public int Unchanged { get; private set; }

    /// <summary>The sums by currency and change.</summary>
    public IReadOnlyList<ChangeSum> Sums =>
        [.. sums.Select(s => new ChangeSum(s.Key.Currency, s.Key.Change, s.Value.Items, s.Value.Before, s.Value.After))];

    /// <summary>The customers of whom something changed, the largest difference first.</summary>
    public IReadOnlyList<CustomerChange> Customers =>
        [
            .. customers
                .Where(c => c.Value.Items.Any(n => n > 0))
                .Select(c => new CustomerChange(
                    c.Key.Customer,
                    c.Key.Currency,
                    Enum.GetValues<ItemChange>().ToDictionary(k => k, k => c.Value.Items[(int)k]),
                    c.Value.Before,
                    c.Value.After
                ))
                .OrderByDescending(c => Math.Abs(c.After - c.Before))
                .ThenBy(c => c.Customer, StringComparer.Ordinal)
                .ThenBy(c => c.Currency),
        ];

    /// <summary>Compares two ledgers. The one before is held in memory, the one after is gone through once.</summary>
    /// <param name="before">The rows of the ledger before.</param>
    /// <param name="after">The rows of the ledger after.</param>
    /// <param name="afterHasOpenItems">Whether the newer file has open items alone, so that what is missing from it is settled.</param>
    public static LedgerComparison Of(IEnumerable<LedgerRow> before, IEnumerable<LedgerRow> after, bool afterHasOpenItems)
    {
        var comparison = new LedgerComparison();
        var known = new Dictionary<ItemKey, Queue<LedgerRow>>();
        foreach (var row in before)
        {
            (known.TryGetValue(ItemKey.Of(row), out var same) ? same : known[ItemKey.Of(row)] = new Queue<LedgerRow>(1)).Enqueue(row);
        }

        foreach (var row in after)
        {
            var was = known.TryGetValue(ItemKey.Of(row), out var same) && same.TryDequeue(out var first) ? first : null;
            comparison.Note(
                was,
                row,
                was is null ? ItemChange.New
                    : row.Open == 0 && was.Open != 0 ? ItemChange.Settled
                    : IsAltered(was, row) ? ItemChange.Altered
                    : null
            );
        }

        foreach (var row in known.Values.SelectMany(same => same))
        {
            comparison.Note(row, null, afterHasOpenItems ? ItemChange.Settled : ItemChange.Gone);
        }

        return comparison;
    }

    private static bool IsAltered(LedgerRow a, LedgerRow b) =>
        a.Open != b.Open
        || a.Original != b.Original
        || a.Date != b.Date
        || a.Due != b.Due
        || a.Held != b.Held
        || a.Reference != b.Reference
        || a.Unit != b.Unit;

    private void Note(LedgerRow? before, LedgerRow? after, ItemChange? change)
    {
        var row = after ?? before!;
        var (was, now) = (before?.Open ?? 0, after?.Open ?? 0);
        var of = customers.TryGetValue((row.Customer, row.Currency), out var known) ? known : (Items: new int[4], Before: 0m, After: 0m);
        if (change is { } kind)
        {
            Count++;
            of.Items[(int)kind]++;
            var sum = sums.GetValueOrDefault((row.Currency, kind));
            sums[(row.Currency, kind)] = (sum.Items + 1, sum.Before + was, sum.After + now);
            if (items.Count < ItemsKept)
            {
                items.Add(new ChangedItem(kind, before, after));
            }
        }
        else
        {
            Unchanged++;
        }

        customers[(row.Customer, row.Currency)] = (of.Items, of.Before + was, of.After + now);
    }
}
