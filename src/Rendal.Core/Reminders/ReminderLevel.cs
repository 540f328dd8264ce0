namespace Rendal.Core.Reminders;

/// <summary>One of the reminders that follow each other, each firmer than the one before.</summary>
/// <param name="Days">The days that the oldest open item has to be past due; at least 1.</param>
/// <param name="Gap">The days that have to lie between the level before and this one; between two of the last, where that is repeated. Of
/// no meaning for the first of several.</param>
/// <param name="Wording">The wording of its messages; null for the round's.</param>
public sealed record ReminderLevel(int Days, int Gap, long? Wording = null);
