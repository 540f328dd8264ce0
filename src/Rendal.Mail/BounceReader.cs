using System.Text.RegularExpressions;
using MimeKit;
using Rendal.Core.Budgets;
using Rendal.Core.Dispatch;
using Rendal.Html;

namespace Rendal.Mail;

/// <summary>
/// Reads messages that came back: delivery reports (RFC 3464), refusals as dispositions (RFC 8098, RFC 5429), what servers write
/// in a form of their own, and automatic replies (RFC 3834). What a message is follows from its form alone: anybody may write
/// any words, and be called postmaster.
/// </summary>
public static partial class BounceReader
{
    private const int LongestReason = 500;

    // What a report says of itself is a page; the message that it carries is not looked at for that.
    private const int LongestText = 200_000;

    // A message of ours has fewer recipients by far.
    private const int MostNamed = 200;

    /// <summary>The messages of a file: one of <c>.eml</c>, or all of an mbox (RFC 4155), which begins with <c>From </c>.</summary>
    /// <exception cref="FormatException">It is no message.</exception>
    public static IEnumerable<(MimeMessage Message, byte[] Bytes)> Open(Stream file)
    {
        var start = new byte[5];
        var read = file.ReadAtLeast(start, start.Length, throwOnEndOfStream: false);
        file.Position = 0;
        var parser = BoundedMail.Parser(
            file,
            read == start.Length && start.AsSpan().SequenceEqual("From "u8) ? MimeFormat.Mbox : MimeFormat.Entity
        );
        if (parser.IsEndOfStream)
        {
            throw new FormatException("It is empty.");
        }

        while (!parser.IsEndOfStream)
        {
            var message = parser.ParseMessage();
            if (message.Headers.Count == 0 || (message.MessageId is null && message.From.Count == 0 && message.Subject is null))
            {
                throw new FormatException("It has none of the headers that a message has.");
            }

            using var bytes = new MemoryStream();
            message.WriteTo(bytes);
            yield return (message, bytes.ToArray());
        }
    }

    /// <summary>
    /// What a message tells of the messages it is about: by its delivery report (RFC 3464) where it has one, else by its words.
    /// </summary>
    public static ReturnedMessage Read(MimeMessage message)
    {
        var text = Text(message);
        var ids = CarriedIds(message);
        var told =
            (ReportOf(message, text) ?? RefusalOf(message, text) ?? NoticeOf(message, text, ids)) is { } recipients
                ? Of(
                    recipients.Exists(r => r.Kind == ReturnKind.Failed) ? ReturnKind.Failed
                        : recipients.Exists(r => r.Kind == ReturnKind.Delayed) ? ReturnKind.Delayed
                        : ReturnKind.Other,
                    recipients
                )
            : IsAutomatic(message, ids) ? Of(ReturnKind.AutomaticReply, Senders(message))
            : IsFromAServer(message, text)
                ? Of(
                    ReturnKind.Unclear,
                    [.. Addresses().Matches(ServersWords(text)).Select(m => new ReturnedRecipient(m.Value, ReturnKind.Unclear, "", ""))]
                )
            : Of(ReturnKind.Other, Senders(message));
        return told.Kind == ReturnKind.Unclear
            ? told with
            {
                MessageIds =
                [
                    .. told
                        .MessageIds.Concat(AnyId().Matches(text).Select(m => ForeignWords.Printable(m.Groups[1].Value)))
                        .Distinct(StringComparer.Ordinal),
                ],
            }
            : told;

        ReturnedMessage Of(ReturnKind kind, List<ReturnedRecipient> recipients) =>
            new(
                kind,
                [.. ids.Concat(Answered(message)).Select(ForeignWords.Printable).Distinct(StringComparer.Ordinal)],
                [
                    .. recipients
                        .Select(r => r with { Address = ForeignWords.Printable(r.Address) })
                        .DistinctBy(r => r.Address, StringComparer.OrdinalIgnoreCase),
                ],
                OneLine(kind == ReturnKind.Other ? message.Subject ?? "" : text),
                message.Date,
                OneLine(message.Subject ?? "")
            );
    }

