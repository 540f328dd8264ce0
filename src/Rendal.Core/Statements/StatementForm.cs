namespace Rendal.Core.Statements;

/// <summary>What a statement lists.</summary>
public enum StatementForm
{
    /// <summary>What is open, item by item.</summary>
    OpenItems,

    /// <summary>The balance brought forward, then each movement of a period with the balance after it.</summary>
    BroughtForward,
}
