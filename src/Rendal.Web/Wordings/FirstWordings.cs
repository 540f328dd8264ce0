using Rendal.Core.Wordings;

namespace Rendal.Web.Wordings;

/// <summary>The wordings that a new book begins with.</summary>
internal static class FirstWordings
{
    /// <summary>That of statements.</summary>
    public static Wording Statement() => new(
        "Month end, friendly",
        "en",
        $"{Slot("firm.name")}: statement at {Slot("statement.date")}, {Slot("statement.total")}",
        $"<p>{Slot("customer.salutation")},</p>"
        + $"<p>on {Slot("statement.date")} your account {Slot("customer.code")} shows {Slot("statement.total")} open, of which {Slot("statement.overdue")} is past its date. The statement is enclosed; the items are these:</p>"
        + $"<p>{Slot("statement.table")}</p>"
        + "<p>If something is not right, please answer this message; if you have paid in the last days, please take this as our thanks.</p>"
        + Closing);

    /// <summary>Those of the reminders, each firmer than the one before.</summary>
    public static IReadOnlyList<Wording> Reminders() =>
    [
        new(
            "Reminder 1, friendly",
            "en",
            $"{Slot("firm.name")}: a reminder of {Slot("statement.overdue")}",
            $"<p>{Slot("customer.salutation")},</p>"
            + $"<p>it may have slipped your notice: on {Slot("statement.date")} {Slot("statement.overdue")} of your account {Slot("customer.code")} is past its date. The statement is enclosed; the items are these:</p>"
            + $"<p>{Slot("statement.table")}</p>"
            + "<p>Please let us have what is due within seven days.</p>"
            + "<p>If something is not right, please answer this message; if you have paid in the last days, please take this as our thanks.</p>"
            + Closing),
        new(
            "Reminder 2, firm",
            "en",
            $"{Slot("firm.name")}: second reminder, {Slot("statement.overdue")} past due",
            $"<p>{Slot("customer.salutation")},</p>"
            + $"<p>we have written to you about your account {Slot("customer.code")} before and have had neither payment nor answer. On {Slot("statement.date")} {Slot("statement.overdue")} is past its date:</p>"
            + $"<p>{Slot("statement.table")}</p>"
            + "<p>Please pay within seven days, or tell us what stands in the way.</p>"
            + Closing),
        new(
            "Reminder 3, last",
            "en",
            $"{Slot("firm.name")}: last reminder, {Slot("statement.overdue")} past due",
            $"<p>{Slot("customer.salutation")},</p>"
            + $"<p>in spite of our reminders {Slot("statement.overdue")} of your account {Slot("customer.code")} is still unpaid on {Slot("statement.date")}:</p>"
            + $"<p>{Slot("statement.table")}</p>"
            + "<p>This is our last reminder. If the amount is not with us within seven days, we shall have to stop deliveries on account and take further steps, the cost of which would be yours.</p>"
            + Closing),
    ];

    private static readonly string Closing = $"<p>With kind regards<br>{Slot("sender.name")}</p>";

    private static string Slot(string name) => $"<span data-slot=\"{name}\"></span>";
}
