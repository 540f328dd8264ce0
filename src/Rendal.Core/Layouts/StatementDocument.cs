using System.Collections.Frozen;
using System.Globalization;
using Rendal.Core.Customers;
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
/// <param name="Texts">The words of each part of the layout, in their order; null for a part that is no text, and for a text that does not
/// stand on this document.</param>
/// <param name="EmptySlots">Slots of its texts that have no value and no fallback. While there are any, the document must not
/// leave.</param>
/// <param name="FileName">The name of the file without its ending, from customers' data and not yet safe for a file system.</param>
/// <param name="CarriedWords">What stands before the sum at the foot of a page that the table goes over, and before the same at the head
/// of the next.</param>
public sealed record StatementDocument(
    string Language,
    string Title,
    Firm Firm,
    IReadOnlyList<string> AddressLines,
    IReadOnlyList<(string Label, string Value)> References,
    IReadOnlyList<TableColumn> Columns,
    IReadOnlyList<DocumentSection> Sections,
    string HowToPay,
    Func<int, int, string> Page,
    IReadOnlyList<IReadOnlyList<TextParagraph>?> Texts,
    IReadOnlyList<Slot> EmptySlots,
    string FileName,
    (string Foot, string Head) CarriedWords
)
{
    // More would not be read off a QR code of 28 mm.
    private const int LongestLink = 500;

    // A value of this length in a narrow column takes some pages; in an address it would push everything else off the page.
    private const int LongestValue = 2_000;
    private const int LongestAddressLine = 200;
    private const int MostAddressLines = 12;

    /// <summary>The address of a page to pay on; null for none.</summary>
    public string? PayLink { get; init; }

    /// <summary>The colour of its layout, as <c>#5b2a55</c>.</summary>
    public required string Accent { get; init; }

    /// <summary>What is to be quoted as a bar code; null for none.</summary>
    public BarCode? BarCode { get; init; }

    /// <summary>What keeps the document from leaving beside empty slots, as a sentence; empty for nothing.</summary>
    public string Problem { get; init; } = "";

    /// <summary>
    /// What a person wrote for this document alone, a line each; it stands above the first table, or at the end where there is none. Empty
    /// for nothing.
    /// </summary>
    public IReadOnlyList<TextParagraph> Note { get; init; } = [];

    /// <summary>What the letter of its layout is filled with; null where the layout has parts.</summary>
    public DocxContent? Letter { get; init; }

    /// <summary>The heading of a column that says the currency.</summary>
    public required string CurrencyWord { get; init; }

    /// <summary>The words beside a link to pay, and under the codes.</summary>
    public required PayWords PayWords { get; init; }

    /// <summary>What of the card stands in each of <see cref="AddressLines"/>.</summary>
    public required IReadOnlyList<Origin> AddressFrom { get; init; }

    /// <summary>Where a cell of a table was taken from; null for what was reckoned, such as a balance.</summary>
    /// <param name="part">The part of the table.</param>
    /// <param name="row">The row of the part, from 0.</param>
    /// <param name="column">The column, from 0.</param>
    public Origin? OriginOf(DocumentPart part, int row, int column) =>
        part.ReadFrom[row] is > 0 and var source && Columns[column].Field is { Length: > 0 } field ? Origin.OfRow(source, field) : null;

    /// <summary>All words on it that come from the firm, its customers, its files and its layouts.</summary>
    public IEnumerable<string> Words =>
        [
            .. AddressLines,
            Title,
            Firm.Name,
            .. Firm.AddressLines,
            .. Firm.ContactLines,
            .. Firm.PaymentLines,
            .. References.Select(r => r.Value),
            .. Columns.Select(c => c.Heading),
            .. Sections.SelectMany(s => s.Parts).SelectMany(p => p.Rows.SelectMany(row => row).Prepend(p.Heading)),
            .. Texts.SelectMany(t => t ?? []).Concat(Note).SelectMany(p => p.Runs).Select(r => r.Text),
        ];

    /// <summary>Sets a customer's statements, one section a currency, in the customer's language.</summary>
    /// <param name="customer">Whom it is for.</param>
    /// <param name="statements">One for each currency; at least one.</param>
    /// <param name="ageing">The bands.</param>
    /// <param name="firm">Who writes.</param>
    /// <param name="template">How it is to look. It must have no errors.</param>
    /// <param name="slots">The values of the slots in its texts, from <see cref="ParcelSlots"/>; null where they have none.</param>
    /// <param name="reminderLevel">The level of the reminder that it goes with; null for none.</param>
    /// <param name="interestPercent">The rate of the interest that the statements bear; null for none.</param>
    /// <param name="nameOf">The name of an account on the statement of a head office, by key; null to call it by its key.</param>
    /// <param name="note">What a person wrote for this document alone; empty for nothing.</param>
    /// <param name="columns">Columns that stand in its tables in place of those of its layout; null for those.</param>
    public static StatementDocument Of(
        Customer customer,
        IReadOnlyList<Statement> statements,
        AgeingRule ageing,
        Firm firm,
        LayoutTemplate template,
        IReadOnlyDictionary<string, string>? slots = null,
        int? reminderLevel = null,
        decimal? interestPercent = null,
        Func<string, string>? nameOf = null,
        string note = "",
        IReadOnlyList<LayoutColumn>? columns = null
    )
    {
        var language = Wordings.Language.TryParse(customer.Language, out var known) ? known : Wordings.Language.English;
        var words = DocumentWords.In(language);
        var layout = template.Layout;
        var items = (layout.First<ItemsPart>() ?? ItemsPart.Usual).With(columns);
        var empty = new List<Slot>();
        slots ??= FrozenDictionary<string, string>.Empty;
        var holding = TextConditions.Holding(statements, reminderLevel, slots.GetValueOrDefault(ParcelSlots.Copies) is { Length: > 0 });
        var title = template.Title(slots, holding);
        empty.AddRange(title?.EmptySlots ?? []);
        var fileName = template.FileName(slots, holding);
        empty.AddRange(fileName?.EmptySlots ?? []);
        var link = template.Link(slots, holding);
        empty.AddRange(link?.EmptySlots ?? []);
        var barCodeText = template.BarCodeText(slots, holding);
        empty.AddRange(barCodeText?.EmptySlots ?? []);
        var barCode = layout.First<PaymentPart>() is { BarCode: not BarCodeKind.None and var kind }
            ? new BarCode(kind, barCodeText?.Subject ?? customer.Key)
            : null;
        var letter = layout.Letter is null
            ? null
            : new DocxContent(slots, [.. statements.SelectMany(s => s.Items).Select(item => LetterItem(item, language, words))], holding);
        empty.AddRange(layout.Letter is null ? [] : EmptyIn(layout.Letter, letter!));
        var texts = layout
            .Parts.Select(part =>
                part is SlipPart || (part is TextPart text && holding.Contains(text.When))
                    ? Filled(template, template.Fill(part, slots, holding), empty)
                    : null
            )
            .ToList();
        var address = new List<(string Line, Origin From)> { (customer.Name, Origin.OfCard("name")) };
        if (customer.Contact.Length > 0)
        {
            address.Add((customer.Title.Length > 0 ? $"{customer.Title} {customer.Contact}" : customer.Contact, Origin.OfCard("contact")));
        }

        address.AddRange(customer.PostalLines.Select(line => (line, Origin.OfCard("address"))));
        if (customer.Country.Length > 0)
        {
            address.Add((customer.Country, Origin.OfCard("country")));
        }

        var asOf = statements[0].AsOf;
        var document = new StatementDocument(
            language.Code,
            title?.Subject ?? (reminderLevel is { } level ? words.Reminder(level) : words.Title),
            firm,
            address.ConvertAll(a => a.Line),
            statements[0].Accounts[0].Forward is { } forward
                ?
                [
                    (words.Period, $"{language.WriteShort(forward.Period.From)} – {language.WriteShort(forward.Period.To)}"),
                    (words.Customer, customer.Key),
                ]
                : [(words.Date, language.Write(asOf)), (words.Customer, customer.Key)],
            statements[0].Accounts[0].Forward is null ? SectionSetting.ItemColumns(words, items) : SectionSetting.MovementColumns(words),
            [
                .. statements.Select(
                    new SectionSetting(
                        customer.Key,
                        firm,
                        layout,
                        items,
                        ageing,
                        language,
                        words,
                        interestPercent,
                        nameOf ?? (key => key)
                    ).Section
                ),
            ],
            words.HowToPay,
            words.Page,
            texts,
            [.. empty.Distinct()],
            fileName?.Subject
                ?? string.Create(
                    CultureInfo.InvariantCulture,
                    $"{customer.Key} {(reminderLevel is { } n ? $"reminder {n}" : "statement")} {asOf:yyyy-MM-dd}"
                ),
            (words.CarriedForward, words.BroughtForward)
        )
        {
            Note = [.. note.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(OneRun)],
            Letter = letter,
            PayLink = link?.Subject,
            Accent = layout.Accent,
            BarCode = barCode,
            Problem =
                note.Length > 0 && layout.Letter is not null
                    ? "its remark on the document has no place in a letter of a word processor"
                    : ProblemOf(link?.Subject, barCode),
            PayWords = words.Pay,
            CurrencyWord = words.Currency,
            AddressFrom = address.ConvertAll(a => a.From),
        };
        return document.Problem.Length > 0 ? document : document with { Problem = document.TooLong() };
    }

    /// <summary>What on it is longer than a document can show; empty for nothing.</summary>
    private string TooLong() =>
        AddressLines.Count > MostAddressLines
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"its address has {AddressLines.Count} lines; a letter has room for {MostAddressLines}"
            )
        : AddressLines.FirstOrDefault(l => l.Length > LongestAddressLine) is { } line
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"“{line[..20]}…” in its name or address has {line.Length} characters; a line has {LongestAddressLine} at the most"
            )
        : References
            .Select(r => r.Value)
            .Append(Title)
            .Append(FileName)
            .Concat(Sections.SelectMany(s => s.Rows).SelectMany(row => row))
            .Concat(Sections.SelectMany(s => s.Parts).Select(p => p.Heading))
            .FirstOrDefault(v => v.Length > LongestValue)
            is { } value
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"“{value[..20]}…” has {value.Length} characters; a document shows {LongestValue} of a value at the most"
            )
        : "";

    private static TextParagraph OneRun(string line) => new([new TextRun(line, IsStrong: false, Link: null)], "");

    private static string ProblemOf(string? link, BarCode? barCode) =>
        link is not null && (link.Length > LongestLink || !Uri.TryCreate(link, UriKind.Absolute, out _))
            ? $"the link to pay is no address: {link[..Math.Min(link.Length, 60)]}"
        : barCode is not null && BarCode.Problem(barCode.Kind, barCode.Text) is { } problem ? $"the bar code “{barCode.Text}” {problem}"
        : "";

    private static Dictionary<string, string> LetterItem(StatementItem item, Language language, DocumentWords words)
    {
        var values = ItemFields.All.ToDictionary(
            field => DocxSlot.OfItem + field,
            field => ItemFields.Value(field, item, language, words),
            StringComparer.Ordinal
        );
        values[DocxSlot.OfItem + "currency"] = item.Row.Currency.Code;
        foreach (var (heading, value) in item.Row.Extra)
        {
            values.TryAdd(DocxSlot.OfItem + heading, value);
        }

        return values;
    }

    /// <summary>
    /// The slots of a letter that stand on this one and have neither a value nor a fallback. Fields of single items may be empty, as cells
    /// of a table may.
    /// </summary>
    private static IEnumerable<Slot> EmptyIn(DocxTemplate letter, DocxContent content) =>
        letter
            .Slots.Where(s =>
                s.OrElse.Length == 0
                && !s.Name.StartsWith(DocxSlot.OfItem, StringComparison.Ordinal)
                && s.When.All(content.Holding.Contains)
                && string.IsNullOrWhiteSpace(content.Values.GetValueOrDefault(s.Name))
            )
            .Select(s => SlotCatalogue.Find(s.Name))
            .OfType<Slot>();

    private static IReadOnlyList<TextParagraph> Filled(LayoutTemplate template, FilledWording words, List<Slot> empty)
    {
        empty.AddRange(words.EmptySlots);
        return template.Paragraphs(words);
    }
}
