using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Core.Tests.Wordings;
using Rendal.Core.Wordings;
using Rendal.Html;

namespace Rendal.Core.Tests.Layouts;

/// <summary>What stands in a message beside its words: tables, strips, buttons, who signs, the foot.</summary>
public sealed class MessageBlocksTests
{
    private static readonly Firm Tarnbrook = new("Tarnbrook Linen Hire", [], [], []);

    [Fact]
    public void A_table_has_the_columns_that_were_chosen_for_it_and_the_document_keeps_its_own()
    {
        var (body, document) = Fill(Slot("statement.table", "number,open"));
        Assert.Equal(2, body.Split("<th scope=\"col\"").Length - 1);
        Assert.Equal(ItemsPart.UsualColumns.Count, document.Columns.Count);
        Assert.Contains("T-0", body, StringComparison.Ordinal);
    }

    [Fact]
    public void The_strip_of_ages_stands_once_where_it_has_a_place_of_its_own()
    {
        Assert.Equal(1, Fill(Slot("statement.table")).Body.Split("1–30").Length - 1);
        Assert.Equal(1, Fill(Slot("statement.table") + Slot("statement.ages")).Body.Split("1–30").Length - 1);
    }

    [Fact]
    public void A_button_leads_to_the_page_to_pay_on_and_stands_where_something_is_to_be_paid()
    {
        var body = Fill(Slot("payment.button", "Pay “now” &gt;")).Body;
        Assert.Contains("href=\"https://pay.example/KR04\"", body, StringComparison.Ordinal);
        Assert.Contains("Pay “now” &gt;</a>", body, StringComparison.Ordinal);
        Assert.Contains(">Online bezahlen</a>", Fill(Slot("payment.button"), language: "de").Body, StringComparison.Ordinal);
        Assert.DoesNotContain("<a", Fill(Slot("payment.button"), of: "in credit").Body, StringComparison.Ordinal);
    }

    [Fact]
    public void A_button_without_a_link_of_the_layout_keeps_the_parcel()
    {
        var filled = Filled(Slot("payment.button"), LayoutReader.BuiltIn);
        Assert.Equal("payment.button", Assert.Single(filled.EmptySlots).Name);
    }

    [Fact]
    public void A_code_leads_to_the_page_to_pay_on_and_says_what_it_is_of()
    {
        var body = Fill(Slot("payment.code"), language: "de").Body;
        Assert.Equal(new PaymentCode(null, "https://pay.example/KR04"), Assert.Single(PaymentCodePlaces.Of(body)));
        Assert.Contains("alt=\"https://pay.example/KR04\"", body, StringComparison.Ordinal);
        Assert.Contains(">online bezahlen</div>", body, StringComparison.Ordinal);
        Assert.DoesNotContain("<img", Fill(Slot("payment.code"), of: "in credit").Body, StringComparison.Ordinal);
    }

    [Fact]
    public void A_code_asks_for_the_transfer_of_what_is_to_be_paid_in_euro()
    {
        var layout = WithPayment(new PaymentPart { Iban = "DE89 3704 0044 0532 0130 00", Bic = "COBADEFFXXX" });
        var firm = Tarnbrook with { Name = "Tarnbrook\n“Linen” <Hire> & Co" };
        var (words, document) = Compose(Slot("payment.code"), layout, "two currencies, one overdue", "en", "en", firm, null, "");
        var code = Assert.Single(PaymentCodePlaces.Of(words.Body));
        var transfer = document.Sections.Single(s => s.Currency == "EUR").Transfer!;
        Assert.Equal(transfer with { Name = "Tarnbrook “Linen” <Hire> & Co" }, code.Transfer);
        Assert.Equal(code, PaymentCode.Read(code.Setting));
        Assert.StartsWith("Tarnbrook “Linen” <Hire> & Co, DE89 3704 0044 0532 0130 00, COBADEFFXXX, EUR ", code.Says);
    }

    [Fact]
    public void A_code_where_the_layout_has_neither_account_nor_link_keeps_the_parcel() =>
        Assert.Equal("payment.code", Assert.Single(Filled(Slot("payment.code"), LayoutReader.BuiltIn).EmptySlots).Name);

