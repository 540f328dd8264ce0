namespace Rendal.Core.Intake.Columns;

/// <summary>What a file is that was given as a ledger and seems to be none.</summary>
public enum OtherListKind
{
    /// <summary>Customers with addresses, contacts or terms, each once.</summary>
    CustomerList,

    /// <summary>Articles with prices.</summary>
    PriceList,

    /// <summary>The movements of one account of the firm’s own.</summary>
    BankStatement,
}

/// <summary>What a file seems to be instead of a ledger.</summary>
/// <param name="Kind">What.</param>
/// <param name="Reason">Why, in plain words.</param>
public sealed record OtherList(OtherListKind Kind, string Reason)
{
    /// <summary>One sentence for a person: <c>This looks like a price list, not like a ledger: …</c></summary>
    public string Says =>
        $"This looks like {Kind switch
        {
            OtherListKind.CustomerList => "a customer list",
            OtherListKind.PriceList => "a price list",
            _ => "a bank statement",
        }}, not like a ledger: {Reason}.";
}
