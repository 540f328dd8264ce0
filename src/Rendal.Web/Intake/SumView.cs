using Rendal.Core.Money;

namespace Rendal.Web.Intake;

/// <summary>A sum in one currency, written for a file: full stop, the currency's decimals.</summary>
internal sealed record SumView(string Currency, string Amount)
{
    public static SumView Of(Currency currency, decimal amount) => new(currency.Code, currency.Plain(amount));

    public static IReadOnlyList<SumView> Of(IEnumerable<KeyValuePair<Currency, decimal>> sums) =>
        [.. sums.Select(s => Of(s.Key, s.Value))];
}
