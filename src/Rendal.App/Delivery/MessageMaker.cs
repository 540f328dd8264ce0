using System.Security.Cryptography;
using Microsoft.Extensions.Logging;
using Npgsql;
using Rendal.App.Documents;
using Rendal.App.Readiness;
using Rendal.App.Wordings;
using Rendal.Core.Budgets;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Enclosures;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Files;
using Rendal.Files.Documents;
using Rendal.Files.Docx;
using Rendal.Files.Pdf;
using Rendal.Html;
using Rendal.Mail;
using Rendal.Store.Dispatch;
using Rendal.Store.Enclosures;
using Rendal.Store.Ledger;
using Rendal.Store.Rounds;
using Rendal.Store.Wordings;

namespace Rendal.App.Delivery;

/// <summary>
/// Makes the messages and documents of claimed parcels. It serves one at a time, and keeps what the next parcel needs as well.
/// </summary>
internal sealed partial class MessageMaker(NpgsqlDataSource source, EndOfDataNotes notes, TimeProvider clock, ILogger log) : IDisposable
{
    private readonly DocumentRenderer renderer = new();
    private readonly ReadyLayouts layouts = new(source);
    private readonly Dictionary<(long Book, long Number), MessagePicture> pictures = [];
    private readonly RoundCache rounds = new(source);

    /// <summary>
    /// Makes what a parcel becomes, and where its document is a letter that a word processor makes a PDF of, those of more parcels that
    /// wait: a call takes a second to begin, and many letters then.
    /// </summary>
    /// <param name="first">The parcel.</param>
    /// <param name="next">Claims another one; null where none waits.</param>
    /// <param name="stop">The program stops: what is being made is broken off.</param>
    public async Task<IReadOnlyList<MadeUp>> MakeAsync(ClaimedParcel first, Func<Task<ClaimedParcel?>> next, CancellationToken stop)
    {
        var letters = new LetterPdfBatch();
        var claimed = new List<ClaimedParcel> { first };
        for (var at = 0; at < claimed.Count && letters.Count < LetterPdfBatch.Most; at++)
        {
            var parcel = claimed[at];
            if (
                parcel.Message is null
                && parcel.MessageIndex == 0
                && (await layouts.OfAsync(parcel.Book, parcel.Layout)).Layout is { Letter: not null } layout
                && (parcel.OnPaper || layout.Forms.Contains(DocumentForm.Pdf))
                && await DocumentAsync(parcel) is { } document
            )
            {
                letters.Add(parcel.Parcel, document, layout);
                if (await next() is { } another)
                {
                    claimed.Add(another);
                }
            }
        }

        var made = new List<MadeUp>();
        foreach (var parcel in claimed)
        {
            made.Add(parcel.Message is null ? await MadeAsync(parcel, letters, stop) : new MadeUp(parcel, null, null));
        }

        return made;
    }

    /// <inheritdoc/>
    public void Dispose() => renderer.Dispose();

    /// <summary>
    /// The document of a letter to be made beside others; null where it cannot be set, which is told when its message is made.
    /// </summary>
    private async Task<StatementDocument?> DocumentAsync(ClaimedParcel claimed)
    {
        using var making = notes.Making(claimed.Parcel);
        try
        {
            return (await SetAsync(claimed)).Document;
        }
        catch (Exception e) when (e is not (NpgsqlException or IOException))
        {
            CannotBeMade(log, e, claimed.Parcel);
            return null;
        }
    }

