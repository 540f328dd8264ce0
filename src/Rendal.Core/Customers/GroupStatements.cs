namespace Rendal.Core.Customers;

/// <summary>Who of a head office and its branches gets the statements.</summary>
public enum GroupStatements
{
    /// <summary>Each branch gets its own, and the head office one of its own account.</summary>
    Branches,

    /// <summary>The head office gets one with a part for each branch; the branches get none.</summary>
    HeadOffice,

    /// <summary>The head office gets one with a part for each branch, and each branch its own as well.</summary>
    Both,
}
