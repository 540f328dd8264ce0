using Rendal.Core.Dispatch;
using Rendal.Core.Rounds;
using Rendal.Store.Rounds;

namespace Rendal.Web.Rounds;

/// <summary>What is left out for one customer and reason.</summary>
internal sealed record LeftOutLine(string? Customer, string Name, string? Currency, string Reason, string Amount, int Items)
{
    /// <summary>A customer that is left out.</summary>
    public static LeftOutLine Of(LeftOutRecord l) =>
        new(
            l.Customer,
            l.Name,
            l.Currency,
            l.Reason,
            l.Currency is { } code ? Rendal.Core.Money.Currency.Of(code).Plain(l.Amount) : "",
            l.Items
        );
}

/// <summary>A part of the proof: the parcels of one status, or what is left out for one reason.</summary>
/// <param name="Kind">A status, or <c>left-out:</c> and the reason.</param>
/// <param name="Count">How many customers.</param>
/// <param name="Amount">Their sum.</param>
/// <param name="Share">The part of the whole bar, from 0 to 1, by absolute amounts.</param>
internal sealed record ProofPartView(string Kind, int Count, string Amount, double Share);

/// <summary>The proof in one currency.</summary>
internal sealed record ProofView(
    string Currency,
    string Sign,
    string Ledger,
    string Parcels,
    string LeftOut,
    string Difference,
    int LeftOutCount,
    IReadOnlyList<ProofPartView> Parts
)
{
    /// <summary>The proof, by currency.</summary>
    /// <param name="proof">Total, sent and left out.</param>
    /// <param name="parts">What is ready and what is not.</param>
    public static ProofView Of(Proof proof, IReadOnlyList<ProofPart> parts)
    {
        var currency = proof.Currency;
        var all = parts
            .Where(p => p.Currency == currency)
            .OrderBy(p => Place(p.Kind))
            .ThenBy(p => p.Kind, StringComparer.Ordinal)
            .ToList();
        var whole = all.Sum(p => p.Weight);
        return new(
            currency.Code,
            currency.Sign,
            currency.Plain(proof.Ledger),
            currency.Plain(proof.Statements),
            currency.Plain(proof.LeftOut),
            currency.Plain(proof.Difference),
            all.Where(p => p.Kind.StartsWith("left-out:", StringComparison.Ordinal)).Sum(p => p.Count),
            [.. all.Select(p => new ProofPartView(p.Kind, p.Count, currency.Plain(p.Amount), whole == 0 ? 0 : (double)(p.Weight / whole)))]
        );

        static int Place(string kind) => ParcelStatus.ListOrder.Index().FirstOrDefault(s => s.Item2 == kind, (int.MaxValue, "")).Item1;
    }
}