    /// <summary>
    /// What a delivery report says (RFC 3464); null where it is none. One that a person has passed on is none: it came with other things,
    /// from somebody.
    /// </summary>
    private static List<ReturnedRecipient>? ReportOf(MimeMessage message, string text)
    {
        if (
            (message.Body is not MultipartReport && !HasNullSender(message))
            || message.BodyParts.OfType<MessageDeliveryStatus>().FirstOrDefault() is not { } report
        )
        {
            return null;
        }

        var recipients = new List<ReturnedRecipient>();
        foreach (var group in report.StatusGroups.Skip(1).Take(MostNamed))
        {
            var kind = (group["Action"] ?? "").Trim().ToUpperInvariant() switch
            {
                "FAILED" => ReturnKind.Failed,
                "DELAYED" => ReturnKind.Delayed,
                _ => ReturnKind.Other,
            };
            var status = RecipientAnswer.StatusIn(group["Status"] ?? "");
            var diagnostic = OneLine(AfterType(group["Diagnostic-Code"]));
            List<string> named = [.. new[] { group["Final-Recipient"], group["Original-Recipient"] }.Select(Address).OfType<string>()];
            var words = diagnostic.Length > 0 ? diagnostic : named.Select(a => Beside(a, text)).FirstOrDefault(w => w.Length > 0);
            recipients.AddRange(
                named.Select(a => new ReturnedRecipient(a, kind, status, string.IsNullOrEmpty(words) ? $"status {status}" : words))
            );
        }

        return recipients;
    }

    /// <summary>
    /// What a recipient's filter says that refused a message after it had been taken (RFC 5429, 2.1.2); null where it is none.
    /// </summary>
    private static List<ReturnedRecipient>? RefusalOf(MimeMessage message, string text)
    {
        if (
            message.Body is not MultipartReport
            || message.BodyParts.OfType<MessageDispositionNotification>().FirstOrDefault() is not { } notification
        )
        {
            return null;
        }

        // A person who deletes a message unread does so by hand; a program that deletes one tells why, or it is no refusal.
        var fields = notification.Fields;
        var isRefusal =
            Refusal().IsMatch(fields["Disposition"] ?? "")
            && (RefusalWords().IsMatch(text) || RefusalWords().IsMatch(message.Subject ?? "") || fields["Failure"] is not null);
        return
        [
            .. new[] { fields["Final-Recipient"], fields["Original-Recipient"] }
                .Select(Address)
                .OfType<string>()
                .Select(a => new ReturnedRecipient(
                    a,
                    isRefusal ? ReturnKind.Failed : ReturnKind.Other,
                    "",
                    OneLine(
                        AfterType(fields["Failure"]) is { Length: > 0 } failure ? failure
                        : Beside(a, text) is { Length: > 0 } words ? words
                        : text
                    )
                )),
        ];
    }

    /// <summary>
    /// What a server says in a form of its own; null where it says nothing that can be relied upon. It names the recipients in a
    /// header, or it has a null sender, carries the message, and has the recipient beside the code of an answer.
    /// </summary>
    private static List<ReturnedRecipient>? NoticeOf(MimeMessage message, string text, IReadOnlyList<string> carried)
    {
        var words = ServersWords(text);
        List<string> failed = message.Headers["X-Failed-Recipients"] is { } header
            ? [.. Addresses().Matches(header).Take(MostNamed).Select(m => m.Value)]
            : [];
        if (failed.Count > 0)
        {
            // A server may name whom it forwarded to: “(generated from kell@inn.example)”.
            failed.AddRange(GeneratedFrom().Matches(words).Take(MostNamed).Select(m => m.Groups[1].Value));
            return
            [
                .. failed.Select(a =>
                    Told(a, Beside(a, words) is { Length: > 0 } beside ? beside : Beside(failed[0], words), ReturnKind.Failed)!
                ),
            ];
        }

        if (!HasNullSender(message) || carried.Count == 0 || (SaysItIsAutomatic(message) && !HasServersName(message)))
        {
            return null;
        }

        var told = Addresses()
            .Matches(words)
            .Select(m => m.Value)
            .Distinct(StringComparer.OrdinalIgnoreCase)
            .Take(MostNamed)
            .Select(a => Told(a, Beside(a, words), null))
            .OfType<ReturnedRecipient>()
            .ToList();
        return told.Count > 0 ? told : null;
    }

    /// <summary>What the words beside a recipient say of it; null where they have no code and nothing else is known of it.</summary>
    private static ReturnedRecipient? Told(string address, string beside, ReturnKind? known)
    {
        var (status, answer) = (RecipientAnswer.StatusIn(beside), AnswerPattern().Match(beside));
        var code =
            status.Length > 0 ? status[0]
            : answer.Success ? answer.Value[0]
            : ' ';
        ReturnKind? kind = known
            ?? (
                code switch
                {
                    '5' => ReturnKind.Failed,
                    '4' => ReturnKind.Delayed,
                    _ => null,
                }
            );
        return kind is { } sure ? new ReturnedRecipient(address, sure, status, beside) : null;
    }

