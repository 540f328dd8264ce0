using System.Text;
using CsCheck;
using MimeKit;
using Rendal.Core.Layouts;
using Rendal.Core.Wordings;

namespace Rendal.Mail.Tests;

public class MessageBuilderTests
{
    [Fact]
    public void A_message_has_text_html_and_enclosures_and_nothing_but_short_ascii_lines()
    {
        var (id, bytes) = Make(
            "Statement €1.240,00 für Łabędź",
            "<p>Guten Tag</p>",
            new Enclosure("Kontoauszug Łabędź.pdf", "application/pdf", [1, 2, 3])
        );
        Assert.All(Encoding.Latin1.GetString(bytes).Split("\r\n"), line => Assert.True(line.Length <= 998 && line.All(c => c < 128)));
        var message = MimeMessage.Load(new MemoryStream(bytes), TestContext.Current.CancellationToken);
        Assert.Equal("Statement €1.240,00 für Łabędź", message.Subject);
        Assert.EndsWith("@tarnbrook.example", id);
        Assert.Equal("Guten Tag", message.TextBody?.Trim());
        Assert.Contains("<p>Guten Tag</p>", message.HtmlBody);
        var enclosure = Assert.IsType<MimePart>(Assert.Single(message.Attachments));
        Assert.Equal("Kontoauszug Łabędź.pdf", enclosure.FileName);
        Assert.Equal("application/pdf", enclosure.ContentType.MimeType);
    }

    [Fact]
    public void Nothing_in_the_data_can_become_a_header()
    {
        var hostile = Gen.String.Select(s => s + "\r\nBcc: far@away.example\r\n\r\nbody");
        hostile.Sample(
            text =>
            {
                var (_, bytes) = MessageBuilder.Make(
                    new Draft(
                        text,
                        "a@tarnbrook.example",
                        ["b@inn.example"],
                        [],
                        text,
                        "<p>x</p>",
                        "en",
                        [new Enclosure(text, "application/pdf", [1])],
                        DateTimeOffset.UnixEpoch
                    )
                );
                var message = MimeMessage.Load(new MemoryStream(bytes), TestContext.Current.CancellationToken);
                Assert.Empty(message.Bcc);
                Assert.Equal(
                    ["Date", "From", "MIME-Version", "Message-Id", "Subject", "To"],
                    message
                        .Headers.Select(h => h.Field)
                        .Where(f => !f.StartsWith("Content-", StringComparison.Ordinal))
                        .Order(StringComparer.Ordinal)
                );
                Assert.Single(message.Attachments);
            },
            iter: 300
        );
    }

    [Fact]
    public void Header_lines_are_no_longer_than_78_characters()
    {
        var words = Gen.Char["abc XYZ äłß-_0123456789.,"].Array[1, 118].Select(c => new string(c));
        Gen.Select(words, words, Gen.Int[1, 40])
            .Sample(
                (subject, name, recipients) =>
                {
                    var to = Enumerable.Range(1, recipients).Select(i => $"accounts.payable.{i}@long-name-of-an-inn.example").ToList();
                    var (_, bytes) = MessageBuilder.Make(
                        new Draft(
                            name,
                            "accounts@tarnbrook.example",
                            to,
                            [],
                            subject,
                            "<p>x</p>",
                            "en",
                            [new Enclosure($"{name}.csv", "text/csv; charset=utf-8", "a,b"u8.ToArray())],
                            DateTimeOffset.UnixEpoch
                        )
                    );
                    var lines = Encoding.ASCII.GetString(bytes).Split("\r\n");
                    Assert.All(lines, line => Assert.True(line.Length <= 78, line));
                },
                iter: 200
            );
    }

    [Fact]
    public void The_name_of_a_file_of_any_length_is_in_lines_of_78_characters()
    {
        for (var length = 1; length <= 200; length++)
        {
            var name = string.Concat(Enumerable.Repeat("Abbot 2026, ", 20))[..length].TrimEnd() + ".csv";
            var (_, bytes) = Make("Statement", "<p>x</p>", new Enclosure(name, "text/csv; charset=utf-8", "a,b"u8.ToArray()));
            Assert.All(Encoding.ASCII.GetString(bytes).Split("\r\n"), line => Assert.True(line.Length <= 78, line));
            Assert.Equal(
                name,
                MimeMessage
                    .Load(new MemoryStream(bytes), TestContext.Current.CancellationToken)
                    .Attachments.OfType<MimePart>()
                    .Single()
                    .FileName
            );
        }
    }

    [Fact]
    public void A_text_that_is_enclosed_says_its_charset()
    {
        var (_, bytes) = Make("Statement", "<p>x</p>", new Enclosure("Statement.csv", "text/csv; charset=utf-8", "a,b"u8.ToArray()));
        Assert.Contains("Content-Type: text/csv; charset=utf-8", Encoding.ASCII.GetString(bytes), StringComparison.Ordinal);
    }

    [Fact]
    public void Plain_text_keeps_paragraphs_lists_links_and_tables()
    {
        var text = PlainText.Of(
            "<p>Dear Ms\n Caldera,</p><p>one<br>two <a "
                + "href=\"https://tarnbrook.example/pay\">pay</a></p><ul><li>a</li><li>b</li></ul><table><tr><th>No</th><th "
                + "style=\"text-align:right\">Open</th></tr><tr><td>T-1</td><td "
                + "style=\"text-align:right\">1,204.00</td></tr><tr><td colspan=\"1\">Total</td><td "
                + "style=\"text-align:right\">9.00</td></tr></table>"
        );
        Assert.Equal(
            "Dear Ms Caldera,\n\none\ntwo pay <https://tarnbrook.example/pay>\n\n- a\n- b\n\nNo         Open\nT-1    "
                + "1,204.00\nTotal      9.00\n",
            text
        );
    }

