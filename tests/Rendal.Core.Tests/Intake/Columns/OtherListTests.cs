using Rendal.Core.Intake;
using Rendal.Core.Intake.Columns;
using Rendal.Trials.Ledgers;

namespace Rendal.Core.Tests.Intake.Columns;

/// <summary>A file that is no ledger is said to be none, with what it seems to be; a ledger never is.</summary>
public sealed class OtherListTests
{
    [Theory]
    [InlineData(
        OtherListKind.PriceList,
        "Article no|Description|Unit|Net price|VAT %",
        "100|Bath towel|piece|0.84|20",
        "101|Napkin|piece|0.19|20"
    )]
    [InlineData(OtherListKind.PriceList, "Artikelnr.|Bezeichnung|Preis", "100|Badetuch|0,84", "101|Serviette|0,19")]
    [InlineData(OtherListKind.PriceList, "Référence article|Désignation|Prix HT", "100|Serviette|0,84", "101|Drap|1,19")]
    [InlineData(
        OtherListKind.BankStatement,
        "Date|Payee|Details|Amount|Balance",
        "2026-10-01|Inn at Kell|T-1|500.00|1500.00",
        "2026-10-02|Calder Gas|Direct debit|-210.40|1289.60"
    )]
    [InlineData(
        OtherListKind.BankStatement,
        "Date|Narrative|Amount|Balance",
        "2026-10-01|T-1|500.00|1500.00",
        "2026-10-02|Direct debit|-210.40|1289.60",
        "2026-10-03|T-2|10.00|1299.60",
        "2026-10-04|T-3|20.00|1319.60"
    )]
    [InlineData(
        OtherListKind.CustomerList,
        "Customer no|Name|Street|Town|Postcode|Phone|Terms",
        "H014|Inn at Kell|2 Mill Lane|Kell|KL1 4AB|01632 960014|30",
        "H020|Old Mill House|1 Weir Road|Eldwick|EL3 9XX|01632 960020|14"
    )]
    [InlineData(
        OtherListKind.CustomerList,
        "Kundennr.|Firma|Straße|PLZ|Ort|Telefon|Kreditlimit",
        "10014|Gasthof Kell|Mühlweg 2|58412|Kell|0163 960014|1.500,00",
        "10020|Haus Eldwick|Wehrgasse 1|41873|Eldwick|0163 960020|900,00"
    )]
    public void It_is_said_what_it_seems_to_be_before_what_it_lacks(OtherListKind kind, params string[] lines)
    {
        var reading = Recognition.Outline(Tables.Of(lines), ReadingChange.None);
        Assert.NotNull(reading?.SeemsToBe);
        Assert.Equal(kind, reading.SeemsToBe.Kind);
        Assert.True(reading.Lacks().Count == 0 || reading.Lacks()[0] == reading.SeemsToBe.Says);
    }

    [Fact]
    public void What_can_be_read_as_a_ledger_all_the_same_is_read_with_a_warning()
    {
        var table = Tables.Of(
            "Date|Payee|Reference|Amount|Balance",
            "2026-10-01|Inn at Kell|T-1|500.00|1500.00",
            "2026-10-02|Calder Gas|Direct debit|-210.40|1289.60",
            "2026-10-05|Inn at Kell|T-2|80.25|1369.85"
        );
        var recognised = Recognition.Recognise(table, Tables.Settings, ReadingChange.None)!;
        Assert.Contains(recognised.Findings, f => f.Code == FindingCodes.SeemsNoLedger && f.Severity == Severity.Warning);
    }

    [Fact]
    public void What_a_person_says_of_a_column_is_not_doubted()
    {
        var table = Tables.Of("Date|Payee|Details|Amount|Balance", "2026-10-01|Inn at Kell|T-1|500.00|1500.00");
        var said = ReadingChange.None with { Meanings = new Dictionary<int, ColumnMeaning> { [1] = ColumnMeaning.CustomerName } };
        Assert.Null(Recognition.Outline(table, said)?.SeemsToBe);
    }

    [Fact]
    public void Rows_of_articles_with_an_amount_for_a_customer_are_no_price_list()
    {
        var table = Tables.Of(
            "Client|Date|Article|Price|Amount",
            "Inn at Kell|2026-10-01|Bath towel|0.84|84.20",
            "Bay View|2026-10-02|Napkin|0.19|19.50"
        );
        Assert.Null(Recognition.Outline(table, ReadingChange.None)?.SeemsToBe);
    }

    [Fact]
    public void No_ledger_seems_to_be_anything_else()
    {
        var other = Enumerable
            .Range(1, 4_000)
            .AsParallel()
            .Select(seed => GeneratedLedger.Of(seed, TradeHeadings.All))
            .Select(ledger => (ledger, Recognition.Outline(ledger.Table, ReadingChange.None)?.SeemsToBe))
            .FirstOrDefault(l => l.SeemsToBe is not null);
        Assert.True(other.SeemsToBe is null, $"{other.SeemsToBe?.Says}\n{other.ledger}");
    }
}
