using Rendal.Core.Wordings;

namespace Rendal.Web.Wordings;

/// <summary>The wording that a new book begins with.</summary>
internal static class FirstWording
{
    public static Wording Make() => new(
        "Month end, friendly",
        "en",
        $"{Slot("firm.name")}: statement at {Slot("statement.date")}, {Slot("statement.total")}",
        $"<p>{Slot("customer.salutation")},</p>"
        + $"<p>on {Slot("statement.date")} your account {Slot("customer.code")} shows {Slot("statement.total")} open, of which {Slot("statement.overdue")} is past its date. The statement is enclosed; the items are these:</p>"
        + $"<p>{Slot("statement.table")}</p>"
        + "<p>If something is not right, please answer this message; if you have paid in the last days, please take this as our thanks.</p>"
        + $"<p>With kind regards<br>{Slot("sender.name")}</p>");

    private static string Slot(string name) => $"<span data-slot=\"{name}\"></span>";
}
