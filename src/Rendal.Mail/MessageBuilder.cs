using System.Net;
using System.Text;
using MimeKit;
using MimeKit.Utils;
using Rendal.Core.Layouts;
using Rendal.Html;

namespace Rendal.Mail;

/// <summary>Makes messages (RFC 5322, MIME).</summary>
public static class MessageBuilder
{
    private const int LongestPlainWord = 60;
    private const int LongestLine = 78;

    // A line of a header is at most 78 characters long (RFC 5322, 2.1.1); these leave room for the header's name and a word's marks in
    // Base64.
    private const int MostBytesInAWord = 42;

    private static readonly FormatOptions Format = MakeFormat();

    // Both ways in which a mail program learns that a message is fit for a dark ground.
    private const string Meta =
        """<meta charset="utf-8"><meta name="viewport" content="width=device-width"><meta name="color-scheme" content="light dark">"""
        + """<meta name="supported-color-schemes" content="light dark">""";

    private const string BodyStyle =
        "margin:0;padding:0;font-family:'Source Sans 3','Segoe UI',Helvetica,Arial,sans-serif;font-size:14px;line-height:1.45";

    // Tables hold the width, as programs want it that know no other layout: as an attribute for those, as a style for the others.
    private const string Around =
        """<table role="presentation" width="100%" cellpadding="0" cellspacing="0" border="0" style="table-layout:fixed"><tr>"""
        + """<td style="padding:12px">"""
        + """<table role="presentation" width="720" cellpadding="0" cellspacing="0" border="0" """
        + """style="width:100%;max-width:720px;table-layout:fixed"><tr><td style="text-align:left">""";

    private const string AroundEnd = "</td></tr></table></td></tr></table>";

    // On a telephone all columns of a table stay in view.
    private const string Narrow = "@media (max-width:420px){table.items{font-size:11px !important}}";

    // Ground and ink of a dark page, and the twins of the colours that words can have, by how they are written when they were cleaned.
    private const string Dark =
        "@media (prefers-color-scheme:dark){body{background-color:#17131a;color:#f1ecef}a{color:#d9bcd5}"
        + "[style*=\"rgba(91, 42, 85\"]{color:#d9bcd5 !important}[style*=\"rgba(154, 59, 31\"]{color:#f2ab92 !important}"
        + "[style*=\"rgba(47, 107, 60\"]{color:#9fd3aa !important}[style*=\"rgba(93, 87, 102\"]{color:#bdb6c6 !important}}";

    private const string Style =
        ":root{color-scheme:light dark;supported-color-schemes:light dark}h2{font-size:18px;line-height:1.3;margin:16px 0 8px}"
        + Narrow
        + Dark;

    /// <summary>
    /// Makes a message: plain text and HTML as alternatives, the HTML with its pictures (RFC 2387, RFC 2392), then the enclosures. All
    /// lines are short and in ASCII, so that every server passes it on unchanged; what is not ASCII is encoded.
    /// </summary>
    /// <exception cref="InvalidDataException">The body has a place for a picture that is not in the draft.</exception>
    /// <returns>The Message-ID without angle brackets, and the bytes as they go out.</returns>
    public static (string MessageId, byte[] Bytes) Make(Draft draft)
    {
        var message = new MimeMessage
        {
            Subject = OneLine(draft.Subject),
            Date = draft.Date,
            MessageId = MimeUtils.GenerateMessageId(draft.SenderAddress[(draft.SenderAddress.LastIndexOf('@') + 1)..]),
        };
        message.From.Add(new MailboxAddress(OneLine(draft.SenderName), draft.SenderAddress));
        Shorten(message, HeaderId.Subject, OneLine(draft.Subject), "");
        Shorten(message, HeaderId.From, OneLine(draft.SenderName), $"\r\n <{draft.SenderAddress}>");
        message.To.AddRange(draft.To.Select(a => new MailboxAddress("", a)));
        message.Cc.AddRange(draft.Copies.Select(a => new MailboxAddress("", a)));
        message.Bcc.AddRange(draft.NamedBlindCopies.Select(a => new MailboxAddress("", a)));
        if (draft.ReplyTo.Length > 0)
        {
            message.ReplyTo.Add(new MailboxAddress("", draft.ReplyTo));
        }

        var builder = new BodyBuilder { TextBody = PlainText.Of(draft.Body) };
        var contentIds = draft.Pictures.ToDictionary(
            p => p.Number,
            p =>
                Add(builder.LinkedResources, FormattableString.Invariant($"picture-{p.Number}"), p.ContentType, p.Bytes, message.MessageId)
        );
        var body = PicturePlaces.Put(draft.Body, number =>
            contentIds.TryGetValue(number, out var id)
                ? $"cid:{id}"
                : throw new InvalidDataException($"The message lacks its picture {number}.")
        );
        var codes = new Dictionary<PaymentCode, string>();
        body = PaymentCodePlaces.Put(body, code => codes.TryGetValue(code, out var id) ? id
            : draft.Codes.TryGetValue(code, out var bytes)
                ? codes[code] = "cid:" + Add(builder.LinkedResources, $"code-{codes.Count + 1}", "image/png", bytes, message.MessageId)
            : throw new InvalidDataException($"The message lacks the code of “{code.Says}”."));
        builder.HtmlBody = Page(body, draft.Language, draft.Subject);
        foreach (var enclosure in draft.Enclosures)
        {
            Fold(builder.Attachments.Add(OneLine(enclosure.Name), enclosure.Bytes, ContentType.Parse(enclosure.ContentType)));
        }

        message.Body = builder.ToMessageBody();
        message.Prepare(EncodingConstraint.SevenBit, 78);
        using var stream = new MemoryStream();
        message.WriteTo(Format, stream);
        return (message.MessageId, stream.ToArray());
    }

