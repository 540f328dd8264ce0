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
    public static StatementPaper Of(Customer customer, IReadOnlyList<Statement> statements, AgeingRule ageing, Firm firm, StatementLayout layout, decimal? interestPercent = null)
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
            statements[0].Forward is { } forward
                ? [(words.Period, $"{language.WriteShort(forward.Period.From)} – {language.WriteShort(forward.Period.To)}"), (words.Customer, customer.Key)]
                : [(words.Date, language.Write(asOf)), (words.Customer, customer.Key)],
            statements[0].Forward is null ? ItemColumns(words, layout) : MovementColumns(words),
            [.. statements.Select(s => Section(s, ageing, language, words, layout, interestPercent))],
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

    private static PaperSection Section(Statement statement, AgeingRule ageing, Language language, PaperWords words, StatementLayout layout, decimal? interestPercent)
    {
        var currency = statement.Currency;
        IReadOnlyList<IReadOnlyList<string>> rows = statement.Forward is { } forward
            ? [.. MovementRows(forward, currency, language, words)]
            : [.. statement.Items.Select(item => ItemRow(item, currency, language, words, layout))];
        var strip = new List<PaperAge>();
        if (layout.ShowAgeing)
        {
            for (var band = 0; band < ageing.BandCount; band++)
            {
                var label = band == 0 ? words.NotDue : $"{ageing.Span(band)} {words.Days}";
                strip.Add(new PaperAge(label, language.Write(statement.Ageing.Bands[band], currency), band, statement.Ageing.Bands[band]));
            }

            strip.Add(new PaperAge(words.Credits, language.Write(statement.Ageing.Credits, currency), null, statement.Ageing.Credits));
        }

        return new PaperSection(currency.Code, rows, strip, statement.Forward is null ? words.Total : words.Balance, language.WriteWithCurrency(statement.Total, currency), Interest(statement, language, words, interestPercent));
    }
}

/// <summary>A column of the table.</summary>
/// <param name="Heading">Its heading.</param>
/// <param name="IsFigure">Whether it is aligned to the right.</param>
public sealed record PaperColumn(string Heading, bool IsFigure);

/// <summary>The table of one currency.</summary>
/// <param name="Currency">The code.</param>
/// <param name="Rows">The cells of each item, as many as there are columns.</param>
/// <param name="Ages">The strip of ages; empty where the layout has none.</param>
/// <param name="TotalLabel">The words before the total.</param>
/// <param name="Total">The total with its currency.</param>
/// <param name="Interest">A line for the interest on each item, and last what is to be paid; empty where there is none.</param>
public sealed record PaperSection(
    string Currency,
    IReadOnlyList<IReadOnlyList<string>> Rows,
    IReadOnlyList<PaperAge> Ages,
    string TotalLabel,
    string Total,
    IReadOnlyList<PaperLine> Interest);

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
