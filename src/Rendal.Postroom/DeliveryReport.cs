using MimeKit;
using MimeKit.Utils;

namespace Rendal.Postroom;

/// <summary>Writes the report that a mail server sends back when it could not deliver a message after all (RFC 3464).</summary>
public static class DeliveryReport
{
    private const string Name = "postroom.rendal.example";

    /// <summary>Writes one.</summary>
    /// <param name="message">The message as it came.</param>
    /// <param name="from">Who had sent it.</param>
    /// <param name="recipient">Who did not get it.</param>
    /// <param name="status">The status code of RFC 3463, for example <c>5.1.1</c>.</param>
    /// <param name="answer">What the server of the recipient is said to have answered.</param>
    /// <param name="now">When.</param>
    public static byte[] Of(byte[] message, string from, string recipient, string status, string answer, DateTimeOffset now)
    {
        using var carried = new MemoryStream(message);
        var report = new MimeMessage
        {
            Subject = "Delivery Status Notification (Failure)",
            Date = now,
            MessageId = MimeUtils.GenerateMessageId(Name),
        };
        report.From.Add(new MailboxAddress("Postroom", $"mailer-daemon@{Name}"));
        report.To.Add(new MailboxAddress("", from));
        report.Headers.Add(HeaderId.AutoSubmitted, "auto-replied");
        var status3464 = new MessageDeliveryStatus();
        status3464.StatusGroups.Add(new HeaderList { { "Reporting-MTA", $"dns; {Name}" } });
        status3464.StatusGroups.Add(
            new HeaderList
            {
                { "Final-Recipient", $"rfc822; {recipient}" },
                { "Action", "failed" },
                { "Status", status },
                { "Diagnostic-Code", $"smtp; {answer}" },
            }
        );
        report.Body = new MultipartReport("delivery-status")
        {
            new TextPart("plain") { Text = $"The message could not be delivered to {recipient}:\n{answer}\n" },
            status3464,
            new MessagePart { Message = MimeMessage.Load(carried) },
        };
        using var bytes = new MemoryStream();
        report.WriteTo(bytes);
        return bytes.ToArray();
    }
}
