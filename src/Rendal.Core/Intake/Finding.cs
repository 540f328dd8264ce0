using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>How bad a finding is.</summary>
public enum Severity
{
    /// <summary>Something was worked out or assumed; nothing has to be done.</summary>
    Note,

    /// <summary>Probably wrong; the figures stand, a person should look.</summary>
    Warning,

    /// <summary>The row is not used, or the customer cannot be written to, until it is put right.</summary>
    Error,
}

/// <summary>Something the program noticed: what, where, how bad, and how to put it right.</summary>
/// <param name="Code">One of <see cref="FindingCodes"/>, kebab-case.</param>
/// <param name="Severity">How bad it is.</param>
/// <param name="Source">File, sheet and row; row 0 where it concerns the whole file.</param>
/// <param name="Column">The heading of the column as it stands; null where it concerns the whole row.</param>
/// <param name="Customer">The customer concerned, where known.</param>
/// <param name="Message">One sentence for a person, with the value as written.</param>
/// <param name="Remedy">What to do about it, one sentence; empty for notes that need nothing.</param>
public sealed record Finding(
    string Code,
    Severity Severity,
    SourceRef Source,
    string? Column,
    string? Customer,
    string Message,
    string Remedy
)
{
    /// <summary>The other customer, where it is about two.</summary>
    public string? Other { get; init; }
}

/// <summary>The codes of findings. Each is listed with meaning and remedy in <c>docs/findings.md</c>.</summary>
public static class FindingCodes
{
    /// <summary>A row has neither a customer code nor a name.</summary>
    public const string NoCustomer = "no-customer";

    /// <summary>A row has no amount.</summary>
    public const string AmountMissing = "amount-missing";

    /// <summary>A cell is no amount, or contradicts the decimal mark of its column.</summary>
    public const string AmountUnreadable = "amount-unreadable";

    /// <summary>An amount has more decimals than its currency; the rounded one counts.</summary>
    public const string AmountFinerThanUnit = "amount-finer-than-unit";

    /// <summary>A credit has its sign the other way than most of the file.</summary>
    public const string SignUnclear = "sign-unclear";

    /// <summary>Debit and credit of a row are both filled; the difference counts.</summary>
    public const string DebitAndCredit = "debit-and-credit";

    /// <summary>All amounts of a column are like 1,234, so that the setting decided.</summary>
    public const string DecimalMarkAssumed = "decimal-mark-assumed";

    /// <summary>A cell is no date, or none in the order of its column.</summary>
    public const string DateUnreadable = "date-unreadable";

    /// <summary>A row has neither a document date nor a due date.</summary>
    public const string DateMissing = "date-missing";

    /// <summary>No date of a column shows whether day or month comes first.</summary>
    public const string DateOrderAssumed = "date-order-assumed";

    /// <summary>Due dates were worked out from document dates and terms.</summary>
    public const string DueDateDerived = "due-date-derived";

    /// <summary>A currency is none of ISO 4217, or contradicts the sign in the amount.</summary>
    public const string CurrencyUnknown = "currency-unknown";

    /// <summary>A kind is no known word; the sign of the amount decided.</summary>
    public const string KindUnknown = "kind-unknown";

    /// <summary>Two rows say the same; both count.</summary>
    public const string SameRowTwice = "same-row-twice";

    /// <summary>A customer code stands beside two names.</summary>
    public const string CodeWithTwoNames = "code-with-two-names";

    /// <summary>An address stands with two customers.</summary>
    public const string AddressOfTwoCustomers = "address-of-two-customers";

    /// <summary>A customer has no address.</summary>
    public const string MissingAddress = "missing-address";

    /// <summary>A part of an address field is no e-mail address.</summary>
    public const string BadAddress = "bad-address";

    /// <summary>A total disagrees with the rows that it is over.</summary>
    public const string ControlTotalDiffers = "control-total-differs";

    /// <summary>Rows without a customer were taken to belong to the one above.</summary>
    public const string CustomerCarriedDown = "customer-carried-down";

    /// <summary>A value that was put right stands otherwise in the source now.</summary>
    public const string CorrectionSuperseded = "correction-superseded";

    /// <summary>Customers are each other’s head office in a circle.</summary>
    public const string HeadOfficeLoop = "head-office-loop";

    /// <summary>Movements come to another sum than the open items.</summary>
    public const string BroughtForwardDiffers = "brought-forward-differs";

    /// <summary>A code, name or number is longer than any is.</summary>
    public const string ValueTooLong = "value-too-long";

    /// <summary>A cell holds the error of a formula.</summary>
    public const string CellError = "cell-error";

    /// <summary>An amount stands in a cell that spans rows.</summary>
    public const string AmountMerged = "amount-merged";

    /// <summary>The workbook hides rows.</summary>
    public const string RowsHidden = "rows-hidden";

    /// <summary>The workbook hides columns.</summary>
    public const string ColumnsHidden = "columns-hidden";

    /// <summary>A column is something else further down than in its first rows.</summary>
    public const string ColumnDiffers = "column-differs";

    /// <summary>A second table has the same headings in another order.</summary>
    public const string ColumnsMoved = "columns-moved";

    /// <summary>The file looks like something else than a ledger.</summary>
    public const string SeemsNoLedger = "seems-no-ledger";

    /// <summary>A due date lies two years and more from all others.</summary>
    public const string DueDateFar = "due-date-far";

    /// <summary>In a customer list a value is not understood; the card stays as it was.</summary>
    public const string ValueUnknown = "value-unknown";

    /// <summary>A list of extra columns names a code that no customer has.</summary>
    public const string CustomerUnknown = "customer-unknown";
}
