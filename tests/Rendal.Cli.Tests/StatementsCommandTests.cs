using System.Text.Json;

namespace Rendal.Cli.Tests;

public sealed class StatementsCommandTests : IDisposable
{
    private const string Ledger = """
        Tarnbrook Linen Hire
        Open items at 31 October 2026

        Account,Name,Kind,Number,Date,Due,Amount,Balance,E-mail
        H014,Inn at Kell,INV,T-20811,31/08/2026,30/09/2026,500.00,500.00,kell@inn.example
        H014,Inn at Kell,INV,T-20900,15/10/2026,14/11/2026,400.00,400.00,
        H014,Inn at Kell,INV,T-20100,01/05/2026,31/05/2026,800.00,400.00,
        H014,Inn at Kell,CRN,C-0402,09/09/2026,,60.00,60.00,
        H020,Old Mill,CRN,C-0403,09/09/2026,,35.00,35.00,mill@old.example
        H031,Bay View,INV,T-20950,02/11/2026,,10.00,10.00,
        H044,Harbour Rest,INV,T-20951,31/09/2026,,20.00,20.00,rest@harbour.example
        H044,Harbour Rest,INV,T-20952,30/09/2026,,30.00,30.00,
        ,Total,,,,,,1265.00,
        """;

    private static readonly string Movements = Path.Combine(AppContext.BaseDirectory, "movements");

    private readonly string folder = Directory.CreateTempSubdirectory("rendal-cli-").FullName;

    [Fact]
    public void The_summary_tells_what_each_customer_owes_and_what_is_left_out()
    {
        var (exit, json, errors) = Run(Write("ledger.csv", Ledger), "--as-of", "2026-10-31", "--json", "-");
        Assert.Equal(0, exit);
        var root = JsonDocument.Parse(json).RootElement;
        Assert.Equal("2026-10-31", root.GetProperty("asOf").GetString());
        Assert.Equal("""{"read":8,"kept":7,"setAside":1}""", Compact(root.GetProperty("rows")));
        Assert.Equal(
            """{"customer":"H014","name":"Inn at Kell","currency":"GBP","total":"1240.00","overdue":"900.00","bands":["400.00","0.00","500.00","0.00","400.00"],"credits":"-60.00","items":[{"kind":"invoice","number":"T-20100","date":"2026-05-01","due":"2026-05-31","original":"800.00","open":"400.00","daysPastDue":153,"source":{"file":"ledger.csv","sheet":null,"row":7}},{"kind":"invoice","number":"T-20811","date":"2026-08-31","due":"2026-09-30","original":"500.00","open":"500.00","daysPastDue":31,"source":{"file":"ledger.csv","sheet":null,"row":5}},{"kind":"credit-note","number":"C-0402","date":"2026-09-09","due":"2026-10-09","original":"-60.00","open":"-60.00","daysPastDue":22,"source":{"file":"ledger.csv","sheet":null,"row":8}},{"kind":"invoice","number":"T-20900","date":"2026-10-15","due":"2026-11-14","original":"400.00","open":"400.00","daysPastDue":-14,"source":{"file":"ledger.csv","sheet":null,"row":6}}],"document":null}""",
            Compact(Assert.Single(root.GetProperty("statements").EnumerateArray()))
        );
        Assert.Equal(
            """[{"customer":"H020","currency":"GBP","reason":"credit-balance","amount":"-35.00"},{"customer":"H031","currency":"GBP","reason":"after-the-date","amount":"10.00"},{"customer":"H044","currency":"GBP","reason":"error","amount":"50.00"}]""",
            Compact(root.GetProperty("leftOut"))
        );
        Assert.Equal(
            """[{"currency":"GBP","ledger":"1265.00","statements":"1240.00","leftOut":"25.00","difference":"0.00"}]""",
            Compact(root.GetProperty("proof"))
        );
        Assert.Contains(root.GetProperty("findings").EnumerateArray(), f =>
            Compact(f)
                .StartsWith(
                    """{"code":"missing-address","severity":"warning","file":"ledger.csv","sheet":null,"row":10,"column":"E-mail","customer":"H031",""",
                    StringComparison.Ordinal
                )
        );
        Assert.Contains("error: ledger.csv row 11, Date: “31/09/2026” is not a date", errors);
    }

