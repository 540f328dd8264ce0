using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>What the rows of a customer come to in one currency.</summary>
/// <param name="Currency">The currency.</param>
/// <param name="Balance">Their signed sum.</param>
/// <param name="Items">How many rows that are.</param>
public readonly record struct CustomerBalance(Currency Currency, decimal Balance, int Items);
