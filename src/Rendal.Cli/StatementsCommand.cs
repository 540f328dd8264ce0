using System.Globalization;
using Rendal.Core.Budgets;
using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Intake.Columns;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Parcels;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Files;
using Rendal.Files.Documents;
using Rendal.Files.Pdf;

namespace Rendal.Cli;

/// <summary>Makes statements from files alone: what the application does, without a browser.</summary>
internal static class StatementsCommand
{
    // A word processor takes a second to begin, and many letters then.
    private const int LettersInOneCall = 50;

    /// <summary>No letterhead: a file of statements says nothing of who writes them.</summary>
    private static readonly Firm Nobody = new("", [], [], []);

    /// <summary>Runs the command.</summary>
    /// <param name="args">What stands behind its name.</param>
    /// <param name="output">Where the report goes.</param>
    /// <param name="errors">Where errors go.</param>
    /// <param name="today">The date of statements where none is given.</param>
    /// <returns>The exit code, as <see cref="StatementsOptions.Help"/> says.</returns>
    public static int Run(IReadOnlyList<string> args, TextWriter output, TextWriter errors, DateOnly today)
    {
        try
        {
            var options = StatementsOptions.Parse(args, today);
            if (options.WantsHelp)
            {
                output.WriteLine(StatementsOptions.Help);
                return 0;
            }

            return Run(options, output, errors);
        }
        catch (Exception e) when (e is Refusal or FileRefused or OverBudget or IOException or UnauthorizedAccessException)
        {
            errors.WriteLine($"rendal: {e.Message}");
            return 2;
        }
    }

    private static int Run(StatementsOptions options, TextWriter output, TextWriter errors)
    {
        var list = options.Customers is { } path ? ReadCustomers(path) : null;
        var listed = list?.Customers.ToDictionary(
            c => c.Key,
            c => CardMerge.Merge(null, c, list.Reading, emptyClears: false, []),
            StringComparer.Ordinal
        )
            ?? [];
        var ledger = ReadLedgers(options, listed);
        var findings = new List<Finding>([.. ledger.Findings, .. list?.Findings.Listed() ?? []]);
        if (list is not null || ledger.Seen.Values.Any(s => s.EmailColumn is not null))
        {
            findings.AddRange(
                MissingAddresses.Among(ledger.Seen.Values, key =>
                    listed.TryGetValue(key, out var c) && AddressList.Read(c.Email).Good.Count > 0
                )
            );
        }

        var offices = HeadOffices.Of(listed.Values);
        var rules = new StatementRules(options.Ageing) { Reminders = options.Reminders ?? ReminderRules.Default };
        var choice = new Choice
        {
            AsOf = options.AsOf,
            NeedsAddress = false,
            Groups = options.Groups,
            Form = options.Form,
            PeriodFrom = options.PeriodFrom,
            InterestPercent = options.InterestPercent,
            ReminderLevels = options.Reminders?.Numbers,
        };
        var chosen = Choosing.Choose(
            ledger.Rows,
            ledger.SetAside,
            choice,
            ledger.Rule,
            rules,
            key => new Reachability(false, false, null, HeadOffice: offices.TopOf(key)),
            reminded: options.Reminded
        );
        findings.AddRange(DoNotClose(chosen, ledger));
        var documents = options.Out is { } folder
            ? WriteDocuments(
                folder,
                chosen,
                ledger,
                listed,
                options.Layout,
                new ParcelComposer(
                    Nobody,
                    RoundIdentity.None,
                    choice,
                    ledger.Rule,
                    ByHand.Nothing,
                    rules,
                    new SentAs("", "", "", CopyToSelf: false)
                )
            )
            : [];
        if (options.JsonFile is { } file)
        {
            var json = StatementsSummary.Json(
                options.AsOf,
                ledger.Read,
                ledger.Kept,
                chosen,
                findings,
                ledger.NameOf(listed),
                documents,
                options.Reminders is null
                    ? null
                    :
                    [
                        .. chosen
                            .Statements.SelectMany(s => rules.Reminders.Counted(s, s.ReminderLevel!.Value, options.Reminded))
                            .Distinct(),
                    ]
            );
            if (file == "-")
            {
                output.Write(json);
            }
            else
            {
                File.WriteAllText(file, json);
            }
        }

        foreach (var finding in findings)
        {
            errors.WriteLine(Line(finding));
        }

        return options.Strict && findings.Exists(f => f.Severity == Severity.Error) ? 3 : 0;
    }

    private static IEnumerable<Finding> DoNotClose(ChosenRound chosen, LedgersRead ledger)
    {
        var open = chosen
            .Statements.SelectMany(s => s.Accounts)
            .Where(s => s.ForwardDifference != 0)
            .DistinctBy(s => (s.Customer, s.Currency))
            .ToList();
        var sources =
            open.Count == 0
                ? []
                : ledger.Rows.DistinctBy(r => r.Customer).ToDictionary(r => r.Customer, r => r.Source, StringComparer.Ordinal);
        return open.Select(s => DoesNotClose(s, sources[s.Customer]));
    }

    private static Finding DoesNotClose(Statement statement, SourceRef source) =>
        new(
            FindingCodes.BroughtForwardDiffers,
            Severity.Error,
            source with
            {
                Row = 0,
            },
            null,
            statement.Customer,
            $"The movements of {statement.Customer} come to {statement.Currency.Plain(statement.Forward!.Closing)} "
                + $"{statement.Currency}, its open items to {statement.Currency.Plain(statement.Total)}.",
            "Take a file with all movements, or leave --form away."
        );

    private static CustomerList ReadCustomers(string path) => CustomerList(path, Open(path, FileOpening.Unsaid));

