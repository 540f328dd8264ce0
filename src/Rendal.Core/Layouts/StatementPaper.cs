using System.Globalization;
using Rendal.Core.Customers;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>
/// What stands on one customer's statement, as text ready to be set: the document and the table in the message are
/// both made from it, so that they cannot differ.
/// </summary>
/// <param name="Language">Code of the language.</param>
/// <param name="Title">The heading.</param>
/// <param name="Firm">The letterhead and how to pay.</param>
/// <param name="AddressLines">The customer's name and address, one line each.</param>
/// <param name="References">Label and value of each reference line.</param>
/// <param name="Columns">The headings of the table.</param>
/// <param name="Sections">One per currency.</param>
/// <param name="HowToPay">The heading over the payment lines.</param>
/// <param name="Page">The line with the page number and the number of pages.</param>
public sealed record StatementPaper(
    string Language,
    string Title,
    Firm Firm,
    IReadOnlyList<string> AddressLines,
    IReadOnlyList<(string Label, string Value)> References,
    IReadOnlyList<PaperColumn> Columns,
    IReadOnlyList<PaperSection> Sections,
    string HowToPay,
    Func<int, int, string> Page)
{
    /// <summary>Sets a customer's statements, one section a currency, in the customer's language.</summary>
    /// <param name="customer">Whom it is for.</param>
    /// <param name="statements">One for each currency; at least one.</param>
    /// <param name="ageing">The bands.</param>
    /// <param name="firm">Who writes.</param>
    /// <param name="layout">How it is to look.</param>
    /// <param name="interestPercent">The rate of the interest that the statements bear; null for none.</param>
    /// <param name="nameOf">The name of an account on the statement of a head office, by key; null to call it by its key.</param>
    public static StatementPaper Of(Customer customer, IReadOnlyList<Statement> statements, AgeingRule ageing, Firm firm, StatementLayout layout, decimal? interestPercent = null, Func<string, string>? nameOf = null)
    {
        var language = Wordings.Language.TryParse(customer.Language, out var known) ? known : Wordings.Language.English;
        var words = PaperWords.In(language);
        var address = new List<string> { customer.Name };
        if (customer.Contact.Length > 0)
        {
            address.Add(customer.Title.Length > 0 ? $"{customer.Title} {customer.Contact}" : customer.Contact);
        }

        address.AddRange(customer.PostalLines);
        if (customer.Country.Length > 0)
        {
            address.Add(customer.Country);
        }

        var asOf = statements[0].AsOf;
        return new StatementPaper(
            language.Code,
            words.Title,
            firm,
            address,
            statements[0].Accounts[0].Forward is { } forward
                ? [(words.Period, $"{language.WriteShort(forward.Period.From)} – {language.WriteShort(forward.Period.To)}"), (words.Customer, customer.Key)]
                : [(words.Date, language.Write(asOf)), (words.Customer, customer.Key)],
            statements[0].Accounts[0].Forward is null ? ItemColumns(words, layout) : MovementColumns(words),
            [.. statements.Select(s => Section(s, ageing, language, words, layout, interestPercent, nameOf ?? (key => key)))],
            words.HowToPay,
            words.Page);
    }

    private static List<PaperColumn> ItemColumns(PaperWords words, StatementLayout layout)
    {
        var columns = new List<PaperColumn>
        {
            new(words.Number, false), new(words.Kind, false), new(words.Dated, false), new(words.Due, false), new(words.DaysOver, true),
        };
        if (layout.ShowOriginal)
        {
            columns.Add(new PaperColumn(words.Original, true));
        }

        columns.Add(new PaperColumn(words.Open, true));
        return columns;
    }

    private static List<PaperColumn> MovementColumns(PaperWords words) =>
        [new(words.Dated, false), new(words.Kind, false), new(words.Number, false), new(words.Debit, true), new(words.Credit, true), new(words.Balance, true)];

    private static IReadOnlyList<string> ItemRow(StatementItem item, Currency currency, Language language, PaperWords words, StatementLayout layout)
    {
        var cells = new List<string>
        {
            item.Row.Number,
            words.Of(item.Row.Kind),
            item.Row.Date is { } date ? language.WriteShort(date) : "",
            item.Open > 0 ? language.WriteShort(item.Row.Due) : "",
            item.Open > 0 && item.DaysPastDue > 0 ? item.DaysPastDue.ToString(CultureInfo.InvariantCulture) : "",
        };
        if (layout.ShowOriginal)
        {
            cells.Add(language.Write(item.Row.Original, currency));
        }

        cells.Add(language.Write(item.Open, currency));
        return cells;
    }

    private static IEnumerable<IReadOnlyList<string>> MovementRows(BroughtForward forward, Currency currency, Language language, PaperWords words) =>
        forward.Movements
            .Select(IReadOnlyList<string> (m) =>
            [
                language.WriteShort(m.Row.Date ?? m.Row.Due), words.Of(m.Row.Kind), m.Row.Number,
                m.Debit == 0 ? "" : language.Write(m.Debit, currency), m.Credit == 0 ? "" : language.Write(m.Credit, currency), language.Write(m.Balance, currency),
            ])
            .Prepend([language.WriteShort(forward.Period.From), words.BroughtForward, "", "", "", language.Write(forward.Opening, currency)]);

    /// <summary>A line for the interest on each item, and what is to be paid with it; nothing where there is no interest.</summary>
    private static IReadOnlyList<PaperLine> Interest(Statement statement, Language language, PaperWords words, decimal? percent) =>
        percent is not { } rate || statement.Interest.Count == 0 ? [] :
        [
            .. statement.Interest.Select(i => new PaperLine(words.Interest(language.WriteRate(rate), i.Item.Row.Number, i.Days), language.Write(i.Amount, statement.Currency))),
            new PaperLine(words.ToPay, language.WriteWithCurrency(statement.ToPay, statement.Currency)),
        ];

    /// <summary>One account: its rows, under its name and over its sum where it is one of several.</summary>
    private static PaperPart Part(Statement account, bool isOneOfSeveral, Language language, PaperWords words, StatementLayout layout, Func<string, string> nameOf)
    {
        IReadOnlyList<IReadOnlyList<string>> rows = account.Forward is { } forward
            ? [.. MovementRows(forward, account.Currency, language, words)]
            : [.. account.Items.Select(item => ItemRow(item, account.Currency, language, words, layout))];
        if (!isOneOfSeveral)
        {
            return new PaperPart("", rows, "", "");
        }

        var name = nameOf(account.Customer);
        return new PaperPart(name == account.Customer ? name : $"{name} ({account.Customer})", rows, account.Forward is null ? words.Subtotal : words.Balance, language.Write(account.Total, account.Currency));
    }

    private static PaperSection Section(Statement statement, AgeingRule ageing, Language language, PaperWords words, StatementLayout layout, decimal? interestPercent, Func<string, string> nameOf)
    {
        var currency = statement.Currency;
        var strip = new List<PaperAge>();
        if (layout.ShowAgeing)
        {
            for (var band = 0; band < ageing.BandCount; band++)
            {
                var label = band == 0 ? words.NotDue : $"{ageing.Span(band)} {words.Days}";
                strip.Add(new PaperAge(label, language.Write(statement.Ageing.Bands[band], currency), band, statement.Ageing.Bands[band]));
            }

            if (!ageing.CreditsByDate)
            {
                strip.Add(new PaperAge(words.Credits, language.Write(statement.Ageing.Credits, currency), null, statement.Ageing.Credits));
            }
        }

        var total = statement.Parts.Count > 0 ? words.GrandTotal : statement.Forward is null ? words.Total : words.Balance;
        return new PaperSection(currency.Code, [.. statement.Accounts.Select(a => Part(a, statement.Parts.Count > 0, language, words, layout, nameOf))], strip, total, language.WriteWithCurrency(statement.Total, currency), Interest(statement, language, words, interestPercent));
    }
}

