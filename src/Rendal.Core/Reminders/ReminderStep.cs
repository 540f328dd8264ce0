namespace Rendal.Core.Reminders;

/// <summary>The reminder that is next.</summary>
/// <param name="Level">Its level, from 1.</param>
/// <param name="IsDue">Whether it is to be sent now.</param>
public readonly record struct ReminderStep(int Level, bool IsDue)
{
    /// <summary>Of two steps the one that is less far: of items equally old, and of branches, the gentler reminder goes.</summary>
    public static ReminderStep Gentler(ReminderStep a, ReminderStep b) =>
        a.Level != b.Level ? (a.Level < b.Level ? a : b) : a with { IsDue = a.IsDue && b.IsDue };
}