    [Fact]
    public void Pictures_go_inside_the_message_and_are_no_enclosures()
    {
        byte[] logo = [0x89, 0x50, 0x4E, 0x47, .. Enumerable.Range(0, 4_000).Select(i => (byte)(i * 31))];
        var draft = new Draft(
            "Tarnbrook Linen Hire",
            "accounts@tarnbrook.example",
            ["kell@inn.example"],
            [],
            "Statement",
            "<p><img data-picture=\"7\" alt=\"Tarnbrook Linen Hire\" width=\"180\"></p><p>Good day</p><p><img "
                + "data-picture=\"7\" alt=\"\"><img data-picture=\"7\" alt=\"Mark\"> of the house</p>",
            "en",
            [new Enclosure("Statement.pdf", "application/pdf", [1, 2])],
            DateTimeOffset.UnixEpoch
        )
        {
            Pictures = [new MessagePicture(7, "image/png", logo)],
        };
        using var stream = new MemoryStream(MessageBuilder.Make(draft).Bytes);
        var message = MimeMessage.Load(stream, TestContext.Current.CancellationToken);
        Assert.Equal(
            "multipart/mixed(multipart/alternative(text/plain,multipart/related(text/html,image/png)),application/pdf)",
            Shape(message.Body!)
        );
        var picture = message.BodyParts.OfType<MimePart>().Single(p => p.ContentType.MediaType == "image");
        Assert.Contains(
            $"<img alt=\"Tarnbrook Linen Hire\" width=\"180\" src=\"cid:{picture.ContentId}\"",
            message.HtmlBody,
            StringComparison.Ordinal
        );
        Assert.DoesNotContain("data-picture", message.HtmlBody, StringComparison.Ordinal);
        Assert.Equal("inline", picture.ContentDisposition!.Disposition);
        using var bytes = new MemoryStream();
        picture.Content!.DecodeTo(bytes, TestContext.Current.CancellationToken);
        Assert.Equal(logo, bytes.ToArray());
        Assert.Equal(["Statement.pdf"], message.Attachments.OfType<MimePart>().Select(p => p.FileName));
        Assert.Equal("Tarnbrook Linen Hire\n\nGood day\n\nMark of the house\n", message.TextBody!.ReplaceLineEndings("\n"));
        Assert.Throws<InvalidDataException>(() => MessageBuilder.Make(draft with { Pictures = [] }));
    }

    [Fact]
    public void A_code_goes_inside_the_message_once_and_the_plain_text_says_what_it_is_of()
    {
        var transfer = new PaymentCode(new SepaTransfer("Tarnbrook", "DE89 3704 0044 0532 0130 00", "", 12.5m, "KR04"), "");
        var link = new PaymentCode(null, "https://pay.example/KR04?a=1&b=2");
        var draft = new Draft(
            "Tarnbrook Linen Hire",
            "accounts@tarnbrook.example",
            ["kell@inn.example"],
            [],
            "Statement",
            $"<div lang=\"en\"><p>Good day</p>{Place(transfer)}{Place(link)}{Place(transfer)}<p>Regards</p></div>",
            "en",
            [],
            DateTimeOffset.UnixEpoch
        )
        {
            Codes = new Dictionary<PaymentCode, byte[]> { [transfer] = [1], [link] = [2] },
        };
        using var stream = new MemoryStream(MessageBuilder.Make(draft).Bytes);
        var message = MimeMessage.Load(stream, TestContext.Current.CancellationToken);
        Assert.Equal("multipart/alternative(text/plain,multipart/related(text/html,image/png,image/png))", Shape(message.Body!));
        var ids = message.BodyParts.OfType<MimePart>().Where(p => p.ContentType.MediaType == "image").Select(p => p.ContentId).ToList();
        var sources = new AngleSharp.Html.Parser.HtmlParser()
            .ParseDocument(message.HtmlBody!)
            .QuerySelectorAll("img")
            .Select(i => i.GetAttribute("src"));
        Assert.Equal([$"cid:{ids[0]}", $"cid:{ids[1]}", $"cid:{ids[0]}"], sources);
        Assert.DoesNotContain("data-code", message.HtmlBody, StringComparison.Ordinal);
        const string asked = "Tarnbrook, DE89 3704 0044 0532 0130 00, EUR 12.50, KR04";
        Assert.Equal(
            $"Good day\n\n{asked}\n\nhttps://pay.example/KR04?a=1&b=2\n\n{asked}\n\nRegards\n",
            message.TextBody!.ReplaceLineEndings("\n")
        );
        Assert.Throws<InvalidDataException>(() => MessageBuilder.Make(draft with { Codes = new Dictionary<PaymentCode, byte[]>() }));

        static string Place(PaymentCode code) =>
            $"<div><img data-code=\"{System.Net.WebUtility.HtmlEncode(code.Setting)}\" alt=\"{System.Net.WebUtility.HtmlEncode(code.Says)}\">"
            + "to scan</div>";
    }

    private static string Shape(MimeEntity part) =>
        part is Multipart parts ? $"{part.ContentType.MimeType}({string.Join(',', parts.Select(Shape))})" : part.ContentType.MimeType;

    private static (string Id, byte[] Bytes) Make(string subject, string body, params Enclosure[] enclosures) =>
        MessageBuilder.Make(
            new Draft(
                "Tarnbrook Linen Hire",
                "accounts@tarnbrook.example",
                ["kell@inn.example"],
                ["copies@inn.example"],
                subject,
                body,
                "de",
                enclosures,
                new DateTimeOffset(2026, 10, 31, 9, 0, 0, TimeSpan.Zero)
            )
        );
}