    /// <summary>
    /// The words that stand beside an address: what follows it on its line and the lines up to the next blank one,
    /// or up to where the next address has a line of its own. Empty where it does not stand in the text.
    /// </summary>
    private static string Beside(string address, string text)
    {
        var lines = ServersWords(text).ReplaceLineEndings("\n").Split('\n');
        var at = Array.FindIndex(lines, l => l.Contains(address, StringComparison.OrdinalIgnoreCase));
        if (at < 0)
        {
            return "";
        }

        var after = lines[at]
            [(lines[at].IndexOf(address, StringComparison.OrdinalIgnoreCase) + address.Length)..]
            .TrimStart('>', ')', '"', ':', ' ', '\t');
        var words = new List<string> { after };
        for (var next = at + 1; next < lines.Length && lines[next].Trim().Length > 0 && !OwnLine().IsMatch(lines[next]); next++)
        {
            words.Add(lines[next]);
        }

        return OneLine(string.Join(' ', words.Where(w => !GeneratedFrom().IsMatch(w))));
    }

    /// <summary>What is written in it, the message that it may carry left out.</summary>
    private static string Text(MimeMessage message) =>
        Cut(
            message.TextBody
                ?? (
                    message.HtmlBody is { } html && IsWithin(html)
                        ? PlainText.Of(html)
                        : message.BodyParts.OfType<TextPart>().FirstOrDefault(p => p.IsPlain)?.Text ?? ""
                )
        );

    /// <summary>The words of a server before the copy of the message, where that stands in the same text.</summary>
    private static string ServersWords(string text) => CopyBegins().Match(text) is { Success: true } copy ? text[..copy.Index] : text;

    /// <summary>Whether a page that somebody wrote is one that can be walked.</summary>
    private static bool IsWithin(string html)
    {
        try
        {
            Markup.Check(html, new Budget("The message", Limits.Markup));
            return true;
        }
        catch (OverBudget)
        {
            // A report of that kind is none; what stands in it besides is looked at.
            return false;
        }
    }

    private static string Cut(string text) => text.Length <= LongestText ? text : text[..LongestText];

    /// <summary>
    /// The Message-IDs of the messages that it carries, whole, as headers, or at the end of its text, and of what a disposition names.
    /// </summary>
    private static List<string> CarriedIds(MimeMessage message)
    {
        var ids = new List<string>();
        foreach (var part in message.BodyParts)
        {
            if (part is MessagePart { Message.MessageId: { } id })
            {
                ids.Add(id);
            }
            else if (
                part is MessageDispositionNotification { Fields: { } fields }
                && AnyId().Match(fields["Original-Message-ID"] ?? "") is { Success: true } original
            )
            {
                ids.Add(original.Groups[1].Value);
            }
            else if (part is TextPart { ContentType: { MediaType: "text", MediaSubtype: "rfc822-headers" } } headers)
            {
                ids.AddRange(CarriedId().Matches(Cut(headers.Text)).Select(m => m.Groups[1].Value));
            }
            else if (part is TextPart words && HasNullSender(message))
            {
                ids.AddRange(CarriedId().Matches(Cut(words.Text)).Select(m => m.Groups[1].Value));
            }
        }

        return ids;
    }

    /// <summary>The Message-IDs of what it answers.</summary>
    private static IEnumerable<string> Answered(MimeMessage message) =>
        message.InReplyTo is { } answered ? [answered, .. message.References] : message.References;

    private static List<ReturnedRecipient> Senders(MimeMessage message) =>
        [.. message.From.Mailboxes.Select(m => new ReturnedRecipient(m.Address, ReturnKind.Other, "", ""))];

    /// <summary>
    /// Whether a program wrote it in a person's place: it says so (RFC 3834, 5), or it has a null sender or the precedence of mass
    /// mail and is about something that was sent. A server's own notice is none.
    /// </summary>
    private static bool IsAutomatic(MimeMessage message, IReadOnlyList<string> carried) =>
        !HasServersName(message)
        && (
            SaysItIsAutomatic(message)
            || ((IsMassMail(message) || HasNullSender(message)) && (carried.Count > 0 || Answered(message).Any()))
        );

