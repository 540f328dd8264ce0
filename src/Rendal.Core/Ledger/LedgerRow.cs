using Rendal.Core.Money;

namespace Rendal.Core.Ledger;

/// <summary>A row of the customer ledger as it was read, with the signs settled: positive is owed by the customer.</summary>
public sealed record LedgerRow
{
    /// <summary>Who the row belongs to: the customer's code, or the name where the file has no codes.</summary>
    public required string Customer { get; init; }

    /// <summary>The customer's name as written on this row; empty when the file has none.</summary>
    public required string CustomerName { get; init; }

    /// <summary>Invoice, credit note, payment and so on.</summary>
    public required ItemKind Kind { get; init; }

    /// <summary>The document's number as written; empty when it has none.</summary>
    public required string Number { get; init; }

    /// <summary>The document date; null only where the due date alone was written.</summary>
    public required DateOnly? Date { get; init; }

    /// <summary>When it is to be paid, as written or derived from the terms.</summary>
    public required DateOnly Due { get; init; }

    /// <summary>The currency of both amounts.</summary>
    public required Currency Currency { get; init; }

    /// <summary>The document's full amount. Where the file has outstanding amounts alone, the same as <see cref="Open"/>.</summary>
    public required decimal Original { get; init; }

    /// <summary>
    /// What is still outstanding of it. Where the file has full amounts alone, the same as <see cref="Original"/> until settlement.
    /// </summary>
    public required decimal Open { get; init; }

    /// <summary>The number of the document that a payment or credit names; empty when it names none.</summary>
    public string Reference { get; init; } = "";

    /// <summary>Why the item is in dispute or held back, as the file says; empty when it is not.</summary>
    public string Held { get; init; } = "";

    /// <summary>The business unit that the row belongs to; empty when the file has none.</summary>
    public string Unit { get; init; } = "";

    /// <summary>Addresses written on the row, as they stand.</summary>
    public string Email { get; init; } = "";

    /// <summary>Columns without a meaning for the rules, by heading as it stands.</summary>
    public ExtraColumns Extra { get; init; } = ExtraColumns.None;

    /// <summary>File, sheet and row.</summary>
    public required SourceRef Source { get; init; }
}
