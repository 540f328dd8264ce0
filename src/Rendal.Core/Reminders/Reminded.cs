namespace Rendal.Core.Reminders;

/// <summary>How far the reminders about one item have come.</summary>
/// <param name="Level">The level that was sent for it last, from 1.</param>
/// <param name="On">The day on which it was.</param>
public readonly record struct Reminded(int Level, DateOnly On);

/// <summary>That a level is sent for an item.</summary>
/// <param name="Item">Its <see cref="Ledger.ItemKey"/> as text.</param>
/// <param name="Level">The level, from 1.</param>
public readonly record struct ItemReminded(string Item, int Level);
