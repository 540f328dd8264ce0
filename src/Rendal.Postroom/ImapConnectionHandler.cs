using Microsoft.Extensions.Logging;

namespace Rendal.Postroom;

/// <summary>Answers on the port where what came back is fetched.</summary>
public sealed class ImapConnectionHandler(
    Mailbox mailbox,
    PracticeAccounts accounts,
    Drills drills,
    PracticeCertificates certificates,
    ILogger<ImapConnectionHandler> log
) : MailConnectionHandler(drills, certificates, log)
{
    private protected override string TooLong => "* BYE the line is too long";

    private protected override Task TalkAsync(
        TalkLine line,
        bool secured,
        Func<CancellationToken, Task> secureAsync,
        CancellationToken cancel
    ) => new ImapSession(line, mailbox, accounts, secured, secureAsync).RunAsync(cancel);
}
