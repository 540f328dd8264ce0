namespace Rendal.Core.Intake;

/// <summary>What a column of a ledger file is to the rules.</summary>
public enum ColumnMeaning
{
    /// <summary>Nothing to the rules; kept, and to be used as a slot under its heading.</summary>
    Extra,

    /// <summary>
    /// The customer's code or account number, by which its rows belong together: <c>H014</c>. It goes before the name where a file has
    /// both.
    /// </summary>
    CustomerCode,

    /// <summary>The customer's name, which stands for the code in a file that has none: <c>Inn at Kell</c>.</summary>
    CustomerName,

    /// <summary>
    /// Whether a row is an invoice, a credit note, a payment, an adjustment or an opening balance, in the words of
    /// <see cref="KindWords"/>: <c>Invoice</c>, <c>RE</c>, <c>AVO</c>. Without it the sign of the amount decides between invoice and
    /// credit note.
    /// </summary>
    Kind,

    /// <summary>The document's number: <c>T-20811</c>. It may be empty, and need not be a number.</summary>
    Number,

    /// <summary>The document date. With the terms it gives the due date where a row has none.</summary>
    Date,

    /// <summary>The due date, from which days overdue are counted.</summary>
    DueDate,

    /// <summary>
    /// The currency by its ISO 4217 code or its sign: <c>GBP</c>, <c>£</c>. Where a file has none, the book's counts.
    /// </summary>
    Currency,

    /// <summary>
    /// The document's full amount, tax included, positive where the customer owes it. Where a file has no outstanding amount it counts,
    /// and the rows are settled against each other.
    /// </summary>
    Amount,

    /// <summary>What of the document is still outstanding: between zero and the full amount, with its sign.</summary>
    Outstanding,

    /// <summary>Amounts charged, in a file that has debit and credit apart.</summary>
    Debit,

    /// <summary>Amounts credited, in a file that has debit and credit apart.</summary>
    Credit,

    /// <summary>Addresses for e-mail, several parted by comma, semicolon or white space.</summary>
    Email,

    /// <summary>The number of the document that a payment or credit settles.</summary>
    Reference,

    /// <summary>The business unit that the item is of, as the firm calls its own: <c>Northgate laundry</c>.</summary>
    Unit,

    /// <summary>A word or note that marks the item as in dispute or held back; empty where it is not.</summary>
    Held,
}

/// <summary>What sort of values a meaning calls for.</summary>
public static class ColumnMeanings
{
    /// <summary>Whether the column holds amounts.</summary>
    public static bool IsAmount(this ColumnMeaning meaning) =>
        meaning is ColumnMeaning.Amount or ColumnMeaning.Outstanding or ColumnMeaning.Debit or ColumnMeaning.Credit;

    /// <summary>Whether the column holds dates.</summary>
    public static bool IsDate(this ColumnMeaning meaning) => meaning is ColumnMeaning.Date or ColumnMeaning.DueDate;
}
