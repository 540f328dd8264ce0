namespace Rendal.Core.Wordings;

/// <summary>Under which heading a slot is offered.</summary>
public enum SlotGroup
{
    /// <summary>Who is written to.</summary>
    Customer,

    /// <summary>What is owed.</summary>
    Statement,

    /// <summary>How it can be paid.</summary>
    Payment,

    /// <summary>Who writes, and in which round.</summary>
    Ours,

    /// <summary>Columns of the files without a meaning for the rules.</summary>
    Columns,
}
