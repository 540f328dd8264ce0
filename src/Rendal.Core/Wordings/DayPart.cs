namespace Rendal.Core.Wordings;

/// <summary>A part of the day, by which one greets.</summary>
public enum DayPart
{
    /// <summary>Before noon.</summary>
    Morning,

    /// <summary>From noon until six in the evening.</summary>
    Afternoon,

    /// <summary>From six in the evening.</summary>
    Evening,
}