    [Theory]
    [InlineData("#5b2a55", "#ffffff")]
    [InlineData("#f2d75c", "#1d1420")]
    public void The_words_on_a_button_are_read_on_its_colour(string ground, string ink) =>
        Assert.Contains($"color:{ink};border-radius", PaymentButton.Html("https://pay.example/", "Pay", ground), StringComparison.Ordinal);

    [Fact]
    public void The_person_signs_then_the_sender_and_the_foot_of_the_book_stands_last()
    {
        var firm = Tarnbrook with { FootLines = ["Registered <here>", "Questions: ar@tarnbrook.example"] };
        var round = new RoundIdentity("October", "Marta") { Signature = "Marta Field\nCredit control" };
        var body = Fill($"<p>Regards<br>{Signature}</p>", firm: firm, round: round, signature: "The laundry\non the Tarn").Body;
        Assert.StartsWith(
            "<p>Regards<br>Marta Field<br>Credit control<br>The laundry<br>on the Tarn</p><p style=",
            body,
            StringComparison.Ordinal
        );
        Assert.EndsWith("Registered &lt;here&gt;<br>Questions: ar@tarnbrook.example</p>", body, StringComparison.Ordinal);
    }

    [Fact]
    public void A_sender_without_a_signature_signs_with_its_name() => Assert.Equal("<p>Accounts</p>", Fill($"<p>{Signature}</p>").Body);

    [Fact]
    public void A_customer_whose_language_has_no_wording_gets_no_mixture()
    {
        const string date = "<p><span data-slot=\"statement.date\"></span></p>";
        Assert.Equal("<div lang=\"en\"><p>31 October 2026</p></div>", Fill(date, card: "it").Body);
        Assert.Contains("Type</th>", Fill(Slot("statement.table"), card: "it").Body, StringComparison.Ordinal);
        Assert.Equal("31 ottobre 2026", Fill(date, card: "it").Document.References[0].Value);
    }

    private static string Slot(string name, string setting = "") => $"<p><span data-slot=\"{name}\" data-format=\"{setting}\"></span></p>";

    private static FilledWording Filled(string body, LayoutTemplate layout) =>
        Compose(body, layout, "all overdue", "en", "en", Tarnbrook, null, "").Words;

    private static (string Body, StatementDocument Document) Fill(
        string body,
        string of = "all overdue",
        string language = "en",
        string? card = null,
        Firm? firm = null,
        RoundIdentity? round = null,
        string signature = ""
    )
    {
        var layout = WithPayment(new PaymentPart { Link = Link });
        var (words, document) = Compose(body, layout, of, language, card ?? language, firm ?? Tarnbrook, round, signature);
        Assert.Empty(words.EmptySlots);
        return (words.Body, document);
    }

    private static LayoutTemplate WithPayment(PaymentPart payment) =>
        LayoutReader.Read(Layout.BuiltIn with { Parts = [.. Layout.BuiltIn.Parts.Select(p => p is PaymentPart ? payment : p)] });

    private const string Signature = "<span data-slot=\"signature\"></span>";
    private const string Link = "https://pay.example/<span data-slot=\"customer.code\"></span>";

    private static (FilledWording Words, StatementDocument Document) Compose(
        string body,
        LayoutTemplate layout,
        string of,
        string language,
        string card,
        Firm firm,
        RoundIdentity? round,
        string signature
    )
    {
        Assert.Empty(layout.Errors);
        var wording = WordingReader.Read(new Wording("w", language, "s", body));
        Assert.Empty(wording.Errors);
        return new ParcelComposer(
            firm,
            round ?? RoundIdentity.None,
            new Choice { AsOf = new DateOnly(2026, 10, 31) },
            SettlementRule.None,
            ByHand.Nothing,
            StatementRules.Default,
            new SentAs("Accounts", "ar@tarnbrook.example", "", CopyToSelf: false) { Signature = signature }
        ).Fill(
            wording,
            layout,
            new Customer
            {
                Key = "KR04",
                Name = "Gasthof zur Krone",
                Language = card,
            },
            AccountCase.All.Single(c => c.Name == of).Statements,
            key => key,
            null
        );
    }
}
