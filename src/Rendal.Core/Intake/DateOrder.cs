namespace Rendal.Core.Intake;

/// <summary>The order in which dates written in figures name day, month and year.</summary>
public enum DateOrder
{
    /// <summary>31/10/2026</summary>
    DayFirst,

    /// <summary>10/31/2026</summary>
    MonthFirst,

    /// <summary>2026/10/31</summary>
    YearFirst,
}