    [Fact]
    public void Documents_are_written_one_per_customer_under_unique_names()
    {
        var path = Write("l.csv", "Account,Date,Balance\na/b,2026-10-01,1.00\na:b,2026-10-01,2.00\nC,2026-10-01,-3.00\n");
        var (exit, json, _) = Run(path, "--as-of", "2026-10-31", "--out", Path.Combine(folder, "out"), "--json", "-");
        Assert.Equal(0, exit);
        Assert.Equal(
            ["a_b statement 2026-10-31 (2).pdf", "a_b statement 2026-10-31.pdf"],
            Directory.GetFiles(Path.Combine(folder, "out")).Select(f => Path.GetFileName(f)!).Order(StringComparer.Ordinal)
        );
        Assert.Contains("a_b statement 2026-10-31 (2).pdf", json);
    }

    [Theory]
    [InlineData("oldest.json", "--settle", "oldest")]
    [InlineData("oldest.json")]
    [InlineData("reference.json", "--settle", "reference")]
    [InlineData("none.json", "--settle", "none")]
    [InlineData("by-document.json", "--settle", "oldest", "--age-by", "document", "--bands", "15,45", "--terms", "14")]
    public void The_summary_of_movements_is_the_documented_one_to_the_byte(string expected, params string[] options)
    {
        var (exit, json, _) = Run([Path.Combine(Movements, "ledger.csv"), "--as-of", "2026-10-31", "--json", "-", .. options]);
        Assert.Equal(0, exit);
        Assert.Equal(File.ReadAllText(Path.Combine(Movements, expected)), json);
    }

    [Fact]
    public void A_file_of_movements_is_settled_oldest_first_unless_told_otherwise()
    {
        var path = Write(
            "m.csv",
            "Account,Kind,Number,Date,Due,Amount,Reference\nA,INV,1,2026-02-01,2026-03-01,100.00,\nA,INV,2,2026-03-01,2026-04-01,50.00,\nA,PAY,P1,2026-05-01,,-120.00,2\n"
        );
        Assert.Equal(["30.00"], Opens(path));
        Assert.Equal(["100.00", "-70.00"], Opens(path, "--settle", "reference"));
        Assert.Equal(["100.00", "50.00", "-120.00"], Opens(path, "--settle", "none"));
    }

    [Fact]
    public void The_customer_list_gives_names_terms_and_addresses()
    {
        var list = Write("customers.csv", "Code,Name,E-mail,Terms\nH1,Gasthof Krone,krone@gasthof.example,14\n");
        var (_, json, _) = Run(
            Write("l.csv", "Account,Date,Balance\nH1,2026-10-01,1.00\n"),
            "--customers",
            list,
            "--as-of",
            "2026-10-31",
            "--json",
            "-"
        );
        var statement = JsonDocument.Parse(json).RootElement.GetProperty("statements")[0];
        Assert.Equal("Gasthof Krone", statement.GetProperty("name").GetString());
        Assert.Equal("2026-10-15", statement.GetProperty("items")[0].GetProperty("due").GetString());
    }

