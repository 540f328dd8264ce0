using Rendal.Core.Ledger;
using Rendal.Core.Texts;
using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>The fixed words of documents in one language, from its file <c>document.txt</c>.</summary>
public sealed class DocumentWords
{
    private const string File = "document.txt";

    private static readonly Dictionary<string, DocumentWords> All = Language.All.ToDictionary(
        l => l.Code,
        l => new DocumentWords(TextFile.Read(l.Code, File)),
        StringComparer.Ordinal
    );

    private readonly string interest;
    private readonly string firstReminder;
    private readonly string furtherReminder;
    private readonly string page;
    private readonly string[] kinds;

    private DocumentWords(TextFile text)
    {
        Title = text["Title"];
        Date = text["Date"];
        Customer = text["Customer"];
        AccountName = text["Account name"];
        Currency = text["Currency"];
        Number = text["Number"];
        Kind = text["Kind"];
        Dated = text["Dated"];
        Due = text["Due"];
        DaysOver = text["Days over"];
        Original = text["Original"];
        Open = text["Open"];
        Total = text["Total"];
        Subtotal = text["Subtotal"];
        GrandTotal = text["Grand total"];
        ToPay = text["To pay"];
        Debit = text["Debit"];
        Credit = text["Credit"];
        Balance = text["Balance"];
        BroughtForward = text["Brought forward"];
        Period = text["Period"];
        NotDue = text["Not due"];
        Days = text["Days"];
        Credits = text["Credits"];
        HowToPay = text["How to pay"];
        Reference = text["Reference"];
        Unit = text["Unit"];
        CarriedForward = text["Carried forward"];
        Pay = new PayWords(text["Pay online"], text["Code for transfer"], text["Code for link"], text["Button to pay"]);
        interest = text["Interest", "rate", "number", "days"];
        firstReminder = text["First reminder"];
        furtherReminder = text["Further reminder", "level"];
        page = text["Page", "page", "pages"];
        kinds = [text["Invoice"], text["Credit note"], text["Payment"], text["Adjustment"], text["Opening balance"]];
        text.End();
    }

    /// <summary>The title of the document.</summary>
    public string Title { get; }

    /// <summary>Before its date.</summary>
    public string Date { get; }

    /// <summary>Before the customer’s code.</summary>
    public string Customer { get; }

    /// <summary>Before the customer’s name.</summary>
    public string AccountName { get; }

    /// <summary>Before the currency.</summary>
    public string Currency { get; }

    /// <summary>Over the numbers of documents.</summary>
    public string Number { get; }

    /// <summary>Over their kinds.</summary>
    public string Kind { get; }

    /// <summary>Over their dates.</summary>
    public string Dated { get; }

    /// <summary>Over their due dates.</summary>
    public string Due { get; }

    /// <summary>Over the days that they are overdue.</summary>
    public string DaysOver { get; }

    /// <summary>Over what they were for.</summary>
    public string Original { get; }

    /// <summary>Over what is outstanding of them.</summary>
    public string Open { get; }

    /// <summary>Before the total of a currency.</summary>
    public string Total { get; }

    /// <summary>Before the total of one account of a group.</summary>
    public string Subtotal { get; }

    /// <summary>Before the total of all accounts of a group.</summary>
    public string GrandTotal { get; }

    /// <summary>Before the total with interest.</summary>
    public string ToPay { get; }

    /// <summary>Over what is owed, in a statement brought forward.</summary>
    public string Debit { get; }

    /// <summary>Over what is credited.</summary>
    public string Credit { get; }

    /// <summary>Over the running balance.</summary>
    public string Balance { get; }

    /// <summary>The line that a statement brought forward begins with.</summary>
    public string BroughtForward { get; }

    /// <summary>Before the days that it covers.</summary>
    public string Period { get; }

    /// <summary>The band of what is not due.</summary>
    public string NotDue { get; }

    /// <summary>The unit of a band: “1–30 days”.</summary>
    public string Days { get; }

    /// <summary>The band of credits, where they are kept apart.</summary>
    public string Credits { get; }

    /// <summary>The heading of the ways to pay.</summary>
    public string HowToPay { get; }

    /// <summary>Over the customer’s own references.</summary>
    public string Reference { get; }

    /// <summary>Over business units.</summary>
    public string Unit { get; }

    /// <summary>The line that ends a page where the table goes on.</summary>
    public string CarriedForward { get; }

    /// <summary>The words about links and codes for paying.</summary>
    public PayWords Pay { get; }

    /// <summary>The words of a language.</summary>
    public static DocumentWords In(Language language) => All[language.Code];

    /// <summary>The interest on an item.</summary>
    /// <param name="rate">The rate in per cent a year, as written in the language: <c>8,25</c>.</param>
    /// <param name="number">The item's number.</param>
    /// <param name="days">The days past due.</param>
    public string Interest(string rate, string number, int days) =>
        TextFile.Fill(interest, ("rate", rate), ("number", number), ("days", days));

    /// <summary>The title of a reminder.</summary>
    /// <param name="level">Its level, from 1.</param>
    public string Reminder(int level) => level == 1 ? firstReminder : TextFile.Fill(furtherReminder, ("level", level));

    /// <summary>The line with the page number.</summary>
    /// <param name="number">The number, from 1.</param>
    /// <param name="count">How many pages there are.</param>
    public string Page(int number, int count) => TextFile.Fill(page, ("page", number), ("pages", count));

    /// <summary>The kind of an item.</summary>
    public string Of(ItemKind kind) => kinds[(int)kind];
}
