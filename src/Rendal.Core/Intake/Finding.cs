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
#pragma warning disable CS1591 // The meaning of each code stands in docs/findings.md; a test compares the two lists.
    public const string NoCustomer = "no-customer";
    public const string AmountMissing = "amount-missing";
    public const string AmountUnreadable = "amount-unreadable";
    public const string AmountFinerThanUnit = "amount-finer-than-unit";
    public const string SignUnclear = "sign-unclear";
    public const string DebitAndCredit = "debit-and-credit";
    public const string DecimalMarkAssumed = "decimal-mark-assumed";
    public const string DateUnreadable = "date-unreadable";
    public const string DateMissing = "date-missing";
    public const string DateOrderAssumed = "date-order-assumed";
    public const string DueDateDerived = "due-date-derived";
    public const string CurrencyUnknown = "currency-unknown";
    public const string KindUnknown = "kind-unknown";
    public const string SameRowTwice = "same-row-twice";
    public const string CodeWithTwoNames = "code-with-two-names";
    public const string AddressOfTwoCustomers = "address-of-two-customers";
    public const string MissingAddress = "missing-address";
    public const string BadAddress = "bad-address";
    public const string ControlTotalDiffers = "control-total-differs";
    public const string CustomerCarriedDown = "customer-carried-down";
    public const string CorrectionSuperseded = "correction-superseded";
    public const string HeadOfficeLoop = "head-office-loop";
    public const string BroughtForwardDiffers = "brought-forward-differs";
    public const string ValueTooLong = "value-too-long";
    public const string CellError = "cell-error";
    public const string AmountMerged = "amount-merged";
    public const string RowsHidden = "rows-hidden";
    public const string ColumnsHidden = "columns-hidden";
    public const string ColumnDiffers = "column-differs";
    public const string ColumnsMoved = "columns-moved";
    public const string SeemsNoLedger = "seems-no-ledger";
    public const string DueDateFar = "due-date-far";
    public const string ValueUnknown = "value-unknown";
    public const string CustomerUnknown = "customer-unknown";
#pragma warning restore CS1591
}
