using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>What people have decided by hand, about single customers and items. It stands above what is chosen.</summary>
public sealed record ByHand
{
    /// <summary>Nothing decided.</summary>
    public static ByHand Nothing { get; } = new();

    /// <summary>Customers taken out of the round or put into it.</summary>
    public IReadOnlyList<CustomerByHand> Customers { get; init; } = [];

    /// <summary>Items taken out of the round or put into it.</summary>
    public IReadOnlyList<ItemByHand> Items { get; init; } = [];

    /// <summary>Items held back, in this round and every other.</summary>
    public IReadOnlyList<ItemHold> Holds { get; init; } = [];

    /// <summary>What payments and credits are set against, in the order in which it was said.</summary>
    public IReadOnlyList<CustomerSettlement> Settlements { get; init; } = [];
}

/// <summary>A customer taken out of a round, or put into it.</summary>
/// <param name="Customer">The customer's key.</param>
/// <param name="IsIn">
/// Whether the customer is put in: though not among the chosen, below the least balance, not overdue enough, overdue without a reminder
/// that is due (the next level goes then), or written to recently. Who is on hold, owes nothing, cannot be reached, has an error, or in a
/// round of reminders nothing past due, stays out.
/// </param>
/// <param name="Reason">What the person gave as the reason.</param>
public sealed record CustomerByHand(string Customer, bool IsIn, string Reason);

/// <summary>An item taken out of a round, or put into it.</summary>
/// <param name="Item">Its <see cref="Ledger.ItemKey"/> as text.</param>
/// <param name="IsIn">Whether it is put in, though in dispute, held back, outside the dates or of another unit.</param>
/// <param name="Reason">What the person gave as the reason.</param>
public sealed record ItemByHand(string Item, bool IsIn, string Reason);

/// <summary>An item that is held back.</summary>
/// <param name="Item">Its <see cref="Ledger.ItemKey"/> as text.</param>
/// <param name="Note">Why.</param>
/// <param name="Until">The day on which it comes up again; null while nobody says so.</param>
public sealed record ItemHold(string Item, string Note, DateOnly? Until)
{
    /// <summary>Whether it holds on a day: held until 1 December, the item is in on 1 December.</summary>
    public bool HoldsOn(DateOnly day) => Until is not { } until || day < until;
}

/// <summary>What a person has said about a payment or credit of one customer.</summary>
/// <param name="Customer">The customer's key.</param>
/// <param name="Said">What was said.</param>
public sealed record CustomerSettlement(string Customer, SettledByHand Said);