    /// <summary>
    /// Sets the document of a parcel from what was frozen and from rows that do not change; figures that differ from the parcel's are a
    /// reason not to send.
    /// </summary>
    private async Task<SetParcel> SetAsync(ClaimedParcel claimed)
    {
        var atHand = await rounds.OfAsync(claimed);
        var (round, composer) = (atHand.Round, atHand.ComposerOf(claimed));
        var (_, parcel) = (await new RoundStore(source, claimed.Book).ParcelAsync(claimed.Parcel, CancellationToken.None))!.Value;
        var rows = await new LedgerStore(source, claimed.Book).RowsAsync(
            round.IntakeId,
            parcel.Accounts.Select(a => a.Key),
            CancellationToken.None
        );
        var layout = await layouts.OfAsync(claimed.Book, parcel.Layout);
        var additions = new ParcelAdditions(
            claimed.Change?.DocumentNote ?? "",
            [.. parcel.Enclosures.SelectMany(f => f.Numbers).Distinct(StringComparer.Ordinal)]
        );
        return await Background.RunAsync(() =>
        {
            var statements = parcel.Known(composer.Statements(claimed.Card, rows));
            return new SetParcel(
                round,
                parcel,
                statements,
                AreThose(parcel, statements)
                    ? composer.Document(
                        layout,
                        claimed.Card,
                        statements,
                        ParcelComposer.NamesIn(parcel.Accounts),
                        parcel.ReminderLevel,
                        additions
                    )
                    : null,
                layout.Layout
            );
        });
    }

    /// <summary>
    /// Whether figures are those that a parcel was released with: every line, or of one that was prepared before there were seals, its
    /// sums.
    /// </summary>
    private static bool AreThose(ParcelRecord parcel, IReadOnlyList<Statement> statements) =>
        parcel.Seal is { } seal
            ? seal[SealPart.Figures].SequenceEqual(Sealer.Figures(statements))
            : parcel
                .Sums.Select(s => (s.Currency, s.Total, s.Overdue))
                .SequenceEqual(statements.Select(s => (s.Currency.Code, s.Total, s.Overdue)));

    /// <summary>
    /// The message of a parcel; where making it fails unforeseen, that parcel waits for a person, and no other waits behind it.
    /// </summary>
    private async Task<MadeUp> MadeAsync(ClaimedParcel claimed, LetterPdfBatch letters, CancellationToken stop)
    {
        using var making = notes.Making(claimed.Parcel);
        try
        {
            return await MakeAsync(claimed, letters, stop);
        }
        catch (OverBudget e)
        {
            return new MadeUp(claimed, null, null, e.Message);
        }
        catch (Exception e) when (e is not (NpgsqlException or IOException or OperationCanceledException))
        {
            CannotBeMade(log, e, claimed.Parcel);
            return new MadeUp(claimed, null, null, "its message could not be made; the program’s log says why");
        }
    }

    private async Task<MadeUp> MakeAsync(ClaimedParcel claimed, LetterPdfBatch letters, CancellationToken stop)
    {
        var set = await SetAsync(claimed);
        if (set.Document is null)
        {
            return new MadeUp(claimed, null, null, "its figures are not those that were released");
        }

        var store = new EnclosureStore(source, claimed.Book);
        var files = claimed.Channel == Channel.Post ? [] : set.Parcel.Enclosures;
        if (await EnclosedFiles.ProblemAsync(files, set.Statements, store, CancellationToken.None) is { Length: > 0 } problem)
        {
            return new MadeUp(claimed, null, null, problem);
        }

        files = [.. files.Where(f => f.Message == claimed.MessageIndex)];
        var content = await EnclosedFiles.ContentAsync(files, store, CancellationToken.None);
        var inIt = await PicturesAsync(claimed);
        return await Background.RunAsync(() => Make(claimed, set, files, content, inIt, letters, stop));
    }

    private async Task<List<MessagePicture>> PicturesAsync(ClaimedParcel claimed)
    {
        var numbers = PicturePlaces.Of(claimed.Body);
        foreach (
            var picture in await new PictureStore(source, claimed.Book).OfAsync(
                [.. numbers.Where(n => !pictures.ContainsKey((claimed.Book, n)))],
                CancellationToken.None
            )
        )
        {
            pictures[(claimed.Book, picture.Number)] = picture;
        }

        return [.. numbers.Select(n => pictures[(claimed.Book, n)])];
    }

