using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Statements;
using Rendal.Files.Docx;
using Rendal.Files.Pdf;
using Rendal.Html;

namespace Rendal.Cli;

/// <summary>The options of <c>rendal statements</c>.</summary>
internal sealed record StatementsOptions
{
    private const int UsualGap = 14;

    /// <summary>What <c>--help</c> prints.</summary>
    public const string Help = """
        ./rendal statements LEDGER [LEDGER…]   statements from ledger files, without a database or a server

          --customers FILE             the customer list
          --as-of YYYY-MM-DD           the date for which the statements hold; today by default
          --settle none|reference|oldest
                                       how payments settle invoices; none where the file has outstanding amounts, else oldest
          --age-by due|document        from which date the age counts; due by default
          --credits apart|by-date      credits beside the bands, or in the band of their own age; apart by default
          --groups branches|head-office|both
                                       who of a head office and its branches gets statements; branches by default
          --form open-items|brought-forward
                                       what a statement lists; open-items by default
          --from YYYY-MM-DD            the first day of a brought-forward statement; the first of the month by default
          --interest 8                 the yearly rate in percent of interest on overdue items; none by default
          --remind 7,21,35             reminders instead of statements: the days past due from which each level goes
          --gap 14                     the days between one level and the next; 14 by default
          --reminded FILE              the summary of reminders that were sent, so that the next level follows; once for each
          --bands 30,60,90             the last day of each ageing band
          --terms 30                   days from document to due date where nothing says
          --date-order dmy|mdy|ymd     where the dates leave it open; dmy by default
          --decimal .|,                the decimal mark where the amounts leave it open; . by default
          --currency GBP               the currency of rows that name none
          --sheet NAME                 the sheet of a workbook
          --column outstanding=HEADING what the column under a heading is, where that is not found out; once for each
          --reading FILE               a saved reading (JSON) instead of recognition
          --layout FILE                a saved layout (JSON) instead of the built-in one
          --out DIR                    writes one PDF per customer into this folder
          --json FILE|-                writes the summary
          --strict                     exit 3 if a finding is an error

        Exit 0: done; findings on standard error. 2: nothing could be done, nothing is written. 3: see --strict.
        """;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        AllowOutOfOrderMetadataProperties = true,
    };

    private static readonly JsonSerializerOptions Lenient = new(JsonSerializerDefaults.Web)
    {
        RespectRequiredConstructorParameters = true,
    };

    /// <summary>The ledger files, in the order given.</summary>
    public List<string> Ledgers { get; } = [];

    /// <summary>The customer list; null where none is given.</summary>
    public string? Customers { get; private set; }

    /// <summary>The date of the statements.</summary>
    public DateOnly AsOf { get; private set; }

    /// <summary>How payments are set; null for what each file needs.</summary>
    public SettlementRule? Settle { get; private set; }

    /// <summary>By which date items age, and in which bands.</summary>
    public AgeingRule Ageing { get; private set; } = AgeingRule.Default;

    /// <summary>Whether accounts of a group have one statement.</summary>
    public GroupStatements Groups { get; private set; }

    /// <summary>Open items, or brought forward.</summary>
    public StatementForm Form { get; private set; }

    /// <summary>The first day of a statement brought forward; null for the month before.</summary>
    public DateOnly? PeriodFrom { get; private set; }

    /// <summary>Interest a year in percent; null for none.</summary>
    public decimal? InterestPercent { get; private set; }

    /// <summary>When which reminder is due; null for none.</summary>
    public ReminderRules? Reminders { get; private set; }

    /// <summary>How far the reminders about single items have come.</summary>
    public Dictionary<string, Reminded> Reminded { get; } = new(StringComparer.Ordinal);

    /// <summary>What holds where a file says nothing.</summary>
    public ReadingSettings Reading { get; private set; } = new(Currency.Of("GBP"));

    /// <summary>A reading that is taken instead of what is found out; null for none.</summary>
    public SavedReading? SavedReading { get; private set; }

    /// <summary>The sheet of a workbook; null for the one that looks most like a ledger.</summary>
    public string? Sheet { get; private set; }

    /// <summary>What columns are, by their headings.</summary>
    public Dictionary<string, ColumnMeaning> Columns { get; } = new(StringComparer.Ordinal);

    /// <summary>The layout of the documents.</summary>
    public LayoutTemplate Layout { get; private set; } = LayoutReader.BuiltIn;

    /// <summary>The folder that documents go into; null for none.</summary>
    public string? Out { get; private set; }

    /// <summary>The file that all figures go into; null for none.</summary>
    public string? JsonFile { get; private set; }

    /// <summary>Whether warnings count as errors.</summary>
    public bool Strict { get; private set; }

    /// <summary>Whether the help is asked for.</summary>
    public bool WantsHelp { get; private set; }

    /// <summary>What a meaning of a column is called on the command line: <c>due-date</c>.</summary>
    public static string NameOf(ColumnMeaning meaning) => JsonNamingPolicy.KebabCaseLower.ConvertName(meaning.ToString());

    /// <summary>Reads the command line.</summary>
    /// <exception cref="Refusal">Something of it is unknown or wrong.</exception>
    public static StatementsOptions Parse(IReadOnlyList<string> args, DateOnly today)
    {
        var options = new StatementsOptions { AsOf = today };
        IReadOnlyList<int> bands = AgeingRule.Default.UpperEdges;
        var ageBy = AgeBy.Due;
        var creditsByDate = false;
        IReadOnlyList<int>? remind = null;
        int? gap = null;
        for (var i = 0; i < args.Count; i++)
        {
            string Value() =>
                ++i < args.Count ? args[i] : throw new Refusal($"{args[i - 1]} wants a value; see ./rendal statements --help.");
            switch (args[i])
            {
                case "--help" or "-h":
                    options.WantsHelp = true;
                    break;
                case "--customers":
                    options.Customers = Value();
                    break;
                case "--as-of":
                    options.AsOf = Day(Value(), "--as-of");
                    break;
                case "--settle":
                    options.Settle = Word(
                        Value(),
                        "--settle",
                        ("none", SettlementRule.None),
                        ("reference", SettlementRule.Reference),
                        ("oldest", SettlementRule.Oldest)
                    );
                    break;
                case "--age-by":
                    ageBy = Word(Value(), "--age-by", ("due", AgeBy.Due), ("document", AgeBy.Document));
                    break;
                case "--credits":
                    creditsByDate = Word(Value(), "--credits", ("apart", false), ("by-date", true));
                    break;
                case "--groups":
                    options.Groups = Word(
                        Value(),
                        "--groups",
                        ("branches", GroupStatements.Branches),
                        ("head-office", GroupStatements.HeadOffice),
                        ("both", GroupStatements.Both)
                    );
                    break;
                case "--form":
                    options.Form = Word(
                        Value(),
                        "--form",
                        ("open-items", StatementForm.OpenItems),
                        ("brought-forward", StatementForm.BroughtForward)
                    );
                    break;
                case "--from":
                    options.PeriodFrom = Day(Value(), "--from");
                    break;
                case "--interest":
                    options.InterestPercent = Percent(Value());
                    break;
                case "--remind":
                    remind = [.. Value().Split(',').Select(d => Number(d.Trim(), "--remind"))];
                    break;
                case "--gap":
                    gap = Number(Value(), "--gap");
                    break;
                case "--reminded":
                    options.TakeReminded(Value());
                    break;
                case "--bands":
                    bands = [.. Value().Split(',').Select(b => Number(b.Trim(), "--bands"))];
                    break;
                case "--terms":
                    options.Reading = options.Reading with { TermsDays = Number(Value(), "--terms") };
                    break;
                case "--date-order":
                    options.Reading = options.Reading with
                    {
                        Order = Word(
                            Value(),
                            "--date-order",
                            ("dmy", DateOrder.DayFirst),
                            ("mdy", DateOrder.MonthFirst),
                            ("ymd", DateOrder.YearFirst)
                        ),
                    };
                    break;
                case "--decimal":
                    options.Reading = options.Reading with
                    {
                        Mark = Word(Value(), "--decimal", (".", DecimalMark.Point), (",", DecimalMark.Comma)),
                    };
                    break;
                case "--currency":
                    options.Reading = options.Reading with { Currency = CurrencyOf(Value()) };
                    break;
                case "--sheet":
                    options.Sheet = Value();
                    break;
                case "--column":
                    options.AddColumn(Value());
                    break;
                case "--reading":
                    options.SavedReading = Load<SavedReading>(Value(), "reading");
                    break;
                case "--layout":
                    options.Layout = LayoutOf(Value());
                    break;
                case "--out":
                    options.Out = Value();
                    break;
                case "--json":
                    options.JsonFile = Value();
                    break;
                case "--strict":
                    options.Strict = true;
                    break;
                case ['-', _, ..]:
                    throw new Refusal($"{args[i]} is not an option; see ./rendal statements --help.");
                default:
                    options.Ledgers.Add(args[i]);
                    break;
            }
        }

        if (remind is null && (gap is not null || options.Reminded.Count > 0))
        {
            throw new Refusal("--gap and --reminded go with --remind, which says when each reminder is due.");
        }

        options.Reminders = remind is null ? null : RemindersOf(remind, gap ?? UsualGap);
        try
        {
            options.Ageing = new AgeingRule(bands, ageBy, creditsByDate);
        }
        catch (ArgumentException e)
        {
            throw new Refusal(
                $"--bands {string.Join(',', bands)}: the bands need one to eight upper edges that grow, such as 30,60,90.",
                e
            );
        }

        if (options.PeriodFrom > options.AsOf)
        {
            throw new Refusal(
                $"--from {options.PeriodFrom:yyyy-MM-dd} lies after --as-of {options.AsOf:yyyy-MM-dd}; nothing can be between them."
            );
        }

        return options.WantsHelp || options.Ledgers.Count > 0
            ? options
            : throw new Refusal("Name a ledger file; see ./rendal statements --help.");
    }

    private static ReminderRules RemindersOf(IReadOnlyList<int> days, int gap)
    {
        try
        {
            return new ReminderRules([.. days.Select(d => new ReminderLevel(d, gap))]);
        }
        catch (ArgumentException e)
        {
            throw new Refusal($"--remind {string.Join(',', days)}: {e.Message}", e);
        }
    }

    private static LayoutTemplate LayoutOf(string path)
    {
        var layout = Load<Layout>(path, "layout");
        var template = LayoutReader.Read(
            layout.Letter is { } letter ? layout with { Letter = letter with { Slots = DocxInspection.At(letter.Bytes).Slots } } : layout
        );
        return DocumentRenderer.Problem(template) is { } problem ? throw new Refusal($"{path}: {problem}") : template;
    }

    private void TakeReminded(string path)
    {
        var earlier = Load<EarlierReminders>(path, "summary of reminders", Lenient);
        foreach (var (item, level) in earlier.Reminded)
        {
            if (!Reminded.TryGetValue(item, out var known) || level >= known.Level)
            {
                Reminded[item] = new Reminded(level, earlier.AsOf > known.On || level > known.Level ? earlier.AsOf : known.On);
            }
        }
    }

    private static T Word<T>(string value, string option, params (string Word, T Meaning)[] words)
    {
        foreach (var (word, meaning) in words)
        {
            if (word == value)
            {
                return meaning;
            }
        }

        throw new Refusal($"{option} {value}: one of {string.Join(", ", words.Select(w => w.Word))} is wanted.");
    }

    private static int Number(string value, string option) =>
        int.TryParse(value, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number <= 36_500
            ? number
            : throw new Refusal($"{option} {value}: whole days are wanted.");

    private static decimal Percent(string value) =>
        decimal.TryParse(value, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var rate) && rate is > 0 and <= 100
            ? rate
            : throw new Refusal($"--interest {value}: a yearly rate above 0 and up to 100 is wanted, such as 8 or 8.25.");

    private static DateOnly Day(string value, string option) =>
        DateOnly.TryParseExact(value, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            ? day
            : throw new Refusal($"{option} {value}: a date such as 2026-10-31 is wanted.");

    private static Currency CurrencyOf(string value) =>
        Currency.TryParse(value, out var currency)
            ? currency
            : throw new Refusal($"--currency {value}: a code of ISO 4217 such as GBP is wanted.");

    private static T Load<T>(string path, string what, JsonSerializerOptions? options = null)
    {
        try
        {
            return JsonSerializer.Deserialize<T>(File.ReadAllBytes(path), options ?? Json)
                ?? throw new Refusal($"{path} holds no {what}.");
        }
        catch (Exception e) when (e is JsonException or IOException or UnauthorizedAccessException)
        {
            throw new Refusal($"{path} is not a {what} that can be read: {e.Message.Split('\n')[0]}", e);
        }
    }

    /// <summary>What of a summary says how far its reminders had come.</summary>
    private sealed record EarlierReminders(DateOnly AsOf, IReadOnlyList<ItemReminded> Reminded);

    private void AddColumn(string said)
    {
        var parts = said.Split('=', 2);
        var meanings = Enum.GetValues<ColumnMeaning>();
        var found = Array.FindIndex(meanings, m => NameOf(m) == parts[0]);
        if (parts.Length < 2 || found < 0)
        {
            throw new Refusal(
                $"--column {said}: write what it is and its heading, such as outstanding=\"Amt open\"; it can be "
                    + $"{string.Join(", ", meanings.Select(NameOf))}."
            );
        }

        Columns[parts[1]] = meanings[found];
    }
}
