namespace Rendal.Core.Intake.Columns;

/// <summary>What a word in a heading speaks of. A column's meaning follows from several: a document and a date, say.</summary>
internal enum HeadingConcept
{
    // What meanings are made of.
    Party,
    Account,
    Code,
    Name,
    Document,
    Date,
    Due,
    Amount,
    Open,
    Debit,
    Credit,
    Currency,
    Kind,
    Email,
    Reference,
    Unit,
    Held,

    // What says that a column is something else.
    Tax,
    Discount,
    Net,
    Paid,
    Limit,
    Quantity,
    Price,
    Phone,
    Place,
    Order,
    Time,
    User,
    Days,
    Rate,
    Terms,
    Text,
    Local,
    Level,
}
