using System.Text;
using MimeKit;
using Rendal.Core.Dispatch;

namespace Rendal.Mail.Tests;

public class BounceReaderTests
{
    private const string Standard = """
        From: Mail Delivery <mailer-daemon@inn.example>
        To: accounts@tarnbrook.example
        Subject: Delivery Status Notification (Failure)
        Date: Mon, 2 Nov 2026 08:14:00 +0000
        MIME-Version: 1.0
        Content-Type: multipart/report; report-type=delivery-status; boundary="b"

        --b
        Content-Type: text/plain

        Your message could not be delivered.

        --b
        Content-Type: message/delivery-status

        Reporting-MTA: dns; mx.inn.example

        Final-Recipient: rfc822; kell@inn.example
        Action: ACTION
        Status: STATUS
        Diagnostic-Code: smtp; 550 5.1.1 No such
         mailbox

        --b
        Content-Type: message/rfc822

        Message-ID: <first@tarnbrook.example>
        From: accounts@tarnbrook.example
        Subject: Statement

        body
        --b--
        """;

    private const string Disposition = """
        From: kell@inn.example
        Return-Path: <>
        Subject: Statement
        Auto-Submitted: auto-replied
        MIME-Version: 1.0
        Content-Type: multipart/report; report-type=disposition-notification; boundary="b"

        --b
        Content-Type: text/plain

        Your message to <kell@inn.example> WORDS

        --b
        Content-Type: message/disposition-notification

        Reporting-UA: mx.inn.example; a mail server
        Final-Recipient: rfc822; kell@inn.example
        Original-Message-ID: <first@tarnbrook.example>
        Disposition: automatic-action/MDN-sent-automatically; deleted

        --b--
        """;

    private const string Several = """
        From: mailer-daemon@mx.example
        MIME-Version: 1.0
        Content-Type: multipart/report; report-type=delivery-status; boundary="b"

        --b
        Content-Type: text/plain

        These could not be reached:

          kell@inn.example
            host mx.inn.example said
            no such person

        Regards, the server. Ask anna@inn.example.

        --b
        Content-Type: message/delivery-status

        Reporting-MTA: dns; mx.example

        Final-Recipient: rfc822; kell@inn.example
        Action: failed
        Status: 5.1.1

        Final-Recipient: rfc822; anna@inn.example
        Action: delayed
        Status: 4.2.2
        Diagnostic-Code: smtp; 452 4.2.2 mailbox full

        Original-Recipient: rfc822; office@inn.example
        Final-Recipient: rfc822; far@other.example
        Action: failed
        Status: 5.1.2

        --b--
        """;

    [Theory]
    [InlineData("failed", "5.1.1", ReturnKind.Failed)]
    [InlineData("Failed", "5.1.1", ReturnKind.Failed)]
    [InlineData("delayed", "4.4.1", ReturnKind.Delayed)]
    [InlineData("delivered", "2.0.0", ReturnKind.Other)]
    public void A_delivery_report_names_the_message_the_recipient_and_the_reason(string action, string status, ReturnKind kind)
    {
        var mail = Read(Standard.Replace("ACTION", action, StringComparison.Ordinal).Replace("STATUS", status, StringComparison.Ordinal));
        Assert.Equal(kind, mail.Kind);
        Assert.Equal("first@tarnbrook.example", mail.MessageIds[0]);
        Assert.Equal([new ReturnedRecipient("kell@inn.example", kind, status, "550 5.1.1 No such mailbox")], mail.Recipients);
    }