    [Fact]
    public void A_head_office_can_get_the_statements_of_its_branches_with_a_part_each()
    {
        var list = Write(
            "customers.csv",
            "Code,Name,Head office\nI020,Inn at Kell,H014\nM031,Millrace Tavern,H014\nH014,Harbour Hotel,\nN007,Northgate Clinic,\n"
        );
        string[] call =
        [
            Path.Combine(Movements, "ledger.csv"),
            "--customers",
            list,
            "--settle",
            "none",
            "--as-of",
            "2026-10-31",
            "--json",
            "-",
        ];
        var (exit, json, _) = Run([.. call, "--groups", "head-office", "--out", Path.Combine(folder, "out")]);
        Assert.Equal(0, exit);
        var statements = JsonDocument.Parse(json).RootElement.GetProperty("statements").EnumerateArray().ToList();
        Assert.Equal(
            [("H014", "EUR", "75.25"), ("H014", "GBP", "55.00")],
            statements.Select(s =>
                (s.GetProperty("customer").GetString(), s.GetProperty("currency").GetString(), s.GetProperty("total").GetString())
            )
        );
        Assert.False(statements[0].TryGetProperty("parts", out _));
        Assert.Equal(
            """[{"customer":"H014","name":"Harbour Hotel","total":"30.00"},{"customer":"I020","name":"Inn at Kell","total":"-35.00"},{"customer":"M031","name":"Millrace Tavern","total":"60.00"}]""",
            Compact(statements[1].GetProperty("parts"))
        );
        Assert.Equal(["H014 statement 2026-10-31.pdf"], Directory.EnumerateFiles(Path.Combine(folder, "out")).Select(Path.GetFileName));

        var (_, both, _) = Run([.. call, "--groups", "both"]);
        var own = JsonDocument
            .Parse(both)
            .RootElement.GetProperty("statements")
            .EnumerateArray()
            .Where(s => s.TryGetProperty("alsoOn", out _))
            .ToList();
        Assert.Equal([("M031", "H014")], own.Select(s => (s.GetProperty("customer").GetString(), s.GetProperty("alsoOn").GetString())));
        Assert.Equal("0.00", JsonDocument.Parse(both).RootElement.GetProperty("proof")[1].GetProperty("difference").GetString());
    }

    [Fact]
    public void A_brought_forward_statement_that_does_not_close_is_a_finding()
    {
        var path = Write(
            "l.csv",
            "Account,Number,Date,Due date,Amount,Balance\nA,1,2026-08-01,2026-08-31,100.00,40.00\nB,2,2026-10-01,2026-10-31,30.00,30.00\n"
        );
        var (exit, _, errors) = Run(path, "--form", "brought-forward", "--as-of", "2026-10-31", "--strict");
        Assert.Equal(3, exit);
        Assert.Contains("error: l.csv: The movements of A come to 100.00 GBP, its open items to 40.00.", errors);
        Assert.DoesNotContain("of B come", errors);
    }

    [Fact]
    public void Credits_can_be_aged_by_their_own_date()
    {
        var path = Write(
            "l.csv",
            "Account,Number,Date,Due date,Balance\nA,1,2026-08-01,2026-08-31,100.00\nA,2,2026-10-01,2026-10-31,-30.00\n"
        );
        var (_, json, _) = Run(path, "--credits", "by-date", "--as-of", "2026-10-31", "--json", "-");
        var statement = JsonDocument.Parse(json).RootElement.GetProperty("statements")[0];
        Assert.Equal(
            ("""["0.00","-30.00","0.00","100.00","0.00"]""", "0.00", "100.00"),
            (
                Compact(statement.GetProperty("bands")),
                statement.GetProperty("credits").GetString(),
                statement.GetProperty("overdue").GetString()
            )
        );
    }

    [Fact]
    public void Reminders_follow_each_other_by_the_summaries_of_those_before()
    {
        var path = Write(
            "l.csv",
            "Account,Number,Date,Due "
                + "date,Balance\nA,1,2026-08-01,2026-08-31,100.00\nA,2,2026-10-01,2026-10-20,30.00\nB,3,2026-10-01,2026-10-30,9.00\n"
        );
        var (one, two) = (Path.Combine(folder, "one.json"), Path.Combine(folder, "two.json"));
        Assert.Equal(["A 1"], Levels(Run(path, "--remind", "7,21,35", "--as-of", "2026-10-31", "--json", one), one));
        Assert.Equal(
            "no-reminder-due",
            JsonDocument.Parse(File.ReadAllText(one)).RootElement.GetProperty("leftOut")[0].GetProperty("reason").GetString()
        );
        Assert.Equal(["B 1"], Levels(Run(path, "--remind", "7,21,35", "--reminded", one, "--as-of", "2026-11-13", "--json", two), two));
        Assert.Equal(
            ["A 2", "B 1"],
            Levels(Run(path, "--remind", "7,21,35", "--reminded", one, "--as-of", "2026-11-14", "--json", two), two)
        );
        Assert.Equal(
            ["A 3", "B 2"],
            Levels(
                Run(
                    path,
                    "--remind",
                    "7,21,35",
                    "--gap",
                    "10",
                    "--reminded",
                    two,
                    "--reminded",
                    one,
                    "--as-of",
                    "2026-11-24",
                    "--json",
                    one
                ),
                one
            )
        );
        Assert.Equal(
            [2, 3, 3],
            JsonDocument
                .Parse(File.ReadAllText(one))
                .RootElement.GetProperty("reminded")
                .EnumerateArray()
                .Select(r => r.GetProperty("level").GetInt32())
                .Order()
        );

        static IEnumerable<string> Levels((int Exit, string, string Errors) run, string summary)
        {
            Assert.True(run.Exit == 0, run.Errors);
            return JsonDocument
                .Parse(File.ReadAllText(summary))
                .RootElement.GetProperty("statements")
                .EnumerateArray()
                .Select(s => $"{s.GetProperty("customer").GetString()} {s.GetProperty("reminderLevel").GetInt32()}");
        }
    }

