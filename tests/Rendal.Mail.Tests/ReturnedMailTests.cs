using System.Text;
using MimeKit;

namespace Rendal.Mail.Tests;

public class ReturnedMailTests
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
        Assert.Equal(["kell@inn.example"], mail.Recipients);
        if (kind != ReturnKind.Other)
        {
            Assert.Equal((status, "550 5.1.1 No such mailbox"), (mail.Status, mail.Reason));
        }
    }

    [Fact]
    public void Headers_alone_are_enough_to_know_the_message()
    {
        var mail = Read(Standard.Replace("ACTION", "failed", StringComparison.Ordinal).Replace("STATUS", "5.2.2", StringComparison.Ordinal)
            .Replace("message/rfc822", "text/rfc822-headers", StringComparison.Ordinal));
        Assert.Equal("first@tarnbrook.example", mail.MessageIds[0]);
    }

    [Theory]
    [InlineData("From: Postmaster <postmaster@mx.example>\nSubject: Undelivered Mail Returned to Sender\n\nI could not reach\n<kell@inn.example>: host mx said: 550 5.1.1 unknown\n\n--- Below is a copy.\nMessage-ID: <first@tarnbrook.example>\n", ReturnKind.Failed, "5.1.1")]
    [InlineData("From: mailer-daemon@mx.example\nSubject: failure notice\nX-Failed-Recipients: kell@inn.example\n\nNo such user.\n\nMessage-Id: <first@tarnbrook.example>\n", ReturnKind.Failed, "")]
    [InlineData("From: postmaster@mx.example\nSubject: Warning: message delayed\n\n<kell@inn.example>: 451 4.4.1 no answer from host\n\nReferences <first@tarnbrook.example>\n", ReturnKind.Delayed, "4.4.1")]
    [InlineData("From: Mail <noreply@mx.example>\nSubject: Unzustellbar: Statement\n\nkell@inn.example nicht gefunden (Ihre Nachricht <first@tarnbrook.example>)\n", ReturnKind.Failed, "")]
    public void A_report_in_a_servers_own_words_is_read_as_far_as_it_goes(string text, ReturnKind kind, string status)
    {
        var mail = Read(text);
        Assert.Equal((kind, status), (mail.Kind, mail.Status));
        Assert.Contains("first@tarnbrook.example", mail.MessageIds);
        Assert.Contains("kell@inn.example", mail.Recipients);
    }

    [Theory]
    [InlineData("From: kell@inn.example\nSubject: Away\nAuto-Submitted: auto-replied\n\nBack on Monday.\n")]
    [InlineData("From: kell@inn.example\nSubject: Automatic reply: Statement\nIn-Reply-To: <first@tarnbrook.example>\n\nBack on Monday.\n")]
    [InlineData("From: kell@inn.example\nSubject: Abwesenheitsnotiz\nIn-Reply-To: <first@tarnbrook.example>\n\nBack on Monday.\n")]
    public void A_reply_by_a_program_is_no_failure(string text)
    {
        var mail = Read(text);
        Assert.Equal((ReturnKind.AutomaticReply, "Back on Monday."), (mail.Kind, mail.Reason));
        Assert.Equal(["kell@inn.example"], mail.Recipients);
    }

    [Fact]
    public void A_persons_answer_is_neither() =>
        Assert.Equal(ReturnKind.Other, Read("From: kell@inn.example\nSubject: Re: Statement\nIn-Reply-To: <first@tarnbrook.example>\n\nWe paid on Friday, see a@b.example.\n").Kind);

    [Fact]
    public void All_messages_of_an_mbox_are_opened()
    {
        const string mbox = "From a@b.example Mon Nov  2 08:14:00 2026\nFrom: a@b.example\nSubject: One\n\nx\n\nFrom a@b.example Mon Nov  2 08:15:00 2026\nFrom: a@b.example\nSubject: Two\n\ny\n";
        using var stream = new MemoryStream(Encoding.ASCII.GetBytes(mbox));
        Assert.Equal(["One", "Two"], ReturnedMail.Open(stream).Select(m => m.Message.Subject));
    }

    [Theory]
    [InlineData("Code;Amount\nAB01;10,00\n")]
    [InlineData("%PDF-1.7\n%âãÏÓ\n")]
    [InlineData("")]
    public void What_is_no_message_is_refused(string content)
    {
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(content));
        Assert.Throws<FormatException>(() => ReturnedMail.Open(stream).ToList());
    }

    private static ReturnedMessage Read(string text)
    {
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(text.ReplaceLineEndings("\r\n")));
        return ReturnedMail.Read(MimeMessage.Load(stream));
    }
}