    /// <summary>
    /// The page that the body stands in. Ground and ink are the mail program’s own on a light ground; for a dark one it brings them along.
    /// </summary>
    public static string Page(string body, string language, string title)
    {
        var (lang, heading) = (WebUtility.HtmlEncode(language), WebUtility.HtmlEncode(title));
        return $"""<!doctype html><html lang="{lang}"><head>{Meta}<title>{heading}</title><style>{Style}</style></head>"""
            + "\n"
            + $"""<body style="{BodyStyle}">{Around}{body}{AroundEnd}</body></html>""";
    }

    /// <summary>Adds a picture to what goes inside a message, and gives the name by which the message refers to it.</summary>
    private static string Add(AttachmentCollection inside, string name, string contentType, byte[] bytes, string messageId)
    {
        var type = ContentType.Parse(contentType);
        var part = inside.Add($"{name}.{type.MediaSubtype}", bytes, type);
        part.ContentDisposition = new ContentDisposition(ContentDisposition.Inline)
        {
            FileName = part.ContentDisposition?.FileName ?? part.ContentType.Name,
        };
        return part.ContentId = $"{name}.{messageId}";
    }

    /// <summary>
    /// Encodes the text of a header in words of ours where MimeKit leaves a word that is longer than a line, or has a line that is too
    /// long with the header's name.
    /// </summary>
    private static void Shorten(MimeMessage message, HeaderId id, string text, string after)
    {
        var header = message.Headers[message.Headers.IndexOf(id)];
        if (
            text.Split(' ').Max(word => word.Length) > LongestPlainWord
            || $"{header.Field}:{Encoding.ASCII.GetString(header.RawValue)}"
                .Split('\n')
                .Any(line => line.TrimEnd('\r').Length > LongestLine)
        )
        {
            header.SetRawValue(Encoding.ASCII.GetBytes($" {EncodedWords(text)}{after}\r\n"));
        }
    }

    /// <summary>
    /// A text in encoded words (RFC 2047), parted between characters. A line of a header can only be broken at a space, so a word that is
    /// longer than a line is not left as it is: it would come out with a space in its middle.
    /// </summary>
    private static string EncodedWords(string text)
    {
        var words = new List<string>();
        var part = new StringBuilder();
        foreach (var rune in text.EnumerateRunes())
        {
            if (Encoding.UTF8.GetByteCount(part.ToString()) + rune.Utf8SequenceLength > MostBytesInAWord)
            {
                words.Add(part.ToString());
                part.Clear();
            }

            part.Append(rune.ToString());
        }

        words.Add(part.ToString());
        return string.Join("\r\n ", words.Select(word => $"=?utf-8?b?{Convert.ToBase64String(Encoding.UTF8.GetBytes(word))}?="));
    }

    /// <summary>
    /// Folds the headers that carry the name of a file anew: as they are made, their lines may be longer than asked for.
    /// </summary>
    private static void Fold(MimeEntity part)
    {
        Set(HeaderId.ContentType, part.ContentType.ToString(Format, Encoding.UTF8, encode: true));
        Set(HeaderId.ContentDisposition, part.ContentDisposition!.ToString(Format, Encoding.UTF8, encode: true));

        void Set(HeaderId id, string folded) =>
            part.Headers[part.Headers.IndexOf(id)]
                .SetRawValue(Encoding.ASCII.GetBytes(folded[(folded.IndexOf(':') + 1)..].TrimEnd() + "\r\n"));
    }

    /// <summary>Controls and line ends become spaces, so that no value can begin a header of its own.</summary>
    private static string OneLine(string text) =>
        string.Concat(text.Select(c => char.IsControl(c) || c is '\u2028' or '\u2029' ? ' ' : c));

    private static FormatOptions MakeFormat()
    {
        var format = FormatOptions.Default.Clone();
        format.NewLineFormat = NewLineFormat.Dos;

        // A parameter that is continued (RFC 2231) and in quotes comes out one or two characters longer than what is asked for.
        format.MaxLineLength = LongestLine - 2;
        format.EnsureNewLine = true;
        format.ParameterEncodingMethod = ParameterEncodingMethod.Rfc2231;
        return format;
    }
}
