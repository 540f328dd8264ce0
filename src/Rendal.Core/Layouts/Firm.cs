using Rendal.Core.Customers;

namespace Rendal.Core.Layouts;

/// <summary>The firm as it stands on its letters.</summary>
/// <param name="Name">The name in the letterhead.</param>
/// <param name="AddressLines">Street, town and so on, one line each.</param>
/// <param name="ContactLines">Telephone, mail, VAT number: whatever else stands in the letterhead, one line each.</param>
/// <param name="PaymentLines">How to pay: bank, account, what to quote, one line each.</param>
public sealed record Firm(
    string Name,
    IReadOnlyList<string> AddressLines,
    IReadOnlyList<string> ContactLines,
    IReadOnlyList<string> PaymentLines
)
{
    /// <summary>What stands under every message: register, address, why one gets it and whom to ask, one line each.</summary>
    public IReadOnlyList<string> FootLines { get; init; } = [];

    /// <summary>The country that the last line of its address names; empty where it names none.</summary>
    public string OwnCountry() =>
        AddressLines.LastOrDefault(l => l.Trim().Length > 0) is { } last && Country.Code(last) is { } code ? code : "";
}
