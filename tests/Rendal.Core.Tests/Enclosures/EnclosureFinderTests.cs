using CsCheck;
using Rendal.Core.Enclosures;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Statements;

namespace Rendal.Core.Tests.Enclosures;

/// <summary>Which files go with which parcel.</summary>
public sealed class EnclosureFinderTests
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);
    private static readonly Enclosing Copies = new() { Copies = CopyForm.Single };

    [Fact]
    public void Each_invoice_takes_its_copy_along_and_one_without_keeps_the_parcel()
    {
        var harbour = StatementOf("HARB", "TL-1001", "TL-1002");
        var finder = Finder(Copies, [harbour], File(1, "TL 1001"));

        var found = finder.Of("HARB", [harbour], [], []);
        Assert.Equal([1L], found.Files.Select(f => f.File));
        Assert.Equal(["TL-1001"], found.Copied);
        Assert.Equal(["TL-1002"], found.Missing);
        Assert.Equal("copies: TL-1002 is missing", found.Problem);
        Assert.Equal(
            "",
            Finder(Copies with { WithoutMissing = true }, [harbour], File(1, "TL 1001")).Of("HARB", [harbour], [], []).Problem
        );
    }

    [Fact]
    public void A_number_in_two_accounts_goes_with_neither_until_a_person_says_whose_it_is()
    {
        var (harbour, inn) = (StatementOf("HARB", "TL-1001"), StatementOf("INNS", "TL-1001"));
        var asked = Finder(Copies, [harbour, inn], File(1, "TL 1001"));
        Assert.All(new[] { harbour, inn }, s => Assert.Empty(asked.Of(s.Customer, [s], [], []).Files));
        Assert.Equal("copies: TL-1001 is in question", asked.Of("INNS", [inn], [], []).Problem);

        var settled = Finder(Copies, [harbour, inn], File(1, "TL 1001") with { ByHand = new CopyOf("INNS", ["TL 1001"]) });
        Assert.Empty(settled.Of("HARB", [harbour], [], []).Files);
        Assert.Equal([1L], settled.Of("INNS", [inn], [], []).Files.Select(f => f.File));
    }

    [Fact]
    public void Two_files_of_one_number_are_asked_about_and_the_same_file_twice_is_not()
    {
        var harbour = StatementOf("HARB", "TL-1001");
        Assert.Empty(Finder(Copies, [harbour], File(1, "TL 1001"), File(2, "TL 1001")).Of("HARB", [harbour], [], []).Files);

        var same = Finder(Copies, [harbour], File(1, "TL 1001"), File(2, "TL 1001") with { Sha256 = File(1, "").Sha256 });
        Assert.Equal([1L], same.Of("HARB", [harbour], [], []).Files.Select(f => f.File));
    }

    [Fact]
    public void What_goes_with_all_and_what_is_kept_with_the_customer_goes_along_unless_it_is_left_out()
    {
        var harbour = StatementOf("HARB", "TL-1001");
        var files = new[]
        {
            File(7, "") with
            {
                Use = EnclosureUse.Picked,
            },
            File(8, "") with
            {
                Use = EnclosureUse.Customer,
                Customer = "HARB",
            },
            File(9, "") with
            {
                Use = EnclosureUse.Customer,
                Customer = "INNS",
            },
        };
        var finder = new EnclosureFinder(new Enclosing { ForAll = [7] }, CopyMatching.None, files);
        Assert.Equal([8L, 7L], finder.Of("HARB", [harbour], [], []).Files.Select(f => f.File));
        Assert.Equal([7L], finder.Of("HARB", [harbour], [8], []).Files.Select(f => f.File));
        Assert.Equal("a file that is to be enclosed was deleted", finder.Of("HARB", [harbour], [], [99]).Problem);
    }

    [Fact]
    public void A_file_that_a_column_of_the_ledger_names_is_found_in_either_case_and_missed_where_it_is_not_there()
    {
        var statement = StatementOf("HARB", new ExtraColumns(["Scan"], ["LINEN.PDF"]), "TL-1001");
        var enclosing = new Enclosing { Column = "Scan" };
        var linen = File(3, "") with { Name = "linen.pdf", Use = EnclosureUse.Picked };
        Assert.Equal(
            [3L],
            new EnclosureFinder(enclosing, CopyMatching.None, [linen]).Of("HARB", [statement], [], []).Files.Select(f => f.File)
        );
        Assert.Equal(
            "there is no file “LINEN.PDF”",
            new EnclosureFinder(enclosing, CopyMatching.None, []).Of("HARB", [statement], [], []).Problem
        );
        Assert.Equal(
            "there are two files “LINEN.PDF”",
            new EnclosureFinder(
                enclosing,
                CopyMatching.None,
                [linen, linen with { Id = 4, Sha256 = new string('4', 64), Name = "Linen.PDF" }]
            )
                .Of("HARB", [statement], [], [])
                .Problem
        );
    }

    /// <summary>
    /// For any files, numbers and customers: what goes with a parcel is a copy of one of its items or goes with all, and each item is
    /// matched, missing or in question.
    /// </summary>
    [Fact]
    public void Nothing_goes_to_a_customer_whose_item_it_is_not()
    {
        var numbers = Gen.Int[1, 6].Select(n => $"TL-100{n}");
        var customers = Gen.Int[0, 3].Select(n => $"C{n}");
        var documents = Gen.Select(customers, numbers, (c, n) => (Customer: c, Number: n)).List[1, 12];
        var said = Gen.OneOf(
            Gen.Const((CopyOf?)null),
            Gen.Const<CopyOf?>(CopyOf.Nothing),
            Gen.Select(customers, numbers.List[1, 2], (c, n) => (CopyOf?)new CopyOf(c, [.. n.Select(DocumentNumber.Key)]))
        );
        var recognised = Gen.OneOf(
            numbers.Select(n => Recognised.As(DocumentNumber.Key(n))),
            numbers.List[1, 3].Select(n => Recognised.Question(n.Select(DocumentNumber.Key), "two")),
            Gen.Const(Recognised.Nothing("none"))
        );
        var files = Gen.Select(Gen.Int[1, 9], recognised, said).List[0, 14];
        Gen.Select(documents, files, Gen.Bool)
            .Sample(
                (ledger, given, withoutMissing) =>
                {
                    var enclosures = given
                        .Select(
                            (g, i) =>
                                File(i + 1, "") with
                                {
                                    Sha256 = new string((char)('0' + g.Item1), 64),
                                    Recognised = g.Item2,
                                    ByHand = g.Item3,
                                }
                        )
                        .ToList();
                    var statements = ledger
                        .Distinct()
                        .GroupBy(d => d.Customer)
                        .Select(g => StatementOf(g.Key, [.. g.Select(d => d.Number)]))
                        .ToList();
                    var all = new DocumentNumbers(LedgerDocument.Of(statements.SelectMany(s => s.Items).Select(i => i.Row)));
                    var matching = CopyMatching.Of(enclosures, all);
                    var finder = new EnclosureFinder(Copies with { WithoutMissing = withoutMissing }, matching, []);
                    foreach (var statement in statements)
                    {
                        var found = finder.Of(statement.Customer, [statement], [], []);
                        Assert.All(found.Files, f => Assert.True(f.BelongsTo([statement])));
                        Assert.All(found.Files, f => Assert.NotEmpty(f.Numbers));
                        foreach (var number in statement.Items.Select(i => i.Row.Number))
                        {
                            var inQuestion = matching.InQuestion(statement.Customer, number).Count > 0;
                            Assert.Single([found.Copied.Contains(number), found.Missing.Contains(number), inQuestion], holds => holds);
                            Assert.True(!inQuestion || found.Problem.Length > 0);
                        }
                    }
                }
            );
    }

    private static EnclosureFinder Finder(Enclosing enclosing, IReadOnlyList<Statement> ledger, params EnclosureFile[] files) =>
        new(
            enclosing,
            CopyMatching.Of(files, new DocumentNumbers(LedgerDocument.Of(ledger.SelectMany(s => s.Items).Select(i => i.Row)))),
            []
        );

    private static EnclosureFile File(long id, string number) =>
        new(id, $"{id}.pdf", new string((char)('a' + id), 64), 100, "application/pdf", EnclosureUse.Copy)
        {
            Recognised = number.Length > 0 ? Recognised.As(number) : Recognised.Nothing("none"),
        };

    private static Statement StatementOf(string customer, params string[] numbers) => StatementOf(customer, ExtraColumns.None, numbers);

    private static Statement StatementOf(string customer, ExtraColumns extra, params string[] numbers) =>
        Statement.Of(
            customer,
            Currency.Of("GBP"),
            numbers.Select(
                (number, i) =>
                    new OpenItem(
                        new LedgerRow
                        {
                            Customer = customer,
                            CustomerName = customer,
                            Kind = ItemKind.Invoice,
                            Number = number,
                            Date = AsOf,
                            Due = AsOf,
                            Currency = Currency.Of("GBP"),
                            Original = 10,
                            Open = 10,
                            Extra = extra,
                            Source = new SourceRef("ledger.csv", null, i + 2),
                        },
                        10
                    )
            ),
            AsOf,
            AgeingRule.Default
        );
}
