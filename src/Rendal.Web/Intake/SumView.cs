using Rendal.Core.Money;

namespace Rendal.Web.Intake;

/// <summary>A sum in one currency, written for a file: full stop, the currency's decimals.</summary>
internal sealed record SumView(string Currency, string Amount)
{
    /// <summary>One amount in its currency, with as many decimals as that has.</summary>
    public static SumView Of(Currency currency, decimal amount) => new(currency.Code, currency.Plain(amount));

    /// <summary>Amounts by currency.</summary>
    public static IReadOnlyList<SumView> Of(IEnumerable<KeyValuePair<Currency, decimal>> sums) =>
        [.. sums.Select(s => Of(s.Key, s.Value))];
}
