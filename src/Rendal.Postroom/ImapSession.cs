using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Rendal.Postroom;

/// <summary>
/// One conversation with a program that fetches mail (IMAP4rev1, RFC 3501), as far as fetching needs it: one mailbox, INBOX, that is only
/// read, and messages called by their UIDs. What else is asked is answered BAD or NO.
/// </summary>
/// <param name="line">The line.</param>
/// <param name="mailbox">Where messages are kept.</param>
/// <param name="accounts">Who may sign in.</param>
/// <param name="secured">Whether the line is secured already.</param>
/// <param name="secureAsync">Secures it.</param>
internal sealed partial class ImapSession(
    TalkLine line,
    Mailbox mailbox,
    PracticeAccounts accounts,
    bool secured,
    Func<CancellationToken, Task> secureAsync
)
{
    private bool secured = secured;
    private string account = "";

    // The messages of the open mailbox, as they were when it was opened; null while none is open.
    private IReadOnlyList<ReceivedMessage>? open;

    /// <summary>Talks until the other side says goodbye or closes.</summary>
    public async Task RunAsync(CancellationToken cancel)
    {
        await line.WriteAsync("* OK postroom.rendal.example ready for practice", cancel);
        while (await line.ReadCommandAsync(cancel) is { } text)
        {
            if (CommandPattern().Match(text) is not { Success: true } command)
            {
                await line.WriteAsync("* BAD a tag and a command are wanted", cancel);
                continue;
            }

            var (tag, verb, rest) = (command.Groups[1].Value, command.Groups[2].Value.ToUpperInvariant(), command.Groups[3].Value);
            var answer = await AnswerAsync(verb, rest, cancel);
            await line.WriteAsync($"{tag} {answer}", cancel);
            if (verb == "LOGOUT")
            {
                return;
            }

            if (verb == "STARTTLS" && answer.StartsWith("OK", StringComparison.Ordinal))
            {
                await secureAsync(cancel);
                secured = true;
            }
        }
    }

    private async Task<string> AnswerAsync(string verb, string rest, CancellationToken cancel)
    {
        switch (verb)
        {
            case "CAPABILITY":
                await line.WriteAsync($"* CAPABILITY IMAP4rev1{(secured ? "" : " STARTTLS")}", cancel);
                return "OK that is all";
            case "NOOP":
                return "OK still here";
            case "LOGOUT":
                await line.WriteAsync("* BYE goodbye", cancel);
                return "OK goodbye";
            case "STARTTLS":
                return secured ? "BAD the line is secured" : "OK go on";
            case "LOGIN":
                return SignIn(rest);
        }

        if (account.Length == 0)
        {
            return "NO sign in first";
        }

        switch (verb)
        {
            case "LIST":
                await line.WriteAsync(
                    rest.EndsWith("\"\"", StringComparison.Ordinal)
                        ? "* LIST (\\Noselect) \"/\" \"\""
                        : "* LIST (\\HasNoChildren) \"/\" INBOX",
                    cancel
                );
                return "OK that is all";
            case "SELECT" or "EXAMINE":
                return await OpenAsync(rest, cancel);
            case "CLOSE" or "UNSELECT":
                open = null;
                return "OK closed";
            case "UID" when open is not null:
                return await ByUidAsync(rest, cancel);
            case "UID" or "FETCH" or "SEARCH":
                return open is null ? "NO open INBOX first" : "BAD messages are called by their UIDs here";
            case "STORE" or "COPY" or "EXPUNGE" or "APPEND" or "CREATE" or "DELETE" or "RENAME":
                return "NO what is here is only read";
            default:
                return "BAD that is not a command of this server";
        }
    }

    private string SignIn(string rest)
    {
        var words = WordPattern()
            .Matches(rest)
            .Select(m =>
                m.Groups[1].Success
                    ? m.Groups[1].Value.Replace("\\\"", "\"", StringComparison.Ordinal).Replace("\\\\", "\\", StringComparison.Ordinal)
                    : m.Value
            )
            .ToList();
        if (words is not [var name, var password] || !accounts.Has(name, password))
        {
            return words.Count == 2
                ? "NO [AUTHENTICATIONFAILED] the name or the password is wrong"
                : "BAD a name and a password are wanted";
        }

        account = name;
        return "OK signed in";
    }

    private async Task<string> OpenAsync(string name, CancellationToken cancel)
    {
        if (!name.Trim('"').Equals("INBOX", StringComparison.OrdinalIgnoreCase))
        {
            open = null;
            return "NO there is INBOX and nothing else";
        }

        open = mailbox.For(account);
        await line.WriteAsync(
            string.Create(
                CultureInfo.InvariantCulture,
                $"* FLAGS (\\Seen)\r\n* {open.Count} EXISTS\r\n* 0 RECENT\r\n* OK [UIDVALIDITY 1] numbers are never given "
                    + $"twice\r\n* OK [UIDNEXT {mailbox.Next}] the next number"
            ),
            cancel
        );
        return "OK [READ-ONLY] open to be read";
    }

    private async Task<string> ByUidAsync(string rest, CancellationToken cancel)
    {
        var verb = rest.Split(' ')[0].ToUpperInvariant();
        var asked = rest.Length > verb.Length ? rest[(verb.Length + 1)..] : "";
        return verb switch
        {
            "SEARCH" => await SearchAsync(asked, cancel),
            "FETCH" => await FetchAsync(asked, cancel),
            "STORE" or "COPY" or "MOVE" or "EXPUNGE" => "NO what is here is only read",
            _ => "BAD that is not a command of this server",
        };
    }

    private async Task<string> SearchAsync(string keys, CancellationToken cancel)
    {
        IEnumerable<ReceivedMessage> found = open!;
        var words = keys.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        for (var i = 0; i < words.Length; i++)
        {
            switch (words[i].ToUpperInvariant())
            {
                case "ALL":
                    break;
                case "UID" when i + 1 < words.Length && Uids(words[++i]) is { } isOne:
                    found = found.Where(m => isOne(m.Id));
                    break;
                case "SINCE"
                    when i + 1 < words.Length
                        && DateOnly.TryParseExact(
                            words[++i].Trim('"'),
                            "d-MMM-yyyy",
                            CultureInfo.InvariantCulture,
                            DateTimeStyles.None,
                            out var day
                        ):
                    found = found.Where(m => DateOnly.FromDateTime(m.ReceivedAt.UtcDateTime) >= day);
                    break;
                default:
                    return $"BAD {words[i]} is not searched by here";
            }
        }

        await line.WriteAsync(
            string.Join(' ', found.Select(m => m.Id.ToString(CultureInfo.InvariantCulture)).Prepend("* SEARCH")),
            cancel
        );
        return "OK that is all";
    }

    private async Task<string> FetchAsync(string asked, CancellationToken cancel)
    {
        var space = asked.IndexOf(' ', StringComparison.Ordinal);
        if (space < 0 || Uids(asked[..space]) is not { } isOne)
        {
            return "BAD numbers and what of them are wanted";
        }

        var items = asked[(space + 1)..].Trim('(', ')').ToUpperInvariant().Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (
            Array.Find(items, i => i is not ("UID" or "FLAGS" or "RFC822.SIZE" or "INTERNALDATE" or "BODY.PEEK[]" or "BODY[]")) is
            { } unknown
        )
        {
            return $"BAD {unknown} is not told here";
        }

        for (var i = 0; i < open!.Count; i++)
        {
            if (!isOne(open[i].Id) || mailbox.Find(account, open[i].Id) is not { } message)
            {
                continue;
            }

            var told = new StringBuilder(string.Create(CultureInfo.InvariantCulture, $"* {i + 1} FETCH (UID {message.Id}"));
            foreach (var item in items)
            {
                told.Append(
                    item switch
                    {
                        "FLAGS" => " FLAGS ()",
                        "RFC822.SIZE" => string.Create(CultureInfo.InvariantCulture, $" RFC822.SIZE {message.Size}"),
                        "INTERNALDATE" => string.Create(
                            CultureInfo.InvariantCulture,
                            $" INTERNALDATE \"{message.ReceivedAt.UtcDateTime:dd-MMM-yyyy HH:mm:ss} +0000\""
                        ),
                        _ => "",
                    }
                );
            }

            var isWhole = items.Any(item => item is "BODY.PEEK[]" or "BODY[]");
            await line.WriteAsync(
                Encoding.ASCII.GetBytes(
                    isWhole ? string.Create(CultureInfo.InvariantCulture, $"{told} BODY[] {{{message.Size}}}\r\n") : told.ToString()
                ),
                cancel
            );
            if (isWhole)
            {
                await line.WriteAsync(mailbox.Bytes(message), cancel);
            }

            await line.WriteAsync(")", cancel);
        }

        return "OK that is all";
    }

    /// <summary>
    /// Which numbers a set names: <c>3</c>, <c>2:4</c>, <c>7:*</c>, several with commas; <c>*</c> is the last there is (RFC 3501, section
    /// 9). Null where it is none.
    /// </summary>
    private Func<long, bool>? Uids(string set)
    {
        var last = open!.Count > 0 ? open[^1].Id : 0;
        var ranges = new List<(long From, long To)>();
        foreach (var part in set.Split(','))
        {
            var ends = part.Split(':')
                .Select(e =>
                    e == "*" ? last
                    : long.TryParse(e, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number
                    : (long?)null
                )
                .ToList();
            if (ends.Count is < 1 or > 2 || ends.Contains(null))
            {
                return null;
            }

            ranges.Add((ends.Min()!.Value, ends.Max()!.Value));
        }

        return id => ranges.Exists(r => r.From <= id && id <= r.To);
    }

    [GeneratedRegex(@"^(\S+) (\S+)(?: (.*))?$")]
    private static partial Regex CommandPattern();

    [GeneratedRegex(@"""((?:[^""\\]|\\.)*)""|[^\s""]+")]
    private static partial Regex WordPattern();
}
