using Microsoft.Extensions.Logging;

namespace Rendal.Postroom;

/// <summary>Answers on the port where mail is handed in.</summary>
public sealed class SmtpConnectionHandler(
    Mailbox mailbox,
    PracticeAccounts accounts,
    Drills drills,
    PracticeCertificates certificates,
    TimeProvider clock,
    ILogger<SmtpConnectionHandler> log
) : MailConnectionHandler(drills, certificates, log)
{
    private protected override string TooLong => "500 the line is too long; goodbye";

    private protected override Task TalkAsync(
        TalkLine line,
        bool secured,
        Func<CancellationToken, Task> secureAsync,
        CancellationToken cancel
    ) => new SmtpSession(line, mailbox, accounts, Drills, secured, secureAsync, clock).RunAsync(cancel);
}
