namespace Rendal.Core.Rounds;

/// <summary>
/// Why something is not in a round. The first group concerns single items, the second a customer's whole account in one currency; within
/// each group the first that applies is the reason.
/// </summary>
public enum LeftOutReason
{
    /// <summary>The item is dated after the as-of date.</summary>
    AfterTheDate,

    /// <summary>The item is dated outside the chosen dates.</summary>
    OutsideTheDates,

    /// <summary>The item is in dispute or held back.</summary>
    HeldBack,

    /// <summary>The item belongs to a business unit, or has a value in another column, that was not chosen.</summary>
    OtherUnit,

    /// <summary>The item is a credit, and credits were not wanted.</summary>
    CreditsNotWanted,

    /// <summary>A person took the item out.</summary>
    TakenOut,

    /// <summary>A row of the customer could not be read, so that the statement would be wrong.</summary>
    Error,

    /// <summary>A person took the customer out.</summary>
    RemovedByHand,

    /// <summary>Only some customers were chosen, and this is not one.</summary>
    NotChosen,

    /// <summary>Nothing is to be sent to the customer.</summary>
    OnHold,

    /// <summary>Nothing is open.</summary>
    NothingOpen,

    /// <summary>
    /// The firm owes the customer. A balance is to be confirmed whoever owes it, so that this leaves nobody out of a round of
    /// confirmations.
    /// </summary>
    CreditBalance,

    /// <summary>Less is owed than the least balance.</summary>
    BelowTheMinimum,

    /// <summary>Nothing is overdue by as many days as wanted.</summary>
    NotOverdueEnough,

    /// <summary>No reminder is due, or none of a level that was wanted.</summary>
    NoReminderDue,

    /// <summary>The customer was written to within the days given.</summary>
    WrittenToRecently,

    /// <summary>There is no address that could be written to.</summary>
    NoWayToReach,
}

/// <summary>The names of the reasons in files and between programs.</summary>
public static class LeftOutReasons
{
    /// <summary>Whether it concerns a single item; else the whole account of a customer.</summary>
    public static bool IsOfItem(this LeftOutReason reason) => reason < LeftOutReason.Error;

    /// <summary>The reason in kebab-case: <c>credit-balance</c>.</summary>
    public static string Code(this LeftOutReason reason) =>
        string.Concat(
            reason
                .ToString()
                .Select((c, i) => char.IsUpper(c) && i > 0 ? "-" + char.ToLowerInvariant(c) : char.ToLowerInvariant(c).ToString())
        );
}
