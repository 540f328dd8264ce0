using System.Text.RegularExpressions;
using MimeKit;
using Rendal.Core.Budgets;
using Rendal.Core.Wordings;

namespace Rendal.Mail;

/// <summary>
/// Reads messages that came back: delivery reports (RFC 3464), reports of servers that write them in their own way, as far
/// as the original Message-ID or the recipient is in them, and automatic replies (RFC 3834).
/// </summary>
public static partial class ReturnedMail
{
    private const int LongestReason = 500;

    // What a report says of itself is a page; the message that it carries is not looked at for that.
    private const int LongestText = 200_000;

    /// <summary>The messages of a file: one of <c>.eml</c>, or all of an mbox (RFC 4155), which begins with <c>From </c>.</summary>
    /// <exception cref="FormatException">It is no message.</exception>
    public static IEnumerable<(MimeMessage Message, byte[] Bytes)> Open(Stream file)
    {
        var start = new byte[5];
        var read = file.ReadAtLeast(start, start.Length, throwOnEndOfStream: false);
        file.Position = 0;
        var parser = BoundedMail.Parser(file, read == start.Length && start.AsSpan().SequenceEqual("From "u8) ? MimeFormat.Mbox : MimeFormat.Entity);
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

    /// <summary>What a message tells.</summary>
    public static ReturnedMessage Read(MimeMessage message)
    {
        var text = Text(message);
        var ids = MessageIds(message, text);
        ReturnedMessage Of(ReturnKind kind, IEnumerable<string> recipients, string status, string reason) => new(
            kind, ids, [.. recipients.Distinct(StringComparer.OrdinalIgnoreCase)], status, OneLine(reason), message.Date, OneLine(message.Subject ?? ""));

        if (message.BodyParts.OfType<MessageDeliveryStatus>().FirstOrDefault() is { } report)
        {
            var groups = report.StatusGroups.Skip(1).Select(g => (Action: (g["Action"] ?? "").Trim().ToUpperInvariant(), Recipient: Address(g["Final-Recipient"] ?? g["Original-Recipient"]), Status: (g["Status"] ?? "").Trim(), Words: AfterType(g["Diagnostic-Code"]))).ToList();
            foreach (var (action, kind) in new[] { ("FAILED", ReturnKind.Failed), ("DELAYED", ReturnKind.Delayed) })
            {
                var those = groups.FindAll(g => g.Action == action);
                if (those.Count > 0)
                {
                    return Of(kind, those.Select(g => g.Recipient).OfType<string>(), StatusPattern().Match(those[0].Status).Value, those.Select(g => g.Words).FirstOrDefault(w => w.Length > 0) ?? $"status {those[0].Status}");
                }
            }

            return Of(ReturnKind.Other, groups.Select(g => g.Recipient).OfType<string>(), "", message.Subject ?? "");
        }

        if (IsAutomaticReply(message))
        {
            return Of(ReturnKind.AutomaticReply, message.From.Mailboxes.Select(m => m.Address), "", text);
        }

        var failedRecipients = message.Headers["X-Failed-Recipients"] is { } header ? Addresses().Matches(header).Select(m => m.Value) : [];
        if (!failedRecipients.Any() && !IsFromAServer(message))
        {
            return Of(ReturnKind.Other, [], "", message.Subject ?? "");
        }

        var status = StatusPattern().Match(text).Value;
        var lines = text.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        var words = lines.FirstOrDefault(l => AnswerPattern().IsMatch(l)) ?? lines.FirstOrDefault(l => Addresses().IsMatch(l)) ?? message.Subject ?? "";
        var isDelay = status.StartsWith('4') || DelayWords().IsMatch(message.Subject ?? "");
        return Of(isDelay ? ReturnKind.Delayed : ReturnKind.Failed, failedRecipients.Concat(Addresses().Matches(text).Select(m => m.Value)), status, words);
    }

    /// <summary>What is written in it, the message that it may carry left out.</summary>
    private static string Text(MimeMessage message) =>
        Cut(message.TextBody ?? (message.HtmlBody is { } html && IsWithin(html) ? PlainText.Of(html) : string.Join('\n', message.BodyParts.OfType<TextPart>().Select(p => p.Text))));

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

    /// <summary>Those of the message that it carries, of what it answers, and all others that stand in it.</summary>
    private static List<string> MessageIds(MimeMessage message, string text)
    {
        var ids = new List<string>();
        foreach (var part in message.BodyParts)
        {
            if (part is MessagePart { Message: { } carried } && carried.MessageId is { } id)
            {
                ids.Add(id);
            }
            else if (part is TextPart { ContentType: { MediaType: "text", MediaSubtype: "rfc822-headers" } } headers)
            {
                ids.AddRange(CarriedId().Matches(Cut(headers.Text)).Select(m => m.Groups[1].Value));
            }
        }

        if (message.InReplyTo is { } answered)
        {
            ids.Add(answered);
        }

        ids.AddRange(message.References);
        foreach (var part in message.BodyParts.OfType<TextPart>().Select(p => Cut(p.Text)).Append(text))
        {
            ids.AddRange(CarriedId().Matches(part).Select(m => m.Groups[1].Value));
            ids.AddRange(AnyId().Matches(part).Select(m => m.Groups[1].Value));
        }

        return [.. ids.Distinct(StringComparer.Ordinal)];
    }

    private static bool IsAutomaticReply(MimeMessage message) =>
        (message.Headers["Auto-Submitted"] is { } auto && auto.Trim().StartsWith("auto-replied", StringComparison.OrdinalIgnoreCase))
        || message.Headers.Contains("X-Autoreply") || message.Headers.Contains("X-Autorespond")
        || (message.InReplyTo is not null && AwayWords().IsMatch(message.Subject ?? ""));

    private static bool IsFromAServer(MimeMessage message) =>
        message.From.Mailboxes.Any(m => ServerNames().IsMatch(m.Address)) || (message.Headers["Return-Path"] is { } path && path.Trim() == "<>") || FailureWords().IsMatch(message.Subject ?? "");

    /// <summary>The address in <c>rfc822; kell@inn.example</c>.</summary>
    private static string? Address(string? field) => Addresses().Match(AfterType(field)) is { Success: true } found ? found.Value : null;

    private static string AfterType(string? field) => field is null ? "" : field[(field.IndexOf(';') + 1)..].Trim();

    private static string OneLine(string text)
    {
        var line = WhiteSpace().Replace(text, " ").Trim();
        return line.Length > LongestReason ? line[..LongestReason] + "…" : line;
    }

    [GeneratedRegex(@"\b[245]\.\d{1,3}\.\d{1,3}\b")]
    private static partial Regex StatusPattern();

    [GeneratedRegex(@"\b[45]\d\d[ -](?:[45]\.\d{1,3}\.\d{1,3}\b)?")]
    private static partial Regex AnswerPattern();

    [GeneratedRegex(@"[A-Za-z0-9.!#$%&'*+/=?^_`{|}~-]+@[A-Za-z0-9-]+(?:\.[A-Za-z0-9-]+)+", RegexOptions.NonBacktracking)]
    private static partial Regex Addresses();

    [GeneratedRegex(@"^\s*Message-ID:\s*<([^<>\s]+)>", RegexOptions.IgnoreCase | RegexOptions.Multiline)]
    private static partial Regex CarriedId();

    [GeneratedRegex(@"<([^<>\s@]+@[^<>\s@]+)>", RegexOptions.NonBacktracking)]
    private static partial Regex AnyId();

    [GeneratedRegex("^(?:mailer-daemon|postmaster|mail-daemon)@", RegexOptions.IgnoreCase)]
    private static partial Regex ServerNames();

    [GeneratedRegex("undeliver|not be delivered|delivery (?:status|fail)|failure notice|returned mail|returned to sender|unzustellbar|non remis|no entregado", RegexOptions.IgnoreCase)]
    private static partial Regex FailureWords();

    [GeneratedRegex("delay|warning|still trying|verzögert|retard", RegexOptions.IgnoreCase)]
    private static partial Regex DelayWords();

    [GeneratedRegex("out of (?:the )?office|automatic reply|auto(?:matic)?[- ]?response|abwesen|automatische antwort|absence|réponse automatique|fuera de la oficina|respuesta automática", RegexOptions.IgnoreCase)]
    private static partial Regex AwayWords();

    [GeneratedRegex(@"\s+")]
    private static partial Regex WhiteSpace();
}
