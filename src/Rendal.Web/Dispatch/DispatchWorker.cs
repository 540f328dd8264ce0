using System.Security.Cryptography;
using Npgsql;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Files.Documents;
using Rendal.Files.Letters;
using Rendal.Files.Pdf;
using Rendal.Mail;
using Rendal.Store.Books;
using Rendal.Store.Dispatch;
using Rendal.Store.Ledger;
using Rendal.Store.Rounds;
using Rendal.Web.Hosting;
using Rendal.Web.Rounds;
using Rendal.Web.Senders;

namespace Rendal.Web.Dispatch;

/// <summary>Sends released parcels, a few at a time. Any number of these may run on any number of machines.</summary>
internal sealed partial class DispatchWorker(DispatchQueue queue, EndTeller ends, BookStore books, [FromKeyedServices(DispatchQueue.Source)] NpgsqlDataSource source, SenderSecrets secrets, HostParts parts, TimeProvider clock, ILogger<DispatchWorker> log) : BackgroundService
{
    private const int AtOnce = 2;
    private const int TellAfter = 50;
    private static readonly TimeSpan LookAgain = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan ServerAnswersWithin = TimeSpan.FromMinutes(2);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken) =>
        await Task.WhenAll(Enumerable.Range(0, AtOnce).Select(_ => WorkAsync(stoppingToken)));

    private async Task WorkAsync(CancellationToken stop)
    {
        while (!stop.IsCancellationRequested)
        {
            try
            {
                await using var worker = await queue.RegisterAsync(stop);
                await SendAsync(worker, stop);
            }
            catch (OperationCanceledException) when (stop.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e) when (e is NpgsqlException or IOException)
            {
                // The database is away. What this worker had claimed is seen to by whoever registers next.
                DatabaseAway(log, e.Message);
                await PauseAsync(stop);
            }
            catch (Exception e) when (!stop.IsCancellationRequested)
            {
                // A fault of ours must not end sending, let alone the whole program.
                Unexpected(log, e);
                await PauseAsync(stop);
            }
        }
    }

    private async Task SendAsync(WorkerConnection worker, CancellationToken stop)
    {
        using var press = new Press();
        var layouts = new ReadyLayouts(source);
        var rounds = new RoundsAtHand(books, source);
        var postmen = new Dictionary<MailAccount, Postman>();
        var sent = 0;
        try
        {
            while (!stop.IsCancellationRequested)
            {
                await queue.RecoverAsync(clock.GetUtcNow(), stop);
                while (!stop.IsCancellationRequested && await queue.ClaimAsync(worker.Number, clock.GetUtcNow(), stop) is { } parcel)
                {
                    var letters = new LetterBatch();
                    var claimed = await LettersBesideAsync(parcel, worker.Number, layouts, rounds, letters, stop);
                    foreach (var one in claimed)
                    {
                        await SendAsync(one, worker.Number, press, layouts, rounds, letters, postmen);
                    }

                    // A round may end while others have still much to send.
                    if (++sent % TellAfter == 0)
                    {
                        await ends.TellAsync(stop);
                    }
                }

                await CloseAsync(postmen);
                await ends.TellAsync(stop);
                rounds.Forget();
                var now = clock.GetUtcNow();
                var turn = await queue.NextTurnAsync(now, stop) - now;
                await worker.WaitAsync(turn < LookAgain ? turn.Value : LookAgain, stop);
            }
        }
        finally
        {
            await CloseAsync(postmen);
        }
    }

    /// <summary>Sends one parcel to its end. It is not broken off when the program stops: that takes seconds, and leaves nothing unsure.</summary>
    private async Task SendAsync(ClaimedParcel parcel, long worker, Press press, ReadyLayouts layouts, RoundsAtHand rounds, LetterBatch letters, Dictionary<MailAccount, Postman> postmen)
    {
        MadeUp? made = null;
        if (parcel.Message is null)
        {
            (made, var problem) = await MadeAsync(parcel, press, layouts, rounds, letters);
            if (made is null)
            {
                await queue.RefuseAsync(parcel, worker, problem, CancellationToken.None);
                return;
            }
        }

        if (await queue.BeginTryAsync(parcel, worker, made?.Message, made?.Paper, clock.GetUtcNow(), CancellationToken.None) is not { } dispatchTry)
        {
            return;
        }

        if (parcel.Way != Way.Mail)
        {
            var ready = parcel.Way == Way.Post ? new Outcome(Ending.Printed, DispatchQueue.ForThePost, []) : new Outcome(Ending.Exported, "Made up for another mail program.", []);
            await queue.EndTryAsync(parcel, worker, dispatchTry, ready, NextStep.Following(ready, parcel.Tries, parcel.Sender.Pauses), clock.GetUtcNow(), CancellationToken.None);
            return;
        }

        var account = new MailAccount(parcel.Sender.Host, parcel.Sender.Port, LineSecurities.Parse(parcel.Sender.Security), parcel.Sender.UserName, parcel.Sender.ProtectedPassword is { } password ? secrets.Unprotect(password) : "");
        if (!postmen.TryGetValue(account, out var postman))
        {
            postmen.Add(account, postman = new Postman(account, ServerAnswersWithin, parts.MailAuthorities));
        }

        try
        {
            var taken = parcel.Tries > 1 ? await queue.TakenAsync(parcel, CancellationToken.None) : [];
            var self = parcel.Sender.CopyToSelf && taken.Count == 0 && !parcel.Recipients.Contains(parcel.Sender.Address, StringComparer.OrdinalIgnoreCase) ? parcel.Sender.Address : null;
            List<string> recipients = [.. parcel.Recipients.Where(r => !taken.Contains(r)), .. self is null ? [] : new[] { self }];
            var outcome = (await postman.CarryAsync(made?.Message?.Bytes ?? parcel.Message!, parcel.Sender.Address, recipients, BeforeEnd, CancellationToken.None)).Without(self);
            await queue.EndTryAsync(parcel, worker, dispatchTry, outcome, NextStep.Following(outcome, parcel.Tries, parcel.Sender.Pauses, taken.Count > 0), clock.GetUtcNow(), CancellationToken.None);
        }
        catch (TakenOver)
        {
            ParcelTakenOver(log, parcel.Parcel);
        }

        async Task BeforeEnd()
        {
            if (!await queue.MarkEndingAsync(parcel, worker, dispatchTry, clock.GetUtcNow(), CancellationToken.None))
            {
                throw new TakenOver();
            }
        }
    }

    /// <summary>
    /// A parcel, and where its document is a letter that a word processor makes a PDF of, more of those that wait: a call
    /// takes a second to begin, and many letters then.
    /// </summary>
    private async Task<List<ClaimedParcel>> LettersBesideAsync(ClaimedParcel first, long worker, ReadyLayouts layouts, RoundsAtHand rounds, LetterBatch letters, CancellationToken stop)
    {
        var claimed = new List<ClaimedParcel> { first };
        for (var at = 0; at < claimed.Count && letters.Count < LetterBatch.Most; at++)
        {
            var parcel = claimed[at];
            if (parcel.Message is null && (await layouts.OfAsync(parcel.Book, parcel.Layout)).Layout is { Letter: not null } layout && (parcel.OnPaper || layout.Forms.Contains(DocumentForm.Pdf)) && await PaperAsync(parcel, layouts, rounds) is { } paper)
            {
                letters.Add(parcel.Parcel, paper, layout);
                if (!stop.IsCancellationRequested && await queue.ClaimAsync(worker, clock.GetUtcNow(), stop) is { } next)
                {
                    claimed.Add(next);
                }
            }
        }

        return claimed;
    }

    /// <summary>The document of a letter to be made beside others; null where it cannot be set, which is told when its message is made.</summary>
    private async Task<StatementPaper?> PaperAsync(ClaimedParcel claimed, ReadyLayouts layouts, RoundsAtHand rounds)
    {
        try
        {
            return (await SetAsync(claimed, layouts, rounds)).Paper;
        }
        catch (Exception e) when (e is not (NpgsqlException or IOException))
        {
            CannotBeMade(log, e, claimed.Parcel);
            return null;
        }
    }

    /// <summary>Sets the document of a parcel from what was frozen and from rows that do not change; figures that differ from the parcel's are a reason not to send.</summary>
    private async Task<(StatementPaper? Paper, Layout? Layout, RoundKind Kind, string Problem)> SetAsync(ClaimedParcel claimed, ReadyLayouts layouts, RoundsAtHand rounds)
    {
        var (round, making) = await rounds.OfAsync(claimed);
        var (_, parcel) = (await new RoundStore(source, claimed.Book).ParcelAsync(claimed.Parcel, CancellationToken.None))!.Value;
        var statements = making.Statements(parcel, claimed.Card, await new LedgerStore(source, claimed.Book).RowsAsync(round.IntakeId, parcel.Accounts.Select(a => a.Key), CancellationToken.None));
        if (!ParcelMaking.Same(ParcelMaking.Sums(statements), parcel.Sums))
        {
            return (null, null, round.Choice.Kind, "its figures are not those that were released");
        }

        var layout = await layouts.OfAsync(claimed.Book, parcel.Layout);
        return (making.Paper(layout, claimed.Card, statements, parcel.Accounts, parcel.ReminderLevel), layout.Layout, round.Choice.Kind, "");
    }

    /// <summary>The message of a parcel; where making it fails unforeseen, that parcel waits for a person, and no other waits behind it.</summary>
    private async Task<(MadeUp? Made, string Problem)> MadeAsync(ClaimedParcel claimed, Press press, ReadyLayouts layouts, RoundsAtHand rounds, LetterBatch letters)
    {
        try
        {
            return await MakeAsync(claimed, press, layouts, rounds, letters);
        }
        catch (Exception e) when (e is not (NpgsqlException or IOException))
        {
            CannotBeMade(log, e, claimed.Parcel);
            return (null, "its message could not be made; the program’s log says why");
        }
    }

    private async Task<(MadeUp? Made, string Problem)> MakeAsync(ClaimedParcel claimed, Press press, ReadyLayouts layouts, RoundsAtHand rounds, LetterBatch letters)
    {
        var (paper, layout, kind, problem) = await SetAsync(claimed, layouts, rounds);
        if (paper is null || layout is null)
        {
            return (null, problem);
        }

        IReadOnlyList<Enclosure> enclosures = [];
        OutgoingPaper? onPaper = null;
        try
        {
            var letter = letters.Take(claimed.Parcel);
            if (claimed.Way != Way.Post)
            {
                enclosures = [.. DocumentFile.Make(paper, layout, press, letter).Select(f => new Enclosure(f.Name, f.ContentType, f.Bytes))];
            }

            if (claimed.OnPaper)
            {
                var pdf = enclosures.Where(e => e.ContentType == DocumentFile.PdfType).Select(e => new DocumentFile(e.Name, e.ContentType, e.Bytes)).FirstOrDefault() ?? DocumentFile.Make(paper, layout with { Forms = [DocumentForm.Pdf] }, press, letter)[0];
                onPaper = new OutgoingPaper(pdf.Name, pdf.Bytes, SHA256.HashData(pdf.Bytes));
            }
        }
        catch (LetterFailed e)
        {
            return (null, e.Message);
        }

        if (claimed.Way == Way.Post)
        {
            return (new MadeUp(null, onPaper), "");
        }

        var who = Recipients.Of(claimed.Card, kind);
        var to = claimed.Recipients.Except(who.Copies).Except(who.BlindCopies).ToList();
        var (id, bytes) = Letter.Make(new Draft(claimed.Sender.Name, claimed.Sender.Address, to, [.. who.Copies.Intersect(claimed.Recipients)], claimed.Subject, claimed.Body, claimed.Card.Language, enclosures, clock.GetUtcNow()) { ReplyTo = claimed.Sender.ReplyTo, NamedBlindCopies = claimed.Way == Way.File ? [.. who.BlindCopies.Intersect(claimed.Recipients)] : [] });
        return MessageSizes.Problem(bytes.Length, claimed.Sender) is { Length: > 0 } tooLarge
            ? (null, tooLarge)
            : (new MadeUp(new OutgoingMessage(id, bytes, SHA256.HashData(bytes)), onPaper), "");
    }

    private static async Task CloseAsync(Dictionary<MailAccount, Postman> postmen)
    {
        foreach (var postman in postmen.Values)
        {
            await postman.DisposeAsync();
        }

        postmen.Clear();
    }

    private static async Task PauseAsync(CancellationToken stop)
    {
        try
        {
            await Task.Delay(LookAgain, stop);
        }
        catch (OperationCanceledException)
        {
            // Stopping is seen by whoever called.
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "The database cannot be reached or written, sending waits for it: {Reason}")]
    private static partial void DatabaseAway(ILogger log, string reason);

    [LoggerMessage(Level = LogLevel.Error, Message = "Unexpected while sending; it goes on")]
    private static partial void Unexpected(ILogger log, Exception exception);

    [LoggerMessage(Level = LogLevel.Error, Message = "The message of parcel {Parcel} could not be made")]
    private static partial void CannotBeMade(ILogger log, Exception exception, long parcel);

    [LoggerMessage(Level = LogLevel.Warning, Message = "Parcel {Parcel} was taken over by another worker; the message was not completed")]
    private static partial void ParcelTakenOver(ILogger log, long parcel);

    /// <summary>What a parcel was made into.</summary>
    private sealed record MadeUp(OutgoingMessage? Message, OutgoingPaper? Paper);

    private sealed class TakenOver : Exception;
}