    private MadeUp Make(
        ClaimedParcel claimed,
        SetParcel set,
        IReadOnlyList<ParcelEnclosure> files,
        IReadOnlyDictionary<string, byte[]> content,
        List<MessagePicture> inIt,
        LetterPdfBatch letters,
        CancellationToken stop
    )
    {
        IReadOnlyList<Enclosure> enclosures = [];
        OutgoingLetter? onPaper = null;
        var (document, layout) = (set.Document!, set.Layout);
        try
        {
            var letter = letters.Take(claimed.Parcel);
            if (claimed.Channel != Channel.Post)
            {
                // With the first message; what follows brings the rest of the files.
                enclosures =
                    claimed.MessageIndex > 0
                        ? []
                        :
                        [
                            .. DocumentFile
                                .Make(document, layout, renderer, letter, stop)
                                .Select(f => new Enclosure(f.Name, f.ContentType, f.Bytes)),
                        ];
                enclosures =
                [
                    .. enclosures,
                    .. EnclosedFiles.Make(
                        files,
                        content,
                        set.Round.Enclosing.Copies,
                        enclosures.Select(e => e.Name).ToHashSet(StringComparer.OrdinalIgnoreCase)
                    ),
                ];
            }

            if (claimed.OnPaper && claimed.MessageIndex == 0)
            {
                var pdf = enclosures
                    .Take(layout.Forms.Count)
                    .Where(e => e.ContentType == DocumentFile.PdfType)
                    .Select(e => new DocumentFile(e.Name, e.ContentType, e.Bytes))
                    .FirstOrDefault()
                    ?? DocumentFile.Make(document, layout with { Forms = [DocumentForm.Pdf] }, renderer, letter, stop)[0];
                onPaper = new OutgoingLetter(pdf.Name, pdf.Bytes, SHA256.HashData(pdf.Bytes));
            }
        }
        catch (Exception e) when (e is DocxConversionFailed or FileRefused)
        {
            return new MadeUp(claimed, null, null, e.Message);
        }

        if (claimed.Channel == Channel.Post)
        {
            return new MadeUp(claimed, null, onPaper);
        }

        var who = Recipients.Of(claimed.Card, set.Round.Choice.Kind, claimed.Change);
        var to = claimed.Recipients.Except(who.Copies).Except(who.BlindCopies).ToList();
        var subject =
            claimed.Messages == 1
                ? claimed.Subject
                : $"{claimed.Subject} ({Language.Of(claimed.Card.Language).WriteOneOf(claimed.MessageIndex + 1, claimed.Messages)})";
        var (id, bytes) = MessageBuilder.Make(
            new Draft(
                claimed.SentAs.Name,
                claimed.SentAs.Address,
                to,
                [.. who.Copies.Intersect(claimed.Recipients)],
                subject,
                claimed.Body,
                claimed.Card.Language,
                enclosures,
                clock.GetUtcNow()
            )
            {
                ReplyTo = claimed.SentAs.ReplyTo,
                Pictures = inIt,
                Codes = PaymentCodes.Of(claimed.Body),
                NamedBlindCopies = claimed.Channel == Channel.File ? [.. who.BlindCopies.Intersect(claimed.Recipients)] : [],
            }
        );
        return MessageSizes.Problem(bytes.Length, claimed.Sender, files.Count) is { Length: > 0 } tooLarge
            ? new MadeUp(claimed, null, null, tooLarge)
            : new MadeUp(claimed, new OutgoingMessage(id, subject, bytes, SHA256.HashData(bytes)), onPaper);
    }

    /// <summary>What a message is made of.</summary>
    /// <param name="Round">The round.</param>
    /// <param name="Parcel">The parcel.</param>
    /// <param name="Statements">Its statements, reckoned again.</param>
    /// <param name="Document">Its document; null where the statements are not those that were released.</param>
    /// <param name="Layout">The layout of that.</param>
    private sealed record SetParcel(
        RoundRecord Round,
        ParcelRecord Parcel,
        IReadOnlyList<Statement> Statements,
        StatementDocument? Document,
        Layout Layout
    );

    [LoggerMessage(Level = LogLevel.Error, Message = "The message of parcel {Parcel} could not be made")]
    private static partial void CannotBeMade(ILogger log, Exception exception, long parcel);
}

/// <summary>What a parcel was made into.</summary>
/// <param name="Parcel">The parcel.</param>
/// <param name="Message">Its message; null where there is none or it is on record from an earlier try.</param>
/// <param name="Letter">What goes on paper; null for nothing.</param>
/// <param name="Problem">Why it could not be made; empty where it was.</param>
internal sealed record MadeUp(ClaimedParcel Parcel, OutgoingMessage? Message, OutgoingLetter? Letter, string Problem = "");
