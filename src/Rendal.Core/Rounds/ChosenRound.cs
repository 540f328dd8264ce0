using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>What choosing comes to.</summary>
/// <param name="Statements">The statements to be sent, in order of customer (ordinal), then currency.</param>
/// <param name="LeftOut">What is not sent, in order of customer, currency and reason.</param>
/// <param name="Proof">One line per currency, in order of the currency's code.</param>
public sealed record ChosenRound(IReadOnlyList<Statement> Statements, IReadOnlyList<LeftOut> LeftOut, IReadOnlyList<Proof> Proof)
{
    /// <summary>
    /// What the wanted items of each account come to, in order of customer (ordinal), then currency; from them
    /// <see cref="Choosing.Count"/> counts.
    /// </summary>
    public IReadOnlyList<AccountSum> Accounts { get; init; } = [];

    /// <summary>What of the items is not wanted.</summary>
    public IReadOnlyList<LeftOutShare> ItemsLeftOut { get; init; } = [];

    /// <summary>The statements of each customer who gets any.</summary>
    public IReadOnlyDictionary<string, IReadOnlyList<Statement>> ByCustomer() =>
        Statements.GroupBy(s => s.Customer).ToDictionary(of => of.Key, of => (IReadOnlyList<Statement>)[.. of], StringComparer.Ordinal);
}