/// <summary>A column of the table.</summary>
/// <param name="Heading">Its heading.</param>
/// <param name="IsFigure">Whether it is aligned to the right.</param>
public sealed record PaperColumn(string Heading, bool IsFigure);

/// <summary>The table of one currency.</summary>
/// <param name="Currency">The code.</param>
/// <param name="Parts">One for each account; more than one on the statement of a head office.</param>
/// <param name="Ages">The strip of ages; empty where the layout has none.</param>
/// <param name="TotalLabel">The words before the total.</param>
/// <param name="Total">The total with its currency.</param>
/// <param name="Interest">A line for the interest on each item, and last what is to be paid; empty where there is none.</param>
public sealed record PaperSection(
    string Currency,
    IReadOnlyList<PaperPart> Parts,
    IReadOnlyList<PaperAge> Ages,
    string TotalLabel,
    string Total,
    IReadOnlyList<PaperLine> Interest)
{
    /// <summary>The cells of each item of all parts, as many as there are columns.</summary>
    public IEnumerable<IReadOnlyList<string>> Rows => Parts.SelectMany(p => p.Rows);
}

/// <summary>The rows of one account.</summary>
/// <param name="Heading">Its name, where it is one of several; else empty.</param>
/// <param name="Rows">The cells of each item, as many as there are columns.</param>
/// <param name="TotalLabel">The words before its sum; empty where it is the only one.</param>
/// <param name="Total">Its sum; empty where it is the only one.</param>
public sealed record PaperPart(string Heading, IReadOnlyList<IReadOnlyList<string>> Rows, string TotalLabel, string Total);

/// <summary>A line under the total.</summary>
/// <param name="Label">What it is.</param>
/// <param name="Figure">How much, as text.</param>
public sealed record PaperLine(string Label, string Figure);

/// <summary>One field of the strip of ages.</summary>
/// <param name="Label">The days that it spans.</param>
/// <param name="Figure">Its sum as text.</param>
/// <param name="Band">The band, 0 for not due; null for credits.</param>
/// <param name="Amount">Its sum.</param>
public sealed record PaperAge(string Label, string Figure, int? Band, decimal Amount);
