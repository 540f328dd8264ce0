using System.Security.Cryptography;
using MimeKit;
using Rendal.App.Books;
using Rendal.App.Rounds;
using Rendal.Files.Documents;
using Rendal.Files.Pdf;
using Rendal.Mail;

namespace Rendal.App.Tests.Rounds;

/// <summary>
/// All that a customer gets of a message, so that two can be compared: everything but its date, its number and its boundaries.
/// </summary>
internal sealed record ShownParcel(string From, string To, string Copies, string Subject, string Html, string Documents)
{
    /// <summary>A parcel as a person looks at it.</summary>
    public static async Task<ShownParcel> OfAsync(long parcel, BookStores stores, DocumentRenderer press, CancellationToken cancel)
    {
        var content = await ParcelContent.LoadAsync(parcel, stores, cancel);
        var words = content.Words()!;
        var sentAs = content.Round.Sender.SentAs;
        var enclosures = DocumentFile
            .Make(content.Document(), content.Layout.Layout, press, cancel: cancel)
            .Select(f => new Enclosure(f.Name, f.ContentType, f.Bytes))
            .ToList();
        var (_, bytes) = MessageBuilder.Make(
            new Draft(
                sentAs.Name,
                sentAs.Address,
                content.Recipients.To,
                content.Recipients.Copies,
                words.Subject,
                words.Body,
                content.Card.Language,
                enclosures,
                DateTimeOffset.UnixEpoch
            )
            {
                ReplyTo = sentAs.ReplyTo,
            }
        );
        return Of(bytes);
    }

    /// <summary>A message as it is on record.</summary>
    public static ShownParcel Of(byte[] bytes)
    {
        using var stream = new MemoryStream(bytes);
        var message = MimeMessage.Load(stream);
        var documents = message.BodyParts.OfType<MimePart>().Where(p => p.IsAttachment).Select(p => $"{p.FileName} {Hash(p)}");
        return new ShownParcel(
            message.From.ToString(),
            message.To.ToString(),
            message.Cc.ToString(),
            message.Subject ?? "",
            message.HtmlBody ?? "",
            string.Join('\n', documents)
        );
    }

    private static string Hash(MimePart part)
    {
        using var content = part.Content!.Open();
        return Convert.ToHexStringLower(SHA256.HashData(content));
    }
}
