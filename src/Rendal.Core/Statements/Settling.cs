using Rendal.Core.Ledger;

namespace Rendal.Core.Statements;

/// <summary>Why a credit was set against an item.</summary>
public enum SettledBy
{
    /// <summary>A person said so.</summary>
    Hand,

    /// <summary>The payment names the document.</summary>
    Reference,

    /// <summary>The item was the oldest that was open.</summary>
    Age,
}

/// <summary>An amount of a payment or credit that was set against an item.</summary>
/// <param name="Credit">The payment or credit.</param>
/// <param name="Charge">The item.</param>
/// <param name="Amount">How much, above 0.</param>
/// <param name="By">Why.</param>
public sealed record Settling(LedgerRow Credit, LedgerRow Charge, decimal Amount, SettledBy By);