    [Theory]
    [InlineData("--remind 21,7: Level 2 comes at 7 days past due", "--remind", "21,7")]
    [InlineData("--gap and --reminded go with --remind", "--gap", "14")]
    [InlineData("ledger.csv is not a summary of reminders", "--remind", "7", "--reminded", "movements/ledger.csv")]
    [InlineData("--from 2026-11-01 lies after --as-of 2026-10-31", "--from", "2026-11-01")]
    [InlineData("--interest 0: a yearly rate above 0", "--interest", "0")]
    [InlineData("--groups all: one of branches, head-office, both", "--groups", "all")]
    public void An_option_that_makes_no_sense_is_refused_with_the_reason(string expected, params string[] options)
    {
        var (exit, _, errors) = Run([Path.Combine(Movements, "ledger.csv"), "--as-of", "2026-10-31", .. options]);
        Assert.Equal(2, exit);
        Assert.Contains(expected, errors);
    }

    [Fact]
    public void A_saved_layout_sets_the_documents_and_one_that_cannot_be_used_is_refused()
    {
        var path = Write("l.csv", "Account,Name,Number,Date,Due date,Balance,Round\nA1,Inn at Kell,T-1,2026-09-01,2026-10-01,9.00,N2\n");
        var layout = Write(
            "layout.json",
            """
            {
              "name": "Ours", "textSize": 10, "fileName": "<span data-slot=\"statement.day\"></span> <span data-slot=\"customer.code\"></span>",
              "parts": [
                { "part": "title", "text": "Account of <span data-slot=\"customer.name\"></span>" },
                { "columns": [{ "field": "number", "heading": "Ticket" }, { "field": "extra:Round" }, { "field": "open" }], "part": "items" },
                { "part": "text", "text": "<p>Please pay <strong><span data-slot=\"statement.overdue\"></span></strong>.</p>", "when": "overdue" }
              ]
            }
            """
        );
        var (exit, json, errors) = Run(
            path,
            "--layout",
            layout,
            "--out",
            Path.Combine(folder, "out"),
            "--as-of",
            "2026-10-31",
            "--json",
            "-"
        );
        Assert.True(exit == 0, errors);
        Assert.Equal(
            "2026-10-31 A1.pdf",
            JsonDocument.Parse(json).RootElement.GetProperty("statements")[0].GetProperty("document").GetString()
        );
        Assert.InRange(new FileInfo(Path.Combine(folder, "out", "2026-10-31 A1.pdf")).Length, 3_000, 40_000);

        foreach (
            var (wrong, said) in new[]
            {
                (
                    """{ "name": "Ours", "parts": [{ "part": "items", "columns": [{ "field": "colour" }] }] }""",
                    "Part 1, table of items: “colour” is not a field that is known."
                ),
                ("""{ "name": "Ours", "parts": [{ "part": "fireworks" }] }""", "is not a layout that can be read"),
                ("""{ "name": "Ours", "colour": "red" }""", "is not a layout that can be read"),
                (
                    """{ "name": "Ours", "parts": [{ "part": "letterhead", "logo": "AAAA" }] }""",
                    "The logo has to be a PNG or JPEG picture."
                ),
            }
        )
        {
            var (refused, _, words) = Run(path, "--layout", Write("wrong.json", wrong));
            Assert.Equal(2, refused);
            Assert.Contains(said, words);
        }
    }

