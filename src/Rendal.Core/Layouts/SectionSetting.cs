using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>Sets what stands on a document about one currency as text.</summary>
internal sealed class SectionSetting(
    string customer,
    Firm firm,
    Layout layout,
    ItemsPart items,
    AgeingRule ageing,
    Language language,
    DocumentWords words,
    decimal? interestPercent,
    Func<string, string> nameOf
)
{
    /// <summary>
    /// The columns of a table of open items, each with the heading that its layout gives it, else the one of the language.
    /// </summary>
    public static List<TableColumn> ItemColumns(DocumentWords words, ItemsPart items) =>
        [
            .. items.Columns.Select(c => new TableColumn(
                c.Heading.Length > 0 ? c.Heading : ItemFields.Heading(c.Field, words),
                ItemFields.IsFigure(c.Field),
                c.Width,
                c.Field
            )),
        ];

    /// <summary>The columns of the movements of a period, the same in every layout: date, kind, number, debit, credit, balance.</summary>
    public static List<TableColumn> MovementColumns(DocumentWords words) =>
        [
            new(words.Dated, false, null, "dated"),
            new(words.Kind, false, null, "kind"),
            new(words.Number, false, null, "number"),
            new(words.Debit, true, null, "original"),
            new(words.Credit, true, null, "original"),
            new(words.Balance, true, null, ""),
        ];

    /// <summary>
    /// What a document shows of the statement in one currency: its table or movements, sums, ages, interest, and the parts of a head
    /// office’s.
    /// </summary>
    public DocumentSection Section(Statement statement)
    {
        var currency = statement.Currency;
        var ages = Ages(statement);
        var total =
            statement.Parts.Count > 0 ? words.GrandTotal
            : statement.Forward is null ? words.Total
            : words.Balance;
        IReadOnlyList<DocumentPart> parts = [.. statement.Accounts.SelectMany(a => Parts(a, statement.Parts.Count > 0))];
        return new DocumentSection(
            currency.Code,
            parts,
            layout.First<AgesPart>() is not null || layout.First<ItemsPart>() is null ? ages : [],
            total,
            language.WriteWithCurrency(statement.Total, currency),
            Interest(statement),
            Carried(statement, parts),
            Transfer(statement)
        )
        {
            AllAges = ages,
            Sheet = layout.Forms.Any(f => f != DocumentForm.Pdf) ? Sheet(statement, total) : null,
        };
    }

    private List<AgeBand> Ages(Statement statement)
    {
        var strip = new List<AgeBand>();
        for (var band = 0; band < ageing.BandCount; band++)
        {
            Put(band == 0 ? words.NotDue : $"{ageing.Span(band)} {words.Days}", band, statement.Ageing.Bands[band]);
        }

        if (!ageing.CreditsByDate)
        {
            Put(words.Credits, null, statement.Ageing.Credits);
        }

        return strip;

        void Put(string label, int? band, decimal amount) =>
            strip.Add(new AgeBand(label, language.Write(amount, statement.Currency), band, amount));
    }

    /// <summary>The values behind the table. Of a head office, each row says first whose it is.</summary>
    private StatementSheet Sheet(Statement statement, string totalLabel)
    {
        var ofSeveral = statement.Parts.Count > 0;
        var isForward = statement.Forward is not null || statement.Accounts[0].Forward is not null;
        var own = isForward ? MovementColumns(words).ConvertAll(c => c.Heading) : ItemColumns(words, items).ConvertAll(c => c.Heading);
        var rows = statement
            .Accounts.SelectMany(a =>
                (a.Forward is { } forward ? MovementCells(forward) : ItemCells(a)).Select(
                    IReadOnlyList<SheetCell> (row) =>
                        ofSeveral ? [SheetCell.Of(a.Customer), SheetCell.Of(nameOf(a.Customer)), .. row] : row
                )
            )
            .ToList();
        var open = isForward ? -1 : items.Columns.Select(c => c.Field).ToList().IndexOf("open");
        return new StatementSheet(
            statement.Currency,
            ofSeveral ? [words.Customer, words.AccountName, .. own] : own,
            rows,
            open < 0 ? null : open + (ofSeveral ? 2 : 0),
            totalLabel,
            statement.Total,
            interestPercent is { } rate && statement.Interest.Count > 0
                ?
                [
                    .. statement.Interest.Select(i => (words.Interest(language.WriteRate(rate), i.Item.Row.Number, i.Days), i.Amount)),
                    (words.ToPay, statement.ToPay),
                ]
                : []
        );
    }

    private IEnumerable<IReadOnlyList<SheetCell>> ItemCells(Statement account) =>
        (items.GroupBy.Length == 0 ? account.Items : Grouped(account).SelectMany(g => g)).Select(
            IReadOnlyList<SheetCell> (item) => [.. items.Columns.Select(c => ItemFields.Cell(c.Field, item, words))]
        );

    private IEnumerable<IReadOnlyList<SheetCell>> MovementCells(BroughtForward forward) =>
        forward
            .Movements.Select(
                IReadOnlyList<SheetCell> (m) =>
                    [
                        SheetCell.Of(m.Row.Date ?? m.Row.Due),
                        SheetCell.Of(words.Of(m.Row.Kind)),
                        SheetCell.Of(m.Row.Number),
                        SheetCell.Of(m.Debit == 0 ? null : m.Debit),
                        SheetCell.Of(m.Credit == 0 ? null : m.Credit),
                        SheetCell.Of(m.Balance),
                    ]
            )
            .Prepend([
                SheetCell.Of(forward.Period.From),
                SheetCell.Of(words.BroughtForward),
                SheetCell.Of(""),
                default,
                default,
                SheetCell.Of(forward.Opening),
            ]);

    private IEnumerable<IReadOnlyList<string>> MovementRows(BroughtForward forward, Currency currency) =>
        MovementCells(forward).Select(IReadOnlyList<string> (row) => [.. row.Select(cell => cell.Written(language, currency))]);

    /// <summary>A line for the interest on each item, and what is to be paid with it; nothing where there is no interest.</summary>
    private IReadOnlyList<TotalLine> Interest(Statement statement) =>
        interestPercent is not { } rate || statement.Interest.Count == 0
            ? []
            :
            [
                .. statement.Interest.Select(i => new TotalLine(
                    words.Interest(language.WriteRate(rate), i.Item.Row.Number, i.Days),
                    language.Write(i.Amount, statement.Currency)
                )),
                new TotalLine(words.ToPay, language.WriteWithCurrency(statement.ToPay, statement.Currency)),
            ];

    /// <summary>
    /// One account: its rows, under its name and over its sum where it is one of several. Where items are put together by a field, one
    /// part for each of its values.
    /// </summary>
    private IEnumerable<DocumentPart> Parts(Statement account, bool isOneOfSeveral)
    {
        var name = isOneOfSeveral
            ? nameOf(account.Customer) is var called && called != account.Customer
                ? $"{called} ({account.Customer})"
                : account.Customer
            : "";
        if (account.Forward is { } forward)
        {
            var rows = MovementRows(forward, account.Currency).ToList();
            return
            [
                new DocumentPart(
                    name,
                    rows,
                    isOneOfSeveral ? words.Balance : "",
                    isOneOfSeveral ? language.Write(account.Total, account.Currency) : ""
                )
                {
                    ReadFrom = [.. forward.Movements.Select(m => m.Row.Source.Row).Prepend(0)],
                },
            ];
        }

        if (items.GroupBy.Length == 0)
        {
            return [Part(name, account.Items, isOneOfSeveral)];
        }

        var heading = ItemFields.Heading(items.GroupBy, words);
        return Grouped(account)
            .Select(g =>
                Part(string.Join(" · ", new[] { name, g.Key.Length > 0 ? $"{heading} {g.Key}" : "–" }.Where(t => t.Length > 0)), g, true)
            );

        DocumentPart Part(string title, IEnumerable<StatementItem> of, bool withSum) =>
            new(
                title,
                [
                    .. of.Select(
                        IReadOnlyList<string> (item) => [.. items.Columns.Select(c => ItemFields.Value(c.Field, item, language, words))]
                    ),
                ],
                withSum ? words.Subtotal : "",
                withSum ? language.Write(of.Sum(i => i.Open), account.Currency) : ""
            )
            {
                ReadFrom = [.. of.Select(i => i.Row.Source.Row)],
            };
    }

    /// <summary>The items of an account put together by a field, in order of its values (ordinal), those without one last.</summary>
    private IEnumerable<IGrouping<string, StatementItem>> Grouped(Statement account) =>
        account
            .Items.GroupBy(i => ItemFields.Value(items.GroupBy, i, language, words), StringComparer.Ordinal)
            .OrderBy(g => g.Key.Length == 0)
            .ThenBy(g => g.Key, StringComparer.Ordinal);

    /// <summary>The sum so far after each row, in the order in which the rows stand.</summary>
    private IReadOnlyList<string> Carried(Statement statement, IReadOnlyList<DocumentPart> parts)
    {
        if (!items.CarryForward)
        {
            return [];
        }

        if (statement.Accounts[0].Forward is not null)
        {
            return [.. parts.SelectMany(p => p.Rows).Select(r => r[^1])];
        }

        var sum = 0m;
        var inOrder = statement.Accounts.SelectMany(a => items.GroupBy.Length == 0 ? a.Items : Grouped(a).SelectMany(g => g));
        return [.. inOrder.Select(i => language.Write(sum += i.Open, statement.Currency))];
    }

    /// <summary>The transfer that a code on the paper asks for; null where there is none, or it could not be one.</summary>
    private SepaTransfer? Transfer(Statement statement) =>
        layout.First<PaymentPart>() is { Iban.Length: > 0 } payment
        && statement.Currency.Code == "EUR"
        && statement.AlsoOn is null
        && statement.ToPay >= SepaTransfer.Amounts.Least
        && statement.ToPay <= SepaTransfer.Amounts.Most
            ? new SepaTransfer(firm.Name, payment.Iban, payment.Bic, statement.ToPay, $"{customer} {language.WriteShort(statement.AsOf)}")
            : null;
}
