using System.Globalization;
using System.Net;
using System.Text.RegularExpressions;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Review;
using Rendal.Core.Statements;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Html;

namespace Rendal.Core.Tests.Wordings;

/// <summary>What is ready-made is true of every account, in every language.</summary>
public sealed partial class ReadyMadeCasesTests
{
    private static readonly Firm Tarnbrook = new("Tarnbrook Linen Hire", [], [], []);

    public static TheoryData<string> Languages => [.. Language.All.Select(l => l.Code)];

    [Theory]
    [MemberData(nameof(Languages))]
    public void Every_wording_reads_well_in_every_case(string language) => ForEach(language, (ready, of, text) =>
        {
            // A subject is one line of plain spaces, also where French sets a narrow one.
            ReadsWell(language == "fr" ? text.Subject.Replace(" :", ":", StringComparison.Ordinal) : text.Subject);
            Assert.DoesNotMatch("[.,;:]$", text.Subject);
            ReadsWell(text.Body);
            Assert.DoesNotMatch(@"(?<![\d.,])0[.,]00", text.All);
            Assert.DoesNotContain("\u2212", text.All);
            Assert.Empty(text.EmptySlots);
        });

    /// <summary>Who owes what, and where the message speaks of them at all, what is overdue, credits and interest.</summary>
    [Theory]
    [MemberData(nameof(Languages))]
    public void Every_amount_is_that_of_the_account_and_none_is_left_out(string language) => ForEach(language, (ready, of, text) =>
        {
            var isReminder = ready.Purpose.StartsWith(Purposes.Reminder, StringComparison.Ordinal);
            var says = new List<decimal>();
            foreach (var statement in of.Statements)
            {
                if (!isReminder && statement.Total != 0)
                {
                    says.Add(Math.Abs(statement.Total));
                }

                if (isReminder || ready.Purpose == Purposes.Statement)
                {
                    says.AddRange(
                        new[] { statement.Overdue, -statement.Ageing.Credits, statement.Interest.Sum(i => i.Amount) }.Where(a => a > 0)
                    );
                }
            }

            Assert.Equal(says.Distinct().Order(), AmountsIn(text.Body, language).Distinct().Order());
        });

    /// <summary>A condition holds a whole sentence, so that each is seen and changed by itself.</summary>
    [Theory]
    [MemberData(nameof(Languages))]
    public void No_condition_stands_in_another(string language) =>
        Assert.All(Of(language), ready =>
            Assert.DoesNotMatch("<span data-when=[^<]*<span data-when=", Slots().Replace(ready.Wording.Subject + ready.Wording.Body, ""))
        );

    /// <summary>More than a hundred good messages in six languages.</summary>
    [Theory]
    [MemberData(nameof(Languages))]
    public void Nothing_in_a_ready_made_message_catches_the_eye(string language)
    {
        var names = new NameIndex(["Harbour Inn Kell", "Gasthof zur Krone", "Maria Caldera Clinic", "Brookside"]);
        var read = 0;
        foreach (var ready in Of(language))
        {
            var level = LevelOf(ready.Purpose);
            foreach (var of in AccountCase.All.Where(of => level is null || of.IsOverdue))
            {
                foreach (var copies in new IReadOnlyList<string>[] { [], ["T-0", "T-1"] })
                {
                    var slots = ParcelSlots.Of(
                        Customer(language, "Maria Caldera"),
                        of.Statements,
                        Tarnbrook,
                        "Credit control",
                        new RoundIdentity("October"),
                        level,
                        copies
                    );
                    var message = WordingReader
                        .Read(ready.Wording)
                        .Read(slots, TextConditions.Holding(of.Statements, level, copies.Count > 0));
                    var parcel = new ReviewedParcel(
                        of.Statements,
                        ["Gasthof zur Krone", Tarnbrook.Name],
                        true,
                        copies.Count > 0,
                        language,
                        language
                    );
                    Assert.True(message.Lines.Count > 2);
                    Assert.Empty(MessageReview.Of(message, parcel, names));
                    read++;
                }
            }
        }

        Assert.True(read > 100);
    }

