using Rendal.Core.Ledger;
using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>What was decided by hand, found by customer and item.</summary>
internal sealed class HandIndex
{
    private readonly Dictionary<string, bool> customers;
    private readonly Dictionary<string, bool> items;
    private readonly HashSet<string> held;
    private readonly Dictionary<string, List<SettledByHand>> settlements;

    /// <summary>Indexes what was decided.</summary>
    /// <param name="hand">The decisions.</param>
    /// <param name="asOf">The day on which items are held back or not any more.</param>
    public HandIndex(ByHand hand, DateOnly asOf)
    {
        customers = hand.Customers.ToDictionary(c => c.Customer, c => c.IsIn, StringComparer.Ordinal);
        items = hand.Items.ToDictionary(i => i.Item, i => i.IsIn, StringComparer.Ordinal);
        held = hand.Holds.Where(h => h.HoldsOn(asOf)).Select(h => h.Item).ToHashSet(StringComparer.Ordinal);
        settlements = hand
            .Settlements.GroupBy(s => s.Customer, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.Select(s => s.Said).ToList(), StringComparer.Ordinal);
    }

    /// <summary>Whether something is said about single items, so that their keys are wanted.</summary>
    public bool IsAboutItems => items.Count > 0 || held.Count > 0;

    /// <summary>Whether a person took the customer out.</summary>
    public bool IsOut(string customer) => customers.TryGetValue(customer, out var isIn) && !isIn;

    /// <summary>Whether a person put the customer in.</summary>
    public bool IsIn(string customer) => customers.TryGetValue(customer, out var isIn) && isIn;

    /// <summary>Whether a person took the item out.</summary>
    public bool IsItemOut(string item) => items.TryGetValue(item, out var isIn) && !isIn;

    /// <summary>Whether a person put the item in.</summary>
    public bool IsItemIn(string item) => items.TryGetValue(item, out var isIn) && isIn;

    /// <summary>Whether the item is held back on that day.</summary>
    public bool IsHeld(string item) => held.Contains(item);

    /// <summary>What was said about what its payments are for; empty where nothing was.</summary>
    public IReadOnlyList<SettledByHand> Settlements(string customer) => settlements.TryGetValue(customer, out var said) ? said : [];

    /// <summary>The key of an item where one is wanted.</summary>
    public string KeyOf(LedgerRow row) => IsAboutItems ? ItemKey.Of(row).Text : "";
}