    [Fact]
    public void A_saved_reading_stands_instead_of_recognition()
    {
        var path = Write("l.csv", "Account,Date,Balance,Rest\nA,03/04/2026,9.00,\"1,234\"\n");
        var reading = Write(
            "r.json",
            """{"columns":[{"heading":"Account","meaning":"customer-code"},{"heading":"Date","meaning":"date","order":"month-first"},{"heading":"Rest","meaning":"outstanding","mark":"comma"}]}"""
        );
        var (exit, json, _) = Run(path, "--reading", reading, "--as-of", "2026-10-31", "--json", "-");
        Assert.Equal(0, exit);
        var item = JsonDocument.Parse(json).RootElement.GetProperty("statements")[0].GetProperty("items")[0];
        Assert.Equal(("2026-03-04", "1.23"), (item.GetProperty("date").GetString(), item.GetProperty("open").GetString()));
    }

    [Fact]
    public void A_workbook_is_read_by_the_same_code_and_names_its_sheet()
    {
        var (exit, json, _) = Run(Awkward("several-sheets.xlsx"), "--as-of", "2026-10-31", "--json", "-");
        Assert.Equal(0, exit);
        var item = JsonDocument.Parse(json).RootElement.GetProperty("statements")[0].GetProperty("items")[0];
        Assert.Equal("""{"file":"several-sheets.xlsx","sheet":"Open items","row":2}""", Compact(item.GetProperty("source")));
    }