    [Fact]
    public void What_the_statement_says_of_each_case_in_English()
    {
        string[] says =
        [
            "nothing overdue: The balance outstanding is £200.50.",
            "all overdue: The balance outstanding is £200.50. The amount overdue is £200.50.",
            "some overdue: The balance outstanding is £200.50. The amount overdue is £120.00.",
            "one item, not due: The balance outstanding is £75.00.",
            "one item, overdue: The balance outstanding is £75.00. The amount overdue is £75.00.",
            "more overdue than owed in all: The balance outstanding is £3,256.18. The amount overdue is £3,294.88. Credit notes and "
                + "payments of £38.70 have not yet been matched to invoices; the balance already takes them into account.",
            "credits larger than what is overdue: The balance outstanding is £800.00. The amount overdue is £100.00. Credit notes and "
                + "payments of £300.00 have not yet been matched to invoices; the balance already takes them into account.",
            "in credit: Your account is in credit by £80.00. Credit notes and payments of £80.00 have not yet been matched to invoices; "
                + "the balance already takes them into account.",
            "in credit, something overdue: Your account is in credit by £30.00. The amount overdue is £50.00. Credit notes and payments "
                + "of £80.00 have not yet been matched to invoices; the balance already takes them into account.",
            "in credit, nothing overdue: Your account is in credit by £30.00. Credit notes and payments of £80.00 have not yet been "
                + "matched to invoices; the balance already takes them into account.",
            "balanced: The account is balanced. The amount overdue is £50.00. Credit notes and payments of £50.00 have not yet been "
                + "matched to invoices; the balance already takes them into account.",
            "two currencies, one overdue: The balance outstanding is £50.00 · €70.00. The amount overdue is £50.00.",
            "two currencies, one in credit: The balance outstanding is £50.00. Your account is in credit by €4.00. The amount overdue is "
                + "£50.00. Credit notes and payments of €4.00 have not yet been matched to invoices; the balance already takes them into "
                + "account.",
            "two currencies, both overdue: The balance outstanding is £43.00 · €70.00. The amount overdue is £50.00 · €70.00. Credit "
                + "notes and payments of £7.00 have not yet been matched to invoices; the balance already takes them into account.",
            "two currencies, one balanced: The balance outstanding is £50.00. Credit notes and payments of €9.00 have not yet been "
                + "matched to invoices; the balance already takes them into account.",
            "interest: The balance outstanding is £1,000.00. The amount overdue is £1,000.00. Interest of £16.00 on overdue invoices is "
                + "charged in addition.",
            "a group: The balance outstanding is £990.00. The amount overdue is £1,000.00. Credit notes and payments of £10.00 have not "
                + "yet been matched to invoices; the balance already takes them into account.",
        ];
        var wording = ReadyMadeWording.Find(Purposes.Statement, "en")!;
        Assert.Equal(says, AccountCase.All.Select(of => $"{of.Name}: {Fill(wording, of, null).Body.Split('\n')[2]}"));
    }

    [Theory]
    [InlineData("en", "branches")]
    [InlineData("de", "Niederlassungen")]
    [InlineData("fr", "établissements")]
    [InlineData("es", "sucursales")]
    [InlineData("it", "filiali")]
    [InlineData("nl", "vestigingen")]
    public void Branches_are_spoken_of_to_head_offices_alone(string language, string branches) => ForEach(language, (ready, of, text) =>
        {
            // A balance is confirmed by each account for itself.
            if (ready.Purpose is not ("" or Purposes.Confirmation))
            {
                Assert.Equal(of.Statements.Any(s => s.Accounts.Count > 1), text.Body.Contains(branches, StringComparison.Ordinal));
            }
        });

    /// <summary>Nobody is greeted without a name: the parcel waits until somebody says how.</summary>
    [Theory]
    [MemberData(nameof(Languages))]
    public void Without_a_contact_the_salutation_alone_is_missing(string language)
    {
        foreach (var ready in Of(language))
        {
            var text = Fill(ready.Wording, AccountCase.All[1], LevelOf(ready.Purpose), contact: "");
            Assert.Equal(["customer.salutation"], text.EmptySlots.Select(s => s.Name));
        }
    }

