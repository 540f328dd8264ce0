using System.Collections.Frozen;
using System.Diagnostics.CodeAnalysis;
using System.Globalization;

namespace Rendal.Core.Money;

/// <summary>
/// A currency of ISO 4217, with the number of decimals of its minor unit: 2 for GBP, 0 for JPY, 3 for KWD.
/// Amounts of different currencies are never added; whatever sums amounts does so per currency.
/// </summary>
public readonly record struct Currency : IComparable<Currency>
{
    private static readonly FrozenDictionary<string, int> DecimalsByCode = Table();

    private readonly string? code;
    private readonly int decimals;

    private Currency(string code, int decimals) => (this.code, this.decimals) = (code, decimals);

    /// <summary>The three capital letters, for example <c>GBP</c>.</summary>
    public string Code => code ?? throw new InvalidOperationException("A currency that was never set has no code.");

    /// <summary>Decimals of the minor unit: 0, 2, 3 or (for units of account such as UYW) 4.</summary>
    public int Decimals => code is null ? throw new InvalidOperationException("A currency that was never set has no decimals.") : decimals;

    /// <summary>The pound, euro, dollar or yen sign where the currency has one that cannot be misread, else the code.</summary>
    public string Sign =>
        Code switch
        {
            "GBP" => "£",
            "EUR" => "€",
            "USD" => "$",
            "JPY" => "¥",
            _ => Code,
        };

    /// <summary>All codes in use, in alphabetical order.</summary>
    public static IReadOnlyList<string> Codes { get; } = [.. DecimalsByCode.Keys.Order(StringComparer.Ordinal)];

    /// <summary>The currency of a code that is known to be right.</summary>
    /// <exception cref="ArgumentException">The code is not one of ISO 4217.</exception>
    public static Currency Of(string code) =>
        TryParse(code, out var currency)
            ? currency
            : throw new ArgumentException($"“{code}” is not a currency code of ISO 4217.", nameof(code));

    /// <summary>
    /// Reads a code in any case with white space around it, or one of the signs £ € ¥ (but not $, which many
    /// currencies share). <c>" gbp "</c> and <c>"£"</c> give GBP; <c>"XXZ"</c> and <c>"$"</c> give false.
    /// </summary>
    public static bool TryParse([NotNullWhen(true)] string? text, out Currency currency)
    {
        var trimmed = text?.Trim().ToUpperInvariant();
        trimmed = trimmed switch
        {
            "£" => "GBP",
            "€" => "EUR",
            "¥" => "JPY",
            _ => trimmed,
        };
        if (trimmed is not null && DecimalsByCode.TryGetValue(trimmed, out var decimals))
        {
            currency = new Currency(trimmed, decimals);
            return true;
        }

        currency = default;
        return false;
    }

    /// <summary>
    /// The amount to the minor unit, halves away from zero as is the custom in trade:
    /// 2.345 GBP gives 2.35, −2.345 gives −2.35, 10.5 JPY gives 11.
    /// </summary>
    public decimal Round(decimal amount) =>
        amount.Scale <= Decimals ? amount : Math.Round(amount, Decimals, MidpointRounding.AwayFromZero);

    /// <summary>
    /// The amount with a full stop and the currency's decimals, no thousands marks: <c>-1240.00</c>. For files, not for people.
    /// </summary>
    public string Plain(decimal amount) => Round(amount).ToString("F" + Decimals, CultureInfo.InvariantCulture);

    /// <inheritdoc/>
    public int CompareTo(Currency other) => string.CompareOrdinal(code, other.code);

    /// <summary>The code, as <see cref="Code"/> has it; empty for a currency that was never set, which throws nothing here.</summary>
    public override string ToString() => code ?? "";

    private static FrozenDictionary<string, int> Table()
    {
        const string two =
            "AED AFN ALL AMD AOA ARS AUD AWG AZN BAM BBD BDT BMD BND BOB BRL BSD BTN BWP BYN BZD CAD CDF CHF CNY COP CRC CUP "
            + "CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GTQ GYD HKD HNL HTG HUF IDR ILS INR IRR JMD "
            + "KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK MXN MYR MZN NAD NGN NIO NOK "
            + "NPR NZD PAB PEN PGK PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP SLE SOS SRD SSP STN SVC SYP SZL THB TJS "
            + "TMT TOP TRY TTD TWD TZS UAH USD UYU UZS VED VES WST XCD XCG YER ZAR ZMW ZWG";
        const string none = "BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX VND VUV XAF XOF XPF";
        const string three = "BHD IQD JOD KWD LYD OMR TND";
        const string four = "CLF UYW";
        return new[] { (two, 2), (none, 0), (three, 3), (four, 4) }
            .SelectMany(group => group.Item1.Split(' '), (group, code) => KeyValuePair.Create(code, group.Item2))
            .ToFrozenDictionary(StringComparer.Ordinal);
    }
}