    [Fact]
    public void The_sheet_can_be_named_and_one_that_is_not_there_is_said_with_those_that_are()
    {
        Assert.Equal(["1.00"], Opens(Awkward("several-sheets.ods"), "--sheet", "Old"));
        var (exit, _, errors) = Run(Awkward("several-sheets.xls"), "--sheet", "Ledger");
        Assert.Equal(2, exit);
        Assert.Contains(
            "several-sheets.xls has no sheet “Ledger”; there are “Read me”, “Old”, “Open items”.",
            errors,
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("under-a-password.xls", "is a workbook under a password; save it without one and take that in.")]
    [InlineData("a-text-document.docx", "is a text document; ask the accounting program for a workbook or a CSV file instead.")]
    [InlineData(
        "cut-short.xlsx",
        "is damaged or cut short; open it in a spreadsheet program, look whether it is whole, and save it anew."
    )]
    public void A_file_that_is_no_ledger_is_named_as_what_it_is(string file, string says)
    {
        var (exit, output, errors) = Run(Awkward(file), "--json", "-");
        Assert.Equal(
            (2, "", $"rendal: {file} {says}"),
            (exit, output, Assert.Single(errors.Split('\n', StringSplitOptions.RemoveEmptyEntries)))
        );
    }

    [Theory]
    [InlineData("l.csv", "Account,Date\nA,2026-10-01\n", "No column has the amounts")]
    [InlineData("l.csv", "1,2\n3,4\n", "no row of headings")]
    [InlineData("l.csv", "", "is empty")]
    [InlineData("l.pdf", "%PDF-1.7", "a PDF")]
    public void What_cannot_be_done_is_said_in_one_line_and_nothing_is_written(string name, string content, string says)
    {
        var (exit, output, errors) = Run(
            Write(name, content),
            "--out",
            Path.Combine(folder, "out"),
            "--json",
            Path.Combine(folder, "s.json")
        );
        Assert.Equal((2, ""), (exit, output));
        Assert.Contains(says, Assert.Single(errors.Split('\n', StringSplitOptions.RemoveEmptyEntries)));
        Assert.False(Directory.Exists(Path.Combine(folder, "out")) || File.Exists(Path.Combine(folder, "s.json")));
    }

    [Theory]
    [InlineData("--bands", "60,30")]
    [InlineData("--as-of", "31/10/2026")]
    [InlineData("--settle", "newest")]
    [InlineData("--currency", "XXZ")]
    [InlineData("--frobnicate", "x")]
    [InlineData("--terms", "-1")]
    public void A_bad_option_is_named(string option, string value)
    {
        var (exit, _, errors) = Run(Write("l.csv", Ledger), option, value);
        Assert.Equal(2, exit);
        Assert.Contains(option, errors);
    }

    [Theory]
    [InlineData("Acct ID,Purchaser,Trx,Posted,Due by,Amt outstanding")]
    [InlineData("Kd.-Nr.,Kundenbez.,Rg.-Nr.,Belegdat.,Fällig bis,Offener Btr.")]
    public void A_ledger_under_headings_that_are_in_no_list_is_read(string headings)
    {
        var file = Write(
            "ledger.csv",
            $"""
            {headings}
            H014,Inn at Kell,T-20811,2026-08-31,2026-09-30,500.00
            H014,Inn at Kell,T-20900,2026-09-15,2026-10-15,400.00
            H020,Old Mill House,C-0403,2026-09-09,2026-10-09,35.00
            """
        );
        var (exit, json, _) = Run(file, "--as-of", "2026-10-31", "--json", "-");
        Assert.Equal(0, exit);
        Assert.Equal(
            ["900.00", "35.00"],
            JsonDocument.Parse(json).RootElement.GetProperty("statements").EnumerateArray().Select(s => s.GetProperty("total").GetString())
        );
    }

    [Fact]
    public void Which_of_two_columns_is_the_amount_is_asked_with_the_options_that_answer_it()
    {
        var file = Write(
            "ledger.csv",
            """
            Acct ID,Trx,Posted,Quex,Zorb
            H1,T-1001,2026-09-01,100.10,31.17
            H1,T-1002,2026-09-02,80.20,190.40
            H2,T-1003,2026-09-03,20.50,75.33
            H2,T-1004,2026-09-04,75.25,12.80
            """
        );
        var (exit, output, errors) = Run(file, "--as-of", "2026-10-31", "--json", "-");
        Assert.Equal((2, ""), (exit, output));
        Assert.Contains("“Quex” and “Zorb”", errors);
        Assert.Contains("=\"Quex\" (which comes to 276.05)", errors);
        Assert.Contains("=\"Zorb\" (which comes to 309.70)", errors);

        (exit, output, _) = Run(file, "--as-of", "2026-10-31", "--json", "-", "--column", "outstanding=Zorb");
        Assert.Equal(0, exit);
        Assert.Equal("309.70", JsonDocument.Parse(output).RootElement.GetProperty("proof")[0].GetProperty("ledger").GetString());
    }

    [Theory]
    [InlineData("outstanding", "such as outstanding=")]
    [InlineData("owing=Quex", "it can be extra, customer-code")]
    [InlineData("outstanding=Quux", "has no column “Quux”; there are “Account”")]
    public void A_column_that_cannot_be_is_refused(string column, string says)
    {
        var (exit, _, errors) = Run(Write("ledger.csv", Ledger), "--column", column);
        Assert.Equal(2, exit);
        Assert.Contains(says, errors);
    }

    [Fact]
    public void Strict_tells_of_errors_and_still_writes()
    {
        var summary = Path.Combine(folder, "s.json");
        Assert.Equal(3, Run(Write("l.csv", Ledger), "--as-of", "2026-10-31", "--strict", "--json", summary).Exit);
        Assert.True(File.Exists(summary));
    }

    public void Dispose() => Directory.Delete(folder, recursive: true);

    private static List<string> Opens(string path, params string[] more)
    {
        var (_, json, _) = Run([path, "--as-of", "2026-10-31", "--json", "-", .. more]);
        return
        [
            .. JsonDocument
                .Parse(json)
                .RootElement.GetProperty("statements")
                .EnumerateArray()
                .SelectMany(s => s.GetProperty("items").EnumerateArray())
                .Select(i => i.GetProperty("open").GetString()!),
        ];
    }

    private static string Awkward(string name) => Path.Combine(Core.Tests.Repository.Root, "tests", "awkward", name);

    private string Write(string name, string content)
    {
        var path = Path.Combine(folder, name);
        File.WriteAllText(path, content);
        return path;
    }

    private static (int Exit, string Output, string Errors) Run(params string[] args)
    {
        var output = new StringWriter();
        var errors = new StringWriter();
        return (StatementsCommand.Run(args, output, errors, new DateOnly(2026, 11, 24)), output.ToString(), errors.ToString());
    }

    private static string Compact(JsonElement element) => JsonSerializer.Serialize(element);
}