    private static bool SaysItIsAutomatic(MimeMessage message) =>
        (
            message.Headers["Auto-Submitted"] is { } auto
            && auto.Trim() is { Length: > 0 } how
            && !how.StartsWith("no", StringComparison.OrdinalIgnoreCase)
        )
        || message.Headers.Contains("X-Autoreply")
        || message.Headers.Contains("X-Autorespond");

    private static bool IsMassMail(MimeMessage message) =>
        (message.Headers["Precedence"] ?? "").Trim().ToUpperInvariant() is "BULK" or "AUTO_REPLY" or "JUNK";

    /// <summary>
    /// Whether a server seems to have written it: it has a null sender, or a server's name, answers nothing and speaks of an address or a
    /// message.
    /// </summary>
    private static bool IsFromAServer(MimeMessage message, string text) =>
        HasNullSender(message) || (HasServersName(message) && !Answered(message).Any() && Addresses().IsMatch(text));

    private static bool HasNullSender(MimeMessage message) => message.Headers["Return-Path"] is { } path && path.Trim() is "<>" or "";

    private static bool HasServersName(MimeMessage message) => message.From.Mailboxes.Any(m => ServerNames().IsMatch(m.Address));

    /// <summary>The address in <c>rfc822; kell@inn.example</c>.</summary>
    private static string? Address(string? field) => Addresses().Match(AfterType(field)) is { Success: true } found ? found.Value : null;

    private static string AfterType(string? field) => field is null ? "" : field[(field.IndexOf(';') + 1)..].Trim();

    private static string OneLine(string text)
    {
        var line = ForeignWords.Printable(WhiteSpace().Replace(text, " ")).Trim();
        return line.Length > LongestReason
            ? line[..(char.IsHighSurrogate(line[LongestReason - 1]) ? LongestReason - 1 : LongestReason)] + "…"
            : line;
    }

    // The reply codes of RFC 5321 and RFC 4954, before words.
    [GeneratedRegex(@"(?<![\d.])(?:421|45[0-5]|50[0-4]|521|53[045]|55[0-6])(?=[ -][^\d\s])")]
    private static partial Regex AnswerPattern();

    [GeneratedRegex(@"[A-Za-z0-9.!#$%&'*+/=?^_`{|}~-]+@[A-Za-z0-9-]+(?:\.[A-Za-z0-9-]+)+", RegexOptions.NonBacktracking)]
    private static partial Regex Addresses();

    // An address that has a line of its own, with nothing before it but brackets.
    [GeneratedRegex(@"^\s{0,4}<?[A-Za-z0-9.!#$%&'*+/=?^_`{|}~-]+@[A-Za-z0-9.-]+>?(?::|\s*$)")]
    private static partial Regex OwnLine();

    [GeneratedRegex(@"\(generated from ([^\s()<>]+@[^\s()<>]+)\)", RegexOptions.IgnoreCase | RegexOptions.NonBacktracking)]
    private static partial Regex GeneratedFrom();

    // Where a server has both in one text, the copy begins with its headers.
    [GeneratedRegex(
        @"^[ \t>]*(?:Return-Path|Received|Message-ID|From|DKIM-Signature|MIME-Version):[ \t]",
        RegexOptions.IgnoreCase | RegexOptions.Multiline
    )]
    private static partial Regex CopyBegins();

    [GeneratedRegex(@"^[ \t>]*Message-ID:\s{0,4}<([^<>\s]+)>", RegexOptions.IgnoreCase | RegexOptions.Multiline)]
    private static partial Regex CarriedId();

    [GeneratedRegex(@"<([^<>\s@]+@[^<>\s@]+)>", RegexOptions.NonBacktracking)]
    private static partial Regex AnyId();

    [GeneratedRegex("^(?:mailer-daemon|postmaster|mail-daemon)@", RegexOptions.IgnoreCase)]
    private static partial Regex ServerNames();

    [GeneratedRegex(@"^\s*automatic-action\s*/.*;\s*deleted", RegexOptions.IgnoreCase)]
    private static partial Regex Refusal();

    [GeneratedRegex("reject|refus|abgelehnt|abgewiesen|rechaz", RegexOptions.IgnoreCase)]
    private static partial Regex RefusalWords();

    [GeneratedRegex(@"\s+")]
    private static partial Regex WhiteSpace();
}