    [Fact]
    public void Nothing_of_it_is_more_than_can_be_read_and_kept()
    {
        const string hostile =
            "Return-Path: <>\r\nFrom: mailer-daemon@mx.example\r\nSubject: "
            + "=?utf-8?q?not=00sent=1b=5b31m_=ED=A0=80?=\r\nIn-Reply-To: <a\0b@tarnbrook.example>\r\n"
            + "Content-Type: text/plain; charset=utf-8\r\n\r\nkell@inn.example: 550 5.1.1 no\0body\tat\u001b[0m all\r\n<c\0d@tarnbrook.example>\r\n";
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(hostile));
        var told = BounceReader.Read(BounceReader.Open(stream).Single().Message);
        string[] all =
        [
            told.Subject,
            told.Reason,
            .. told.MessageIds,
            .. told.Recipients.SelectMany(r => new[] { r.Address, r.Status, r.Reason }),
        ];
        Assert.DoesNotContain(all, text => text.Any(char.IsControl) || text.Any(char.IsSurrogate));
        Assert.StartsWith("notsent[31m", told.Subject, StringComparison.Ordinal);
        Assert.Contains("550 5.1.1 nobody at[0m all", told.Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void Headers_alone_are_enough_to_know_the_message()
    {
        var mail = Read(
            Standard
                .Replace("ACTION", "failed", StringComparison.Ordinal)
                .Replace("STATUS", "5.2.2", StringComparison.Ordinal)
                .Replace("message/rfc822", "text/rfc822-headers", StringComparison.Ordinal)
        );
        Assert.Equal("first@tarnbrook.example", mail.MessageIds[0]);
    }

    [Theory]
    [InlineData(
        "X-Failed-Recipients: kell@inn.example\nSubject: failure notice\n\nNo such user.\n\nMessage-Id: <first@tarnbrook.example>\n",
        ReturnKind.Failed,
        "",
        ""
    )]
    [InlineData(
        "Return-Path: <>\nSubject: failure notice\n\n<kell@inn.example>:\nno mailbox here (5.1.1)\n\n--- Below is a "
            + "copy.\n\nReturn-Path: <accounts@tarnbrook.example>\nMessage-ID: <first@tarnbrook.example>\n",
        ReturnKind.Failed,
        "5.1.1",
        "no mailbox here (5.1.1)"
    )]
    [InlineData(
        "Return-Path: <>\nSubject: notice\n\n<kell@inn.example>: 451 4.4.1 no answer from host\n\nMessage-ID: <first@tarnbrook.example>\n",
        ReturnKind.Delayed,
        "4.4.1",
        "451 4.4.1 no answer from host"
    )]
    public void A_notice_of_a_server_in_its_own_form_is_read(string text, ReturnKind kind, string status, string reason)
    {
        var mail = Read("From: mailer-daemon@mx.example\n" + text);
        Assert.Equal(kind, mail.Kind);
        Assert.Equal([new ReturnedRecipient("kell@inn.example", kind, status, reason)], mail.Recipients);
        if (text.StartsWith("Return-Path", StringComparison.Ordinal))
        {
            Assert.Equal(["first@tarnbrook.example"], mail.MessageIds);
        }
    }

    [Theory]
    [InlineData(
        "From: Postmaster <postmaster@mx.example>\nSubject: Undelivered Mail Returned to Sender\n\nI could not reach "
            + "<kell@inn.example>. Yours was <first@tarnbrook.example>\n"
    )]
    [InlineData(
        "From: Mail <noreply@mx.example>\nReturn-Path: <>\nSubject: Unzustellbar: Statement\n\nkell@inn.example nicht "
            + "gefunden (<first@tarnbrook.example>)\n"
    )]
    public void What_only_looks_like_a_report_is_unclear(string text)
    {
        var mail = Read(text);
        Assert.Equal(ReturnKind.Unclear, mail.Kind);
        Assert.Contains("first@tarnbrook.example", mail.MessageIds);
        Assert.Contains("kell@inn.example", mail.Recipients.Select(r => r.Address));
    }

    [Theory]
    [InlineData("Auto-Submitted: auto-replied\nSubject: Away\n")]
    [InlineData("Precedence: bulk\nSubject: Automatic reply: Statement\nIn-Reply-To: <first@tarnbrook.example>\n")]
    [InlineData("Return-Path: <>\nSubject: Abwesenheitsnotiz\nIn-Reply-To: <first@tarnbrook.example>\n")]
    public void A_reply_by_a_program_is_no_failure(string headers)
    {
        var mail = Read($"From: kell@inn.example\n{headers}\nBack on Monday.\n");
        Assert.Equal((ReturnKind.AutomaticReply, "Back on Monday."), (mail.Kind, mail.Reason));
        Assert.Equal(["kell@inn.example"], mail.Recipients.Select(r => r.Address));
    }

    [Theory]
    [InlineData("kell@inn.example", "Undelivered linen on your invoice", "In-Reply-To: <first@tarnbrook.example>\n")]
    [InlineData("kell@inn.example", "Delivery failed again this morning", "")]
    [InlineData("postmaster@inn.example", "Re: Statement", "In-Reply-To: <first@tarnbrook.example>\n")]
    [InlineData("kell@inn.example", "Absence of credit note", "In-Reply-To: <first@tarnbrook.example>\n")]
    [InlineData("kell@inn.example", "Automatic reply of our till?", "In-Reply-To: <first@tarnbrook.example>\n")]
    [InlineData("kell@inn.example", "Returned mail", "References: <first@tarnbrook.example>\n")]
    public void Words_and_names_make_no_report_of_a_persons_answer(string from, string subject, string headers) =>
        Assert.Equal(
            ReturnKind.Other,
            Read(
                $"From: {from}\nReturn-Path: <{from}>\nSubject: {subject}\n{headers}\nWe paid on Friday. Ask anna@inn.example, "
                    + "550 Mill Road, or call 555 1234.\n"
            ).Kind
        );

    [Fact]
    public void Ids_that_stand_in_the_words_of_a_person_are_not_what_it_is_about() =>
        Assert.Equal(
            ["second@tarnbrook.example"],
            Read(
                "From: kell@inn.example\nIn-Reply-To: <second@tarnbrook.example>\n\nAs I said in\nMessage-ID: <first@tarnbrook.example>\n"
            ).MessageIds
        );

    [Fact]
    public void A_refusal_by_a_recipients_filter_is_a_failure_with_its_words()
    {
        var mail = Read(
            Disposition.Replace("WORDS", "was automatically rejected:\nStatements only on paper, please.", StringComparison.Ordinal)
        );
        Assert.Equal(ReturnKind.Failed, mail.Kind);
        Assert.Equal(["first@tarnbrook.example"], mail.MessageIds);
        Assert.Equal(
            [
                new ReturnedRecipient(
                    "kell@inn.example",
                    ReturnKind.Failed,
                    "",
                    "was automatically rejected: Statements only on paper, please."
                ),
            ],
            mail.Recipients
        );
    }

    [Theory]
    [InlineData("automatic-action/MDN-sent-automatically; deleted", "manual-action/MDN-sent-manually; deleted")]
    [InlineData("automatic-action/MDN-sent-automatically; deleted", "manual-action/MDN-sent-manually; displayed")]
    [InlineData("automatically rejected", "deleted by a rule without being read")]
    public void A_receipt_is_no_refusal(string instead, string of) =>
        Assert.Equal(
            ReturnKind.Other,
            Read(
                Disposition
                    .Replace("WORDS", "was automatically rejected", StringComparison.Ordinal)
                    .Replace(instead, of, StringComparison.Ordinal)
            ).Kind
        );

    [Fact]
    public void A_report_that_a_person_passes_on_counts_for_nobody()
    {
        var report = Standard.Replace("ACTION", "failed", StringComparison.Ordinal).Replace("STATUS", "5.1.1", StringComparison.Ordinal);
        Assert.Equal(
            ReturnKind.Other,
            Read(
                "From: anna@inn.example\nReturn-Path: <anna@inn.example>\nSubject: Fwd: failed\nMIME-Version: "
                    + "1.0\nContent-Type: multipart/mixed; boundary=\"c\"\n\n--c\nContent-Type: text/plain\n\nWhat is "
                    + $"this?\n--c\nContent-Type: message/rfc822\n\n{report}\n--c--\n"
            ).Kind
        );
    }

    [Fact]
    public void Each_recipient_has_its_own_state_and_reason()
    {
        var mail = Read(Several);
        Assert.Equal(ReturnKind.Failed, mail.Kind);
        Assert.Equal(
            [
                new ReturnedRecipient("kell@inn.example", ReturnKind.Failed, "5.1.1", "host mx.inn.example said no such person"),
                new ReturnedRecipient("anna@inn.example", ReturnKind.Delayed, "4.2.2", "452 4.2.2 mailbox full"),
                new ReturnedRecipient("far@other.example", ReturnKind.Failed, "5.1.2", "status 5.1.2"),
                new ReturnedRecipient("office@inn.example", ReturnKind.Failed, "5.1.2", "status 5.1.2"),
            ],
            mail.Recipients
        );

        ReturnedConcern For(params string[] sentTo) => mail.Concerning(sentTo, "accounts@tarnbrook.example");
        Assert.Equal(
            (ReturnKind.Failed, "host mx.inn.example said no such person"),
            (For("kell@inn.example", "anna@inn.example").Kind, For("KELL@inn.example").Reason)
        );
        Assert.Equal(["kell@inn.example"], For("kell@inn.example", "anna@inn.example").Addresses);
        Assert.Equal((ReturnKind.Delayed, "4.2.2"), (For("anna@inn.example").Kind, For("anna@inn.example").Status));
        Assert.Equal(["office@inn.example"], For("office@inn.example").Addresses);
        Assert.Equal(ReturnKind.Unclear, For("nobody@inn.example").Kind);
        Assert.Equal(ReturnKind.OwnCopy, mail.Concerning(["nobody@inn.example"], "far@other.example").Kind);
    }

    [Fact]
    public void A_long_text_of_addresses_is_read_at_once()
    {
        var text = string.Concat(Enumerable.Range(0, 20_000).Select(i => $"a{i}@inn.example\n"));
        Assert.Equal(
            ReturnKind.Unclear,
            Read($"From: mailer-daemon@mx.example\nReturn-Path: <>\nSubject: x\n\n{text}\nMessage-ID: <first@tarnbrook.example>\n").Kind
        );
        Assert.Equal(
            ReturnKind.Unclear,
            Read(
                $"From: mailer-daemon@mx.example\nReturn-Path: <>\nSubject: x\n\n{new string('\n', 150_000)}(generated from "
                    + $"{new string('@', 40_000)}\n"
            ).Kind
        );
    }

    [Fact]
    public void All_messages_of_an_mbox_are_opened()
    {
        const string mbox =
            "From a@b.example Mon Nov  2 08:14:00 2026\nFrom: a@b.example\nSubject: One\n\nx\n\nFrom a@b.example Mon Nov  2 "
            + "08:15:00 2026\nFrom: a@b.example\nSubject: Two\n\ny\n";
        using var stream = new MemoryStream(Encoding.ASCII.GetBytes(mbox));
        Assert.Equal(["One", "Two"], BounceReader.Open(stream).Select(m => m.Message.Subject));
    }

    [Theory]
    [InlineData("Code;Amount\nAB01;10,00\n")]
    [InlineData("%PDF-1.7\n%âãÏÓ\n")]
    [InlineData("")]
    public void What_is_no_message_is_refused(string content)
    {
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(content));
        Assert.Throws<FormatException>(() => BounceReader.Open(stream).ToList());
    }

    private static ReturnedMessage Read(string text)
    {
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(text.ReplaceLineEndings("\r\n")));
        return BounceReader.Read(MimeMessage.Load(stream));
    }
}