    [Theory]
    [MemberData(nameof(Languages))]
    public void Every_layout_reads_well_in_every_case(string language)
    {
        foreach (var ready in ReadyMade.All.Where(l => l.Language == language))
        {
            var level = LevelOf(ready.Purpose);
            foreach (var of in AccountCase.All.Where(of => level is null || of.IsOverdue))
            {
                var customer = Customer(language, "Maria Caldera");
                var document = StatementDocument.Of(
                    customer,
                    of.Statements,
                    AgeingRule.Default,
                    Tarnbrook,
                    LayoutReader.Read(ready.Layout),
                    ParcelSlots.Of(customer, of.Statements, Tarnbrook, "Marta", new RoundIdentity("October"), level),
                    level
                );
                Assert.Empty(document.EmptySlots);
                foreach (var paragraph in document.Texts.OfType<IReadOnlyList<TextParagraph>>().SelectMany(t => t))
                {
                    var words = string.Concat(paragraph.Runs.Select(r => r.Text));
                    ReadsWell(words);
                    Assert.DoesNotMatch(@"(?<![\d.,])0[.,]00", words);
                    Assert.DoesNotContain("\u2212", words);
                }
            }
        }
    }

    private static IEnumerable<ReadyMadeWording> Of(string language) => ReadyMadeWording.All.Where(r => r.Wording.Language == language);

    private static void ForEach(string language, Action<ReadyMadeWording, AccountCase, Filled> check)
    {
        foreach (var ready in Of(language))
        {
            var level = LevelOf(ready.Purpose);
            foreach (var of in AccountCase.All.Where(of => level is null || of.IsOverdue))
            {
                check(ready, of, Fill(ready.Wording, of, level));
            }
        }
    }

    private static int? LevelOf(string purpose) =>
        purpose.StartsWith($"{Purposes.Reminder}-", StringComparison.Ordinal) ? purpose[^1] - '0' : null;

    private static Filled Fill(Wording wording, AccountCase of, int? level, string contact = "Maria Caldera")
    {
        var template = WordingReader.Read(wording);
        Assert.Empty(template.Errors);
        var slots = ParcelSlots.Of(
            Customer(wording.Language, contact),
            of.Statements,
            Tarnbrook,
            "Credit control",
            new RoundIdentity("October"),
            level
        );
        slots["statement.table"] = "<table></table>";
        slots["signature"] = "Credit control";
        var filled = template.Fill(slots, TextConditions.Holding(of.Statements, level));
        return new Filled(filled.Subject, Plain(filled.Body), filled.EmptySlots);
    }

    private static Customer Customer(string language, string contact) =>
        new()
        {
            Key = "KR04",
            Name = "Gasthof zur Krone",
            Contacts = contact.Length > 0 ? [new Contact { Name = contact, Title = "Ms" }] : [],
            Language = language,
        };

    /// <summary>The text of a message, a line for each paragraph and each break.</summary>
    private static string Plain(string html) =>
        string.Join(
            '\n',
            WebUtility.HtmlDecode(Tags().Replace(Ends().Replace(html, "\n"), "")).Trim().Split('\n').Select(line => line.TrimEnd(' '))
        );

    /// <summary>No gap, doubled space, stray mark or doubled stop, and a large letter wherever a sentence begins.</summary>
    private static void ReadsWell(string text)
    {
        Assert.DoesNotMatch("[{}]", text);
        Assert.DoesNotMatch(@"\S  +\S", text.Replace("[\u00A0\u00A0\u00A0]", "", StringComparison.Ordinal));
        Assert.DoesNotMatch(@" [.,;:!?]", text);
        Assert.DoesNotMatch(@"[.,;:]{2,}", text);
        Assert.DoesNotMatch(@"[.!?] \p{Ll}", text.Replace("p. a.", "", StringComparison.Ordinal));
    }

    private static IEnumerable<decimal> AmountsIn(string text, string language)
    {
        var mark = Language.Of(language).Mark == DecimalMark.Comma ? ',' : '.';
        return Amount()
            .Matches(text)
            .Select(m => new string([.. m.Value.Where(c => char.IsDigit(c) || c == mark)]).Replace(mark, '.'))
            .Select(a => decimal.Parse(a, CultureInfo.InvariantCulture));
    }

    [GeneratedRegex(@"\d[\d.,\u00A0\u202F]*[.,]\d\d(?!\d)")]
    private static partial Regex Amount();

    [GeneratedRegex("<span data-slot=[^>]*></span>")]
    private static partial Regex Slots();

    [GeneratedRegex("<br>|</p>")]
    private static partial Regex Ends();

    [GeneratedRegex("<[^>]+>")]
    private static partial Regex Tags();

    private sealed record Filled(string Subject, string Body, IReadOnlyList<Slot> EmptySlots)
    {
        public string All => $"{Subject}\n{Body}";
    }
}
