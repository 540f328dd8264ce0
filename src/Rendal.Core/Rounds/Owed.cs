using Rendal.Core.Money;
using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>What a customer owes in one currency on one day, without the items.</summary>
/// <param name="Customer">The customer's key.</param>
/// <param name="Currency">The currency of all amounts.</param>
/// <param name="Total">What is owed in all.</param>
/// <param name="OldestDaysPastDue">The most days that a charge is past due; 0 where none is.</param>
/// <param name="Ageing">The same by age.</param>
public sealed record Owed(string Customer, Currency Currency, decimal Total, int OldestDaysPastDue, Ageing Ageing)
{
    /// <summary>What is past due.</summary>
    public decimal Overdue => Ageing.Overdue;

    /// <summary>What a statement comes to.</summary>
    public static Owed Of(Statement statement) =>
        new(statement.Customer, statement.Currency, statement.Total, statement.OldestDaysPastDue, statement.Ageing);
}
