namespace Rendal.Core.Intake;

/// <summary>What a column of a ledger file is to the rules.</summary>
public enum ColumnMeaning
{
    /// <summary>Nothing to the rules; kept, and to be used as a slot under its heading.</summary>
    Extra,

    /// <summary>The customer's code or account number.</summary>
    CustomerCode,

    /// <summary>The customer's name.</summary>
    CustomerName,

    /// <summary>Invoice, credit note, payment.</summary>
    Kind,

    /// <summary>The document's number.</summary>
    Number,

    /// <summary>The document date.</summary>
    Date,

    /// <summary>The due date.</summary>
    DueDate,

    /// <summary>The currency code.</summary>
    Currency,

    /// <summary>The document's full amount.</summary>
    Amount,

    /// <summary>What is still outstanding.</summary>
    Outstanding,

    /// <summary>Amounts charged, in a file that has debit and credit apart.</summary>
    Debit,

    /// <summary>Amounts credited, in a file that has debit and credit apart.</summary>
    Credit,

    /// <summary>Addresses for e-mail.</summary>
    Email,

    /// <summary>The number of the document that a payment or credit settles.</summary>
    Reference,

    /// <summary>The business unit.</summary>
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
