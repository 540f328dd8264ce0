using Npgsql;
using Rendal.App.Senders;
using Rendal.Core.Budgets;
using Rendal.Mail;
using Rendal.Store.Returned;

namespace Rendal.App.Returned;

/// <summary>What a look into a mailbox brought.</summary>
/// <param name="LookedAt">How many messages were new in it.</param>
/// <param name="Taken">Those that are about parcels.</param>
/// <param name="Trouble">What kept it from being looked through; empty where nothing did.</param>
/// <param name="Left">How many new messages were not reached in the time that the look had; they are fetched by the next one.</param>
public sealed record FetchedReplies(int LookedAt, IReadOnlyList<TakenReturn> Taken, string Trouble, int Left = 0);

/// <summary>Fetches what came back from the mailboxes of senders.</summary>
public sealed class ReplyFetching(
    ReplyMailboxStore mailboxes,
    NpgsqlDataSource source,
    SenderSecrets secrets,
    MailNetwork network,
    TimeProvider clock
)
{
    private const int DaysBefore = 30;

    private static readonly TimeSpan Silence = TimeSpan.FromSeconds(30);

    /// <summary>Looks through what is new in a mailbox and takes in what is about parcels.</summary>
    /// <param name="mailbox">The mailbox.</param>
    /// <param name="person">Who asks for it; null where it is done by itself.</param>
    /// <param name="longest">How long the look may take.</param>
    /// <param name="cancel">Stops it. What was taken in by then stays.</param>
    public async Task<FetchedReplies> FetchAsync(ReplyMailboxRecord mailbox, long? person, TimeSpan longest, CancellationToken cancel)
    {
        if (secrets.AccountOf(mailbox) is not { } account)
        {
            await mailboxes.FailedAsync(mailbox, SenderSecrets.CannotBeRead, cancel);
            return new FetchedReplies(0, [], SenderSecrets.CannotBeRead);
        }

        var taking = new ReturnedTaking(source, mailbox.Book, clock);
        var taken = new List<TakenReturn>();
        var seen = 0;
        try
        {
            var look = await ReplyMailbox.LookAsync(
                account,
                mailbox.Validity is { } validity ? new ReplyPlace(validity, mailbox.LastUid) : null,
                DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime).AddDays(-DaysBefore),
                Silence,
                longest,
                network,
                async bytes =>
                {
                    seen++;
                    if (await TakeAsync(taking, mailbox, bytes, person, cancel) is { Outcome: not "known" } view)
                    {
                        taken.Add(view);
                    }
                },
                cancel
            );
            await mailboxes.LookedAsync(mailbox, look.Place.Validity, look.Place.Last, taken.Count, look.Left, clock.GetUtcNow(), cancel);
            return new FetchedReplies(seen, taken, "", look.Left);
        }
        catch (MailboxUnreachable e)
        {
            await mailboxes.FailedAsync(mailbox, e.Message, cancel);
            return new FetchedReplies(seen, taken, e.Message);
        }
    }

    private static async Task<TakenReturn?> TakeAsync(
        ReturnedTaking taking,
        ReplyMailboxRecord mailbox,
        byte[] bytes,
        long? person,
        CancellationToken cancel
    )
    {
        try
        {
            return await taking.TakeIfAboutAParcelAsync(mailbox.UserName, BoundedMail.Load(bytes), bytes, person, cancel);
        }
        catch (Exception e) when (e is FormatException or OverBudget)
        {
            // What is no message by its form, or of no size that a report has, is no report either, and stays in the mailbox for a person.
            return null;
        }
    }
}
