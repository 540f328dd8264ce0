using Rendal.App.Books;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Mail;
using Rendal.Store.Senders;

namespace Rendal.App.Senders;

/// <summary>Stores a sender, or tries it without storing it.</summary>
public sealed class StoreSender(BookStores stores, SenderSecrets secrets, TimeProvider clock)
{
    /// <summary>How long a person waits for a mail server: it may be any, and may drip for ever.</summary>
    public static readonly TimeSpan LongestTalk = TimeSpan.FromSeconds(8);

    private const int LongestName = 60;
    private const int MostPauses = 20;

    /// <summary>Adds a sender to the book, its password encrypted.</summary>
    /// <returns>Its number.</returns>
    /// <exception cref="ProblemException">It says what cannot be.</exception>
    public Task<long> AddAsync(SenderSettings settings, CancellationToken cancel) =>
        stores.Senders.AddAsync(Checked(null, settings), stores.Person, cancel);

    /// <summary>Changes a sender by its number. An empty password stands for the one that was given for the same server.</summary>
    /// <exception cref="ProblemException">It is not there, says what cannot be, or would be taken from the others who have the
    /// book.</exception>
    public async Task ChangeAsync(long id, SenderSettings settings, CancellationToken cancel)
    {
        var before = await UsableSender.FindAsync(id, stores, cancel);
        var sender = Checked(before, settings);
        if (before.Person is null && sender.Person is not null)
        {
            throw ProblemException.Invalid(
                "This sender belongs to the book, and everybody who has it sends by it. Add another one to have one of your own."
            );
        }

        await stores.Senders.UpdateAsync(sender, stores.Person, stores.Book.Today(clock), cancel);
    }

    /// <summary>Attempts an account as it is filled in, without keeping it; nothing is sent.</summary>
    /// <param name="id">The sender that it would replace; 0 for a new one.</param>
    /// <param name="settings">The sender.</param>
    /// <param name="network">The network.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">It says what cannot be, or its password cannot be read.</exception>
    public async Task<TrialResult> TryAsync(long id, SenderSettings settings, MailNetwork network, CancellationToken cancel)
    {
        var before = id == 0 ? null : await UsableSender.FindAsync(id, stores, cancel);
        var sender = Checked(before, settings);
        var account = secrets.AccountOf(
            stores.Book.Id,
            stores.Book.TimeZone,
            string.IsNullOrEmpty(settings.Password) ? sender with { ProtectedPassword = before?.ProtectedPassword } : sender
        ) ?? throw ProblemException.Invalid(SenderSecrets.CannotBeRead);
        return await AccountTrial.TryAsync(account, sender.Address, LongestTalk, network, cancel);
    }

    private Sender Checked(Sender? before, SenderSettings settings)
    {
        if (AddressList.Read(settings.Address) is not { Good: [var address], Bad: [] })
        {
            throw ProblemException.Invalid($"“{settings.Address}” is not one e-mail address.");
        }

        var replyTo = AddressList.Read(settings.ReplyTo) switch
        {
            { Good: [], Bad: [] } => "",
            { Good: [var one], Bad: [] } => one,
            _ => throw ProblemException.Invalid($"“{settings.ReplyTo}” is not one e-mail address for answers."),
        };
        if (string.IsNullOrWhiteSpace(settings.Name) || settings.Name.Any(char.IsControl) || settings.Name.Length > LongestName)
        {
            throw ProblemException.Invalid($"Give the name that recipients see, on one line and no longer than {LongestName} characters.");
        }

        MailServerCheck.DemandServer(settings.Host, settings.Port, settings.Security, "STARTTLS (port 587) or TLS (port 465)");
        MailServerCheck.DemandPassword(
            before is null ? null : (before.Host, before.Port, before.Security),
            before?.ProtectedPassword,
            settings.Host,
            settings.Port,
            settings.Security,
            settings.Password
        );
        MailServerCheck.DemandPracticeUser(secrets, stores.Book.Id, settings.Host, settings.Port, settings.UserName);
        if (settings.AMinute is < 1 or > 100_000 || settings.ADay is < 1 or > 10_000_000)
        {
            throw ProblemException.Invalid("An allowance is at least one message; leave it empty for as many as go.");
        }

        if (settings.PauseMinutes is { } pauses && (pauses.Count > MostPauses || pauses.Any(p => p is < 1 or > 10_080)))
        {
            throw ProblemException.Invalid(
                $"The pauses between tries are up to {MostPauses}, of a minute to a week each; with none, what the server puts "
                    + "off is refused at once."
            );
        }

        if (settings.LargestBytes is < 10_000 or > 1_000_000_000)
        {
            throw ProblemException.Invalid(
                "The largest message is at least 10 kB and at most 1 GB; leave it empty where it is not known."
            );
        }

        return new Sender(
            before?.Id ?? 0,
            settings.Name.Trim(),
            address,
            settings.Host.Trim(),
            settings.Port,
            settings.Security,
            settings.UserName.Trim(),
            string.IsNullOrEmpty(settings.Password)
                ? null
                : secrets.Protect(settings.Password, settings.Host.Trim(), settings.Port, settings.Security)
        )
        {
            Person = settings.IsMine ? stores.Person : null,
            ReplyTo = replyTo,
            Signature = settings.Signature.ReplaceLineEndings("\n").Trim(),
            CopyToSelf = settings.CopyToSelf,
            AMinute = settings.AMinute,
            ADay = settings.ADay,
            LargestBytes = settings.LargestBytes,
            Pauses = settings.PauseMinutes?.Select(p => TimeSpan.FromMinutes(p)).ToList() ?? NextStep.DefaultPauses,
        };
    }
}