    private static CustomerList CustomerList(string path, LedgerTable table)
    {
        var reading = CardReading.Of(table, ReadingChange.None)
            ?? throw new Refusal(
                $"{path}: no row of headings with a customer code or name was found; look whether it is the customer list."
            );
        return reading.Lacks() is [var lack, ..]
            ? throw new Refusal($"{path}, headings in row {reading.HeadingRow}: {lack}")
            : CustomerListReader.Read(table, reading);
    }

    /// <summary>The reading with what the options say of its columns.</summary>
    private static ReadingChange WithColumns(ReadingChange change, LedgerTable table, StatementsOptions options, string path)
    {
        if (options.Columns.Count == 0 || Recognition.Outline(table, change) is not { } outline)
        {
            return change;
        }

        var meanings = change.Meanings.ToDictionary();
        foreach (var (heading, meaning) in options.Columns)
        {
            var column = outline.Columns.FirstOrDefault(c => c.Heading == heading)
                ?? throw new Refusal(
                    $"{path} has no column “{heading}”; there are {string.Join(", ", outline.Columns.Select(c => $"“{c.Heading}”"))}."
                );
            meanings[column.Index] = meaning;
        }

        return change with
        {
            Meanings = meanings,
        };
    }

    /// <summary>The options that answer what is asked; empty where nothing is.</summary>
    private static string Remedy(Reading reading)
    {
        if (reading.Question is not { } asked)
        {
            return "";
        }

        return $" Add {Option(asked.Taken)} or {Option(asked.Other)}.";

        string Option(AmountChoice choice) =>
            string.Create(
                CultureInfo.InvariantCulture,
                $"--column {StatementsOptions.NameOf(asked.Meaning)}=\"{reading.Columns[choice.Index].Heading}\" (which comes to {choice.Sum})"
            );
    }

    private static LedgersRead ReadLedgers(StatementsOptions options, Dictionary<string, Customer> listed)
    {
        var read = new LedgersRead();
        foreach (var path in options.Ledgers)
        {
            var opening = options.SavedReading?.Opening ?? FileOpening.Unsaid;
            var table = Open(path, opening with { Sheet = options.Sheet ?? opening.Sheet });
            var change = ReadingChange.None;
            if (options.SavedReading is { } saved)
            {
                change = saved.For(table, out var missing);
                if (missing.Count > 0)
                {
                    throw new Refusal($"{path} has no column “{missing[0]}”, which the saved reading names.");
                }
            }

            change = WithColumns(change, table, options, path);
            var recognised = Recognition.Recognise(table, options.Reading, change)
                ?? throw new Refusal(
                    $"{path}: no row of headings was found in the first {Recognition.RowsSearched} rows; look whether it is the ledger."
                );

            if (recognised.Reading.Lacks() is [var lack, ..])
            {
                throw new Refusal($"{path}, headings in row {recognised.Reading.HeadingRow}: {lack}{Remedy(recognised.Reading)}");
            }

            var reader = new LedgerReader(
                table,
                recognised,
                options.Reading,
                key => listed.TryGetValue(key, out var c) ? c.Terms : null,
                change
            );
            foreach (var row in reader.Rows())
            {
                read.Add(row);
            }

            read.Add(reader, options.Settle ?? (recognised.Reading.HasOutstanding ? SettlementRule.None : SettlementRule.Oldest));
        }

        return read;
    }

    private static LedgerTable Open(string path, FileOpening opening)
    {
        if (!File.Exists(path))
        {
            throw new Refusal($"{path} does not exist.");
        }

        return TableFile.Open(Path.GetFileName(path), () => File.OpenRead(path), opening);
    }

    private static Dictionary<string, string> WriteDocuments(
        string folder,
        ChosenRound chosen,
        LedgersRead ledger,
        Dictionary<string, Customer> listed,
        LayoutTemplate template,
        ParcelComposer composer
    )
    {
        Directory.CreateDirectory(folder);
        var names = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var documents = new Dictionary<string, string>(StringComparer.Ordinal);
        using var press = new DocumentRenderer();
        var nameOf = ledger.NameOf(listed);
        foreach (var customers in chosen.Statements.GroupBy(s => s.Customer).Chunk(LettersInOneCall))
        {
            var made = customers.Select(of => (Customer: of.Key, Document: DocumentOf(of))).ToList();
            var layout = template.Layout;
            var letters =
                layout.Letter is not null && layout.Forms.Contains(DocumentForm.Pdf)
                    ? DocumentFile.Letters([.. made.Select(p => (p.Document, layout))])
                    : null;
            foreach (var ((customer, document), i) in made.Select((p, i) => (p, i)))
            {
                foreach (var file in DocumentFile.Make(document, layout, press, letters?[i]))
                {
                    var name = FileName.Unique(file.Name, names);
                    File.WriteAllBytes(Path.Combine(folder, name), file.Bytes);
                    documents.TryAdd(customer, name);
                }
            }
        }

        return documents;

        StatementDocument DocumentOf(IGrouping<string, Statement> of)
        {
            var customer = listed.TryGetValue(of.Key, out var known) ? known : new Customer { Key = of.Key, Name = nameOf(of.Key) };
            IReadOnlyList<Statement> statements = [.. of];
            var level = statements.Max(s => s.ReminderLevel);
            return composer.Document(template, customer, statements, nameOf, level);
        }
    }

    private static string Line(Finding finding)
    {
        var place = finding.Source.Row > 0 ? $"{finding.Source.File} row {finding.Source.Row}" : finding.Source.File;
        var column = finding.Column is null ? "" : $", {finding.Column}";
        return $"{finding.Severity.ToString().ToLowerInvariant()}: {place}{column}: {finding.Message} {finding.Remedy}"
            .ReplaceLineEndings(" ")
            .TrimEnd();
    }
}
