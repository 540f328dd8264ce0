namespace Rendal.Core.Wordings;

/// <summary>When words stand in a message or on a document.</summary>
public enum TextWhen
{
    /// <summary>Always.</summary>
    Always,

    /// <summary>Where something is past due.</summary>
    Overdue,

    /// <summary>Where nothing is past due.</summary>
    NotOverdue,

    /// <summary>On reminders.</summary>
    Reminder,

    /// <summary>On statements that are no reminder.</summary>
    NoReminder,

    /// <summary>Where one item stands on it.</summary>
    OneItem,

    /// <summary>Where several items stand on it.</summary>
    SeveralItems,

    /// <summary>Where the customer owes something.</summary>
    TheyOwe,

    /// <summary>Where the firm owes the customer something. With two currencies, both can hold.</summary>
    WeOwe,

    /// <summary>Where nobody owes anything: what is open comes to 0 in each currency.</summary>
    Balanced,

    /// <summary>Where credits stand on it that are not set against invoices: credit notes, payments on account.</summary>
    Credits,

    /// <summary>Where it shows interest.</summary>
    Interest,

    /// <summary>Where it has the items of several accounts: a head office and its branches.</summary>
    Group,

    /// <summary>Where copies of invoices or credit notes are enclosed.</summary>
    Copies,

    /// <summary>Where none are.</summary>
    NoCopies,
}
