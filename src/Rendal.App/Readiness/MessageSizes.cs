using System.Globalization;
using System.Text;
using Rendal.App.Wordings;
using Rendal.Core.Budgets;
using Rendal.Core.Customers;
using Rendal.Core.Enclosures;
using Rendal.Core.Layouts;
using Rendal.Core.Wordings;
using Rendal.Files;
using Rendal.Files.Documents;
using Rendal.Files.Pdf;
using Rendal.Html;
using Rendal.Mail;
using Rendal.Store.Senders;

namespace Rendal.App.Readiness;

/// <summary>
/// Tells before release which messages are larger than the sender's server takes. A message is made for that only where what it is made
/// from leaves it in doubt, one after the other.
/// </summary>
/// <param name="sender">Who sends them.</param>
/// <param name="pictures">The pictures that may stand in them.</param>
internal sealed class MessageSizes(Sender sender, IReadOnlyList<MessagePicture> pictures) : IDisposable
{
    /// <summary>What the problem of a parcel begins with whose message is too large.</summary>
    public const string TooLarge = "the message is ";

    // Generous bounds in bytes: a document without its items and pictures, one item in it, and what encoding adds.
    private const int Document = 150_000;
    private const int Item = 1_500;
    private const double Encoded = 1.4;

    // For servers that do not say what they take. A message is made in memory as well.
    private const long LargestMessage = 75_000_000;

    // A line of Base64 has 76 characters and its end, and stands for 57 bytes (RFC 2045, 6.8); each file has headers of its own.
    private const int BytesOnALine = 57;
    private const int LineLength = 78;
    private const int Headers = 500;

    private readonly Lock making = new();
    private DocumentRenderer? renderer;

    /// <summary>
    /// What is wrong with a message of that many bytes, as a parcel's problem; empty where the sender's server takes it.
    /// </summary>
    /// <param name="bytes">How large it is.</param>
    /// <param name="sender">Who sends it.</param>
    /// <param name="files">How many files go with it beside the document.</param>
    public static string Problem(long bytes, Sender sender, int files = 0) =>
        Most(sender) < bytes
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{TooLarge}{bytes / 1e6:0.0#} MB, and "
                    + $"{(sender.LargestBytes is null ? "hardly a server takes more than" : $"{sender.Host} takes")} "
                    + $"{Most(sender) / 1e6:0.0#} MB: {Remedy(files)}"
            )
            : "";

    /// <summary>
    /// The same for a message that is not made yet, and its files as they go: over several messages where one is too large and they may.
    /// A letter that a word processor makes is looked at when it is sent.
    /// </summary>
    public (string Problem, IReadOnlyList<ParcelEnclosure> Files) Fit(
        Customer card,
        Recipients recipients,
        FilledWording words,
        StatementDocument document,
        Layout layout,
        IReadOnlyList<ParcelEnclosure> files,
        bool split
    )
    {
        if (recipients.All.Count == 0 || (layout.Letter is not null && layout.Forms.Contains(DocumentForm.Pdf)))
        {
            return ("", files);
        }

        var inIt = InBody(words.Body);
        var beside = files.Sum(Enclosed);
        if (AtMost(words, inIt, document, layout) + beside <= Most(sender))
        {
            return ("", files);
        }

        using var alone = making.EnterScope();
        renderer ??= new DocumentRenderer();
        List<Enclosure> enclosures;
        try
        {
            enclosures = [.. DocumentFile.Make(document, layout, renderer).Select(f => new Enclosure(f.Name, f.ContentType, f.Bytes))];
        }
        catch (OverBudget e)
        {
            return (e.Message, files);
        }

        var (_, bytes) = MessageBuilder.Make(
            new Draft(
                sender.Name,
                sender.Address,
                recipients.To,
                recipients.Copies,
                words.Subject,
                words.Body,
                card.Language,
                enclosures,
                DateTimeOffset.UnixEpoch
            )
            {
                ReplyTo = sender.ReplyTo,
                Pictures = inIt,
                Codes = PaymentCodes.Of(words.Body),
            }
        );
        var problem = Problem(bytes.Length + beside, sender, files.Count);
        return problem.Length > 0 && split && MessageSplit.Of(files, Most(sender) - bytes.Length - Headers, Enclosed) is { } several
            ? ("", several)
            : (problem, files);
    }

    public void Dispose() => renderer?.Dispose();

    private static long Enclosed(ParcelEnclosure file) => ((file.Size + BytesOnALine - 1) / BytesOnALine * LineLength) + Headers;

    private static long Most(Sender sender) => sender.LargestBytes ?? LargestMessage;

    private static string Remedy(int files) =>
        files > 0
            ? FormattableString.Invariant(
                $"enclose its {files} files joined or as a ZIP file, send it as several messages, or leave some of them out"
            )
            : "enclose fewer forms of the document, or smaller pictures";

    private List<MessagePicture> InBody(string body) =>
        pictures.Count == 0 ? [] : [.. PicturePlaces.Of(body).Select(number => pictures.Single(p => p.Number == number))];

    private static double AtMost(FilledWording words, List<MessagePicture> inIt, StatementDocument document, Layout layout)
    {
        var drawn =
            (layout.First<LetterheadPart>()?.Logo?.Length ?? 0)
            + (layout.First<SignaturePart>()?.Picture?.Length ?? 0)
            + (layout.Letter?.Bytes.Length ?? 0);
        var size = Document + (Item * document.Sections.Sum(s => s.Rows.Count())) + drawn;
        return Encoded
            * (
                (layout.Forms.Count * (double)size)
                + (2 * Encoding.UTF8.GetByteCount(words.Body))
                + inIt.Sum(p => p.Bytes.Length)
                + (CodePicture.Largest * (double)PaymentCodePlaces.Of(words.Body).Count)
            );
    }
}
