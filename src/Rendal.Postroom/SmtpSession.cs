using System.Text;
using System.Text.RegularExpressions;

namespace Rendal.Postroom;

/// <summary>One conversation with a mail program (RFC 5321), with the drills that it meets.</summary>
/// <param name="line">The line.</param>
/// <param name="mailbox">Where messages are kept.</param>
/// <param name="accounts">Who may sign in.</param>
/// <param name="drills">The drills that go on.</param>
/// <param name="secured">Whether the line is secured already.</param>
/// <param name="secureAsync">Secures it.</param>
/// <param name="clock">Tells when a message came.</param>
internal sealed partial class SmtpSession(
    TalkLine line,
    Mailbox mailbox,
    PracticeAccounts accounts,
    Drills drills,
    bool secured,
    Func<CancellationToken, Task> secureAsync,
    TimeProvider clock
)
{
    private const int MostRecipients = 100;

    private readonly List<string> recipients = [];
    private bool greeted;
    private bool secured = secured;
    private bool dripping;
    private bool cutsAfterKeeping;
    private bool closing;
    private string account = "";
    private string? from;

    /// <summary>Talks until the other side says goodbye or closes.</summary>
    public async Task RunAsync(CancellationToken cancel)
    {
        if (!await GoesOnAsync(DrillStep.Greeting, [], cancel))
        {
            return;
        }

        await SayAsync("220 postroom.rendal.example ready for practice", cancel);
        while (!closing && await line.ReadCommandAsync(cancel) is { } command)
        {
            var verb = command.Split(' ')[0].ToUpperInvariant();
            var rest = command.Length > verb.Length ? command[(verb.Length + 1)..].Trim() : "";
            if (verb == "QUIT")
            {
                await line.WriteAsync("221 goodbye", cancel);
                return;
            }

            if (verb == "DATA")
            {
                if (!await DataAsync(cancel))
                {
                    return;
                }
            }
            else if (verb == "STARTTLS")
            {
                await StartTlsAsync(cancel);
            }
            else if (verb == "AUTH")
            {
                await AuthAsync(rest, cancel);
            }
            else if (
                StepOf(verb) is not { } step
                || await GoesOnAsync(step, step == DrillStep.Recipient && Path(rest, "TO") is { } to ? [to] : [], cancel)
            )
            {
                await SayAsync(Answer(verb, rest), cancel);
            }
        }
    }

    private static DrillStep? StepOf(string verb) =>
        verb switch
        {
            "HELO" or "EHLO" => DrillStep.Hello,
            "MAIL" => DrillStep.Sender,
            "RCPT" => DrillStep.Recipient,
            _ => null,
        };

    /// <summary>Does the drill of a step, if there is one. False where that was the answer, and the step is not done.</summary>
    /// <exception cref="LineCut">The drill is to cut the line.</exception>
    private async Task<bool> GoesOnAsync(DrillStep step, IReadOnlyList<string> about, CancellationToken cancel)
    {
        var drill = drills.Meet(step, account, about);
        (dripping, cutsAfterKeeping) = (drill?.Act == DrillAct.Drip, drill?.Act == DrillAct.KeepAndCut);
        switch (drill?.Act)
        {
            case DrillAct.Cut when step == DrillStep.Data:
                await line.WriteAsync("354 go on, a single dot ends it", cancel);
                await line.ReadSomeAsync(cancel);
                throw new LineCut();
            case DrillAct.Cut:
                throw new LineCut();
            case DrillAct.Answer:
                await line.WriteAsync(drill.Answer, cancel);

                // RFC 5321, section 3.8: after 421 the server closes the line.
                closing = drill.Answer.StartsWith("421", StringComparison.Ordinal);
                return false;
            default:
                return true;
        }
    }

    private async Task SayAsync(string answer, CancellationToken cancel)
    {
        await (dripping ? line.DripAsync(answer, drills.DripEvery, cancel) : line.WriteAsync(answer, cancel));
        dripping = false;
    }

    private string Answer(string verb, string rest)
    {
        switch (verb)
        {
            case "HELO" when rest.Length > 0:
                Greet();
                return "250 postroom.rendal.example";
            case "EHLO" when rest.Length > 0:
                Greet();
                return string.Join("\r\n", Extensions());
            case "HELO" or "EHLO":
                return "501 say who you are";
            case "NOOP":
                return "250 still here";
            case "RSET":
                Reset();
                return "250 forgotten";
            case "VRFY":
                return "252 send it and see";
            case "MAIL":
                return Mail(rest);
            case "RCPT":
                return Recipient(rest);
            default:
                return "500 that is not a command of this server";
        }
    }

    private IEnumerable<string> Extensions()
    {
        yield return "250-postroom.rendal.example";
        yield return $"250-SIZE {drills.LimitsOf(account).LargestMessage}";
        yield return "250-8BITMIME";
        yield return "250-SMTPUTF8";
        yield return "250-PIPELINING";
        if (!secured)
        {
            yield return "250-STARTTLS";
        }

        yield return "250 AUTH PLAIN LOGIN";
    }

    private string Mail(string rest)
    {
        if (!greeted || from is not null)
        {
            return "503 not now";
        }

        if (Path(rest, "FROM") is not { } path)
        {
            return "501 MAIL FROM:<address> is wanted";
        }

        var largest = drills.LimitsOf(account).LargestMessage;
        if (Size().Match(rest) is { Success: true } size && (!long.TryParse(size.Groups[1].Value, out var bytes) || bytes > largest))
        {
            return TooLarge(largest);
        }

        if (!drills.MayCome(account))
        {
            return $"451 4.7.1 more than {drills.LimitsOf(account).MessagesAMinute} messages a minute; come back later";
        }

        from = path;
        return "250 2.1.0 sender noted";
    }

    private string Recipient(string rest)
    {
        if (from is null)
        {
            return "503 say MAIL first";
        }

        if (Path(rest, "TO") is not { Length: > 0 } path || !path.Contains('@', StringComparison.Ordinal))
        {
            return "501 RCPT TO:<address> is wanted";
        }

        if (recipients.Count >= MostRecipients)
        {
            return $"452 4.5.3 more than {MostRecipients} recipients";
        }

        recipients.Add(path);
        return "250 2.1.5 recipient noted";
    }

    private async Task<bool> DataAsync(CancellationToken cancel)
    {
        if (recipients.Count == 0)
        {
            await line.WriteAsync("503 say RCPT first", cancel);
            return true;
        }

        if (!await GoesOnAsync(DrillStep.Data, recipients, cancel))
        {
            Reset();
            return true;
        }

        var largest = drills.LimitsOf(account).LargestMessage;
        await SayAsync("354 go on, a single dot ends it", cancel);
        if (await line.ReadDataAsync(largest, cancel) is not { } data)
        {
            return false;
        }

        if (await GoesOnAsync(DrillStep.End, recipients, cancel))
        {
            await SayAsync(data.Length > largest ? TooLarge(largest) : $"250 2.0.0 kept as number {Keep(data)}", cancel);
        }

        Reset();
        return true;
    }

    private static string TooLarge(int largest) => $"552 5.3.4 the message is larger than {largest} bytes";

    private long Keep(MemoryStream data)
    {
        var message = mailbox.Add(account, from!, [.. recipients], data.ToArray(), clock.GetUtcNow());
        foreach (var unknown in recipients.Where(DrillAddress.WantsReport))
        {
            var now = clock.GetUtcNow();
            mailbox.Add(
                account,
                "",
                [from!],
                DeliveryReport.Of(data.ToArray(), from!, unknown, "5.1.1", "550 5.1.1 the address asked for this report", now),
                now
            );
        }

        return cutsAfterKeeping ? throw new LineCut() : message.Id;
    }

    private async Task StartTlsAsync(CancellationToken cancel)
    {
        if (secured)
        {
            await line.WriteAsync("503 the line is secured", cancel);
            return;
        }

        if (!await GoesOnAsync(DrillStep.Security, [], cancel))
        {
            return;
        }

        await SayAsync("220 go on", cancel);
        await secureAsync(cancel);
        (secured, greeted) = (true, false);
        Reset();
    }

    private async Task AuthAsync(string rest, CancellationToken cancel)
    {
        var words = rest.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        string? name = null;
        string? password = null;
        switch (words.FirstOrDefault("").ToUpperInvariant())
        {
            case "PLAIN":
                var parts = Decoded(words.Length > 1 ? words[1] : await AskAsync("", cancel))?.Split('\0');
                (name, password) = parts is [_, var n, var p] ? (n, p) : (null, null);
                break;
            case "LOGIN":
                name = Decoded(words.Length > 1 ? words[1] : await AskAsync("VXNlcm5hbWU6", cancel));
                password = Decoded(await AskAsync("UGFzc3dvcmQ6", cancel));
                break;
            default:
                await line.WriteAsync("504 5.5.4 PLAIN or LOGIN is wanted", cancel);
                return;
        }

        if (name is null || password is null || !accounts.Has(name, password))
        {
            await line.WriteAsync("535 5.7.8 the name or the password is wrong", cancel);
            return;
        }

        account = name;
        if (await GoesOnAsync(DrillStep.SignIn, [], cancel))
        {
            await SayAsync("235 2.7.0 signed in", cancel);
        }
        else
        {
            account = "";
        }
    }

    private async Task<string?> AskAsync(string question, CancellationToken cancel)
    {
        await line.WriteAsync($"334 {question}", cancel);
        return await line.ReadCommandAsync(cancel);
    }

    private void Greet()
    {
        greeted = true;
        Reset();
    }

    private void Reset()
    {
        from = null;
        recipients.Clear();
    }

    private static string? Decoded(string? base64)
    {
        var bytes = new byte[base64?.Length ?? 0];
        return base64 is not null && Convert.TryFromBase64String(base64, bytes, out var count)
            ? Encoding.UTF8.GetString(bytes, 0, count)
            : null;
    }

    private static string? Path(string rest, string word)
    {
        var match = PathPattern().Match(rest);
        return match.Success && match.Groups[1].Value.Equals(word, StringComparison.OrdinalIgnoreCase) ? match.Groups[2].Value : null;
    }

    [GeneratedRegex(@"^(FROM|TO):\s*<([^<>\s]*)>", RegexOptions.IgnoreCase)]
    private static partial Regex PathPattern();

    [GeneratedRegex(@"\sSIZE=(\d+)", RegexOptions.IgnoreCase)]
    private static partial Regex Size();
}
