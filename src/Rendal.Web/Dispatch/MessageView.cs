using MimeKit;
using Rendal.Mail;

namespace Rendal.Web.Dispatch;

/// <summary>A header line of a message.</summary>
internal sealed record HeaderLine(string Name, string Value);

/// <summary>An enclosed file.</summary>
internal sealed record EnclosureLine(int Index, string Name, string ContentType, int Size);

/// <summary>A message as its recipient sees it.</summary>
internal sealed record MessageView(
    string From,
    string To,
    string Date,
    string Subject,
    string MessageId,
    string Text,
    IReadOnlyList<HeaderLine> Headers,
    IReadOnlyList<EnclosureLine> Enclosures,
    int Size
)
{
    /// <summary>A message on record, read from its bytes.</summary>
    public static MessageView Of(byte[] bytes)
    {
        var message = BoundedMail.Load(bytes);
        return new(
            message.From.ToString(),
            message.To.ToString(),
            message.Date.ToString("d MMM yyyy HH:mm zzz", System.Globalization.CultureInfo.InvariantCulture),
            message.Subject ?? "",
            message.MessageId ?? "",
            message.TextBody ?? "",
            [.. message.Headers.Select(h => new HeaderLine(h.Field, h.Value))],
            [
                .. Files(message)
                    .Select(
                        (part, i) => new EnclosureLine(i, part.FileName ?? "enclosure", part.ContentType.MimeType, Content(part).Length)
                    ),
            ],
            bytes.Length
        );
    }

    /// <summary>The HTML of a message with its pictures in it, or its text as a page where it has none.</summary>
    public static string Html(byte[] bytes)
    {
        var message = BoundedMail.Load(bytes);
        return message.HtmlBody is { } html
            ? WithPictures(html, message)
            : MessageBuilder.Page(
                $"<pre style=\"white-space:pre-wrap\">{System.Net.WebUtility.HtmlEncode(message.TextBody ?? "")}</pre>",
                "en",
                message.Subject ?? ""
            );
    }

    /// <summary>An enclosed file; null where there is none of this number.</summary>
    public static (string Name, string ContentType, byte[] Bytes)? Enclosure(byte[] bytes, int index)
    {
        var part = Files(BoundedMail.Load(bytes)).ElementAtOrDefault(index);
        return part is null ? null : (part.FileName ?? "enclosure", part.ContentType.MimeType, Content(part));
    }

    /// <summary>The page may fetch nothing, so what it refers to by <c>cid:</c> (RFC 2392) stands in it.</summary>
    private static string WithPictures(string html, MimeMessage message)
    {
        foreach (
            var part in message
                .BodyParts.OfType<MimePart>()
                .Where(p => p.ContentId is { Length: > 0 } && p.ContentType.MediaType == "image")
        )
        {
            html = html.Replace(
                $"\"cid:{part.ContentId}\"",
                $"\"data:{part.ContentType.MimeType};base64,{Convert.ToBase64String(Content(part))}\"",
                StringComparison.Ordinal
            );
        }

        return html;
    }

    private static IEnumerable<MimePart> Files(MimeMessage message) => message.Attachments.OfType<MimePart>();

    private static byte[] Content(MimePart part)
    {
        using var stream = new MemoryStream();
        part.Content?.DecodeTo(stream);
        return stream.ToArray();
    }
}
