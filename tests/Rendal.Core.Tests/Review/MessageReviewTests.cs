using CsCheck;
using Rendal.Core.Review;
using Rendal.Core.Statements;
using Rendal.Core.Tests.Wordings;
using Rendal.Core.Wordings;
using Rendal.Html;

namespace Rendal.Core.Tests.Review;

/// <summary>What catches the eye in a filled message, and what does not.</summary>
public sealed class MessageReviewTests
{
    private const string Salutation = "<span data-slot=\"customer.salutation\"></span>";
    private const string Name = "<span data-slot=\"customer.name\"></span>";
    private const string Total = "<span data-slot=\"statement.total\"></span>";
    private const string Note = "<span data-slot=\"column.Note\" data-or-else=\"–\"></span>";

    private static readonly NameIndex Customers = new([
        "Harbour Inn",
        "Harbour Inn Annex",
        "Kellgate Clinic",
        "Inn",
        "Brookside",
        "marsh",
        "Gasthof zur Krone",
    ]);

    // 120.00 of it due on 21 September, 80.50 due on 28 October, as of 31 October 2026.
    private static readonly IReadOnlyList<Statement> Statements = AccountCase.All.Single(c => c.Name == "all overdue").Statements;

    [Theory]
    [InlineData("<p>Please call Kellgate Clinic.</p>", RemarkCode.OtherCustomer, "Kellgate Clinic")]
    [InlineData("<p>As agreed with <strong>Harbour</strong> Inn Annex today</p>", RemarkCode.OtherCustomer, "Harbour Inn Annex")]
    [InlineData("<p>Brookside’s account</p>", RemarkCode.OtherCustomer, "Brookside")]
    [InlineData("<p>Dear {FirstName},</p>", RemarkCode.BracesLeft, "{FirstName}")]
    [InlineData("<p>Pay {{ total }} now</p>", RemarkCode.BracesLeft, "{{ total }}")]
    [InlineData("<p>Your account [Number] is overdue</p>", RemarkCode.BracesLeft, "[Number]")]
    [InlineData("<p>To &lt;&lt;Name&gt;&gt;</p>", RemarkCode.BracesLeft, "<<Name>>")]
    [InlineData("<p>Hello %NAME%, thanks</p>", RemarkCode.BracesLeft, "%NAME%")]
    [InlineData("<p>Dear ,</p><p>Text</p>", RemarkCode.EmptyGreeting, "Dear ,")]
    [InlineData("<p>Dear,</p><p>Text</p>", RemarkCode.EmptyGreeting, "Dear,")]
    [InlineData("<p>Dear Ms,</p><p>Text</p>", RemarkCode.EmptyGreeting, "Dear Ms,")]
    [InlineData("<p>,</p><p>Text</p>", RemarkCode.EmptyGreeting, ",")]
    [InlineData("<p>Sehr geehrte Frau ,</p><p>Text</p>", RemarkCode.EmptyGreeting, "Sehr geehrte Frau ,")]
    [InlineData("<p>Dear " + Salutation + ",</p>", RemarkCode.DoubledGreeting, "Dear Dear Ms Caldera,")]
    [InlineData("<p>Good morning</p><p>" + Salutation + ",</p>", RemarkCode.DoubledGreeting, "Dear Ms Caldera,")]
    [InlineData("<p>The amount of £350.00 is due</p>", RemarkCode.TypedAmount, "£350.00")]
    [InlineData("<p>The amount of 1,350.00 is due</p>", RemarkCode.TypedAmount, "1,350.00")]
    [InlineData("<p>We charge 40 EUR</p>", RemarkCode.TypedAmount, "40 EUR")]
    [InlineData("<p>Please pay by 15 November 2026</p>", RemarkCode.TypedDate, "15 November 2026")]
    [InlineData("<p>Please pay by 15.11.2026.</p>", RemarkCode.TypedDate, "15.11.2026")]
    [InlineData("<p>Please pay by 2026-11-15</p>", RemarkCode.TypedDate, "2026-11-15")]
    [InlineData("<p>your statement for September 2026</p>", RemarkCode.TypedDate, "September 2026")]
    [InlineData(
        "<p><a href=\"https://else.example/pay\">www.tarnbrook.example/pay</a></p>",
        RemarkCode.LinkElsewhere,
        "www.tarnbrook.example/pay"
    )]
    [InlineData("<p><a href=\"mailto:x@else.example\">ar@tarnbrook.example</a></p>", RemarkCode.LinkElsewhere, "ar@tarnbrook.example")]
    [InlineData("<p>Copies of the invoices are attached.</p>", RemarkCode.MissingEnclosure, "attached")]
    [InlineData("<p>Please pay the the balance</p>", RemarkCode.DoubledWord, "the the")]
    [InlineData("<p>Please Please pay</p>", RemarkCode.DoubledWord, "Please Please")]
    [InlineData("<p>Thank you , and goodbye</p>", RemarkCode.SpaceBeforeStop, "you ,")]
    [InlineData("<p>Please pay " + Total + " .</p>", RemarkCode.SpaceBeforeStop, "£200.50 .")]
    [InlineData("<p>To " + Name + ".</p>", RemarkCode.DoubledStop, "..")]
    [InlineData("<p>Thank you,, goodbye</p>", RemarkCode.DoubledStop, ",,")]
    [InlineData("<p>Please  pay</p>", RemarkCode.DoubledSpace, "Please")]
    public void What_is_wrong_is_remarked_once(string body, RemarkCode code, string quote)
    {
        var remark = Assert.Single(Review("Statement", body));
        Assert.Equal((code, quote, false), (remark.Code, remark.Quote, remark.InSubject));
        Assert.Contains(quote.Length > 0 ? quote : "subject", remark.Says, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("<p>Krone Inn, an inn like Harbour inn; harbour Inn; marsh</p>")]
    [InlineData("<p>Gasthof zur Krone Ltd. and Gasthof zur Krone</p>")]
    [InlineData("<p>" + Name + " owes " + Total + " (1.5 % a year, 10.30 h)</p>")]
    [InlineData("<p>You know that that is so, as she had had it</p>")]
    [InlineData("<p>Invoice INV-2026-10.00, account 1234 5678, room 4.05.12</p>")]
    [InlineData("<p>Of 31 October 2026, 31.10.2026, October 2026; £120.00, £200.50 and 80.50</p>")]
    [InlineData("<p>Hello,</p><p>Dear is the word for it … and so on, etc.</p>")]
    [InlineData("<p>Is that so?! Yes... Ltd., as ever (see above).</p>")]
    [InlineData(
        "<p><a href=\"https://www.tarnbrook.example/pay?n=1\">tarnbrook.example</a> <a href=\"https://x.example\">pay here</a></p>"
    )]
    [InlineData("<p>The statement is enclosed. We keep copies of all invoices.</p>")]
    [InlineData("<p>Noted: " + Note + "</p>")]
    [InlineData("<p>Dear <span data-slot=\"column.Nobody\"></span>,</p><p>Text</p>")]
    [InlineData("<p>We do not accept cheques -- .5 of a per cent</p>")]
    public void What_is_meant_so_is_not_remarked(string body) => Assert.Empty(Review("Statement", body));

    [Fact]
    public void A_message_without_a_subject_is_remarked()
    {
        var remark = Assert.Single(Review("<span data-when=\"reminder\">Reminder</span>", "<p>Text</p>"));
        Assert.Equal((RemarkCode.EmptySubject, true), (remark.Code, remark.InSubject));
    }

    [Fact]
    public void A_name_in_a_column_of_the_files_is_remarked_and_a_stop_in_one_is_not() =>
        Assert.Equal(
            [RemarkCode.OtherCustomer],
            Review("s", $"<p>Noted: {Note}</p>", note: "goes with Harbour Inn ,, the the {x}").Select(r => r.Code)
        );

    [Fact]
    public void An_enclosure_that_is_promised_is_looked_for_among_what_goes()
    {
        const string body = "<p>The statement is enclosed.</p><p>Copies are attached.</p>";
        Assert.Equal(["enclosed", "attached"], Review("s", body, hasFiles: false).Select(r => r.Quote));
        Assert.Empty(Review("s", body, hasCopies: true));
    }

    [Fact]
    public void The_most_serious_stands_first_and_nothing_stands_twice() =>
        Assert.Equal(
            [RemarkCode.OtherCustomer, RemarkCode.BracesLeft, RemarkCode.DoubledWord],
            Review("the the", "<p>the the {x} Harbour Inn Harbour Inn</p>").Select(r => r.Code)
        );

    [Fact]
    public void The_place_of_a_remark_is_the_line_cut_around_it()
    {
        var line = string.Join(' ', Enumerable.Range(1, 60).Select(n => $"word{n}"));
        var remark = Assert.Single(Review("s", $"<p>{line} the the {line}</p>"));
        Assert.Matches("^….{40}the the.{40}…$", remark.Place);
    }

    [Fact]
    public void A_wording_in_another_language_than_the_customers_is_remarked()
    {
        var remark = Assert.Single(Review("s", "<p>Text</p>", wanted: "it"));
        Assert.Equal((RemarkCode.OtherLanguage, "italiano"), (remark.Code, remark.Quote));
    }

    [Fact]
    public void In_French_a_space_before_a_tall_stop_is_right()
    {
        Assert.Empty(Review("Relevé : octobre", "<p>Est-ce juste ? Oui ; merci !</p>", language: "fr"));
        Assert.Equal(RemarkCode.SpaceBeforeStop, Assert.Single(Review("s", "<p>Merci , bien</p>", language: "fr")).Code);
        Assert.Equal(RemarkCode.SpaceBeforeStop, Assert.Single(Review("s", "<p>Is that so ?</p>")).Code);
    }

    /// <summary>A number that is none, a word without an end, an address of thousands: from data, and typed.</summary>
    [Theory]
    [InlineData("9", ",00")]
    [InlineData("a", "")]
    [InlineData("@.", "")]
    [InlineData("{", "")]
    [InlineData("Hotel ", "")]
    public void Whatever_is_without_measure_is_read(string repeated, string end)
    {
        var text = string.Concat(Enumerable.Repeat(repeated, 100_000)) + end;
        Assert.All(
            Review(
                "s",
                $"<p>Note {text[..Math.Min(text.Length, 150_000)]}</p><p>{Note} <a href=\"https://x.example\">{Note}</a></p>",
                note: text
            ),
            r => Assert.True(r.Place.Length > 0)
        );
    }

    [Fact]
    public void A_name_of_many_that_begin_alike_is_found()
    {
        var names = new NameIndex(Enumerable.Range(1, 50_000).Select(n => $"Hotel N{n} am See").Append("Hotel").Append("Hotel N7"));
        Assert.Equal([(3, 15), (22, 8), (35, 5)], names.In("To Hotel N7 am See or Hotel N7, or Hotel"));
    }

    [Fact]
    public void Whatever_is_written_is_read_without_a_fault() =>
        Gen.Select(
                Gen.String[Gen.Char[" ,.;:!?{}[]<>%&£€1234567890abDear\u00A0\n\uD83D"], 0, 60],
                Gen.String[Gen.Char[" .,aDeaHInr\uDE00"], 0, 20]
            )
            .Sample(
                (typed, value) =>
                {
                    var body = $"<p>{System.Net.WebUtility.HtmlEncode(typed)}{Note}</p>";
                    Assert.All(Review("s", body, note: value), r => Assert.NotEmpty(r.Says));
                }
            );

    private static IReadOnlyList<Remark> Review(
        string subject,
        string body,
        string note = "",
        bool hasFiles = true,
        bool hasCopies = false,
        string language = "en",
        string wanted = ""
    )
    {
        var customer = new Core.Customers.Customer
        {
            Key = "KR04",
            Name = "Gasthof zur Krone Ltd.",
            Contacts = [new Core.Customers.Contact { Name = "Maria Caldera", Title = "Ms" }],
            Extra = new Dictionary<string, string> { ["Note"] = note },
        };
        var firm = new Core.Layouts.Firm("Tarnbrook Linen Hire", [], [], []);
        var slots = ParcelSlots.Of(customer, Statements, firm, "Marta", new RoundIdentity("October"), null);
        var template = WordingReader.Read(new Wording("w", language, subject, body));
        Assert.Empty(template.Errors);
        return MessageReview.Of(
            template.Read(slots, TextConditions.Holding(Statements, null)),
            new ReviewedParcel(Statements, [customer.Name, firm.Name], hasFiles, hasCopies, language, wanted),
            Customers
        );
    }
}
