using Rendal.App.Books;
using Rendal.Html;

namespace Rendal.App.Wordings;

/// <summary>The subject and the text of messages, as far as they can stand in one.</summary>
internal static class MessageWords
{
    /// <summary>What of a subject and a body can stand in a message: markup that cannot is dropped.</summary>
    /// <exception cref="ProblemException">A picture is not one of the book.</exception>
    public static async Task<(string Subject, string Body)> CheckedAsync(
        BookStores stores,
        string subject,
        string body,
        CancellationToken cancel
    )
    {
        var clean = (Subject: WordingReader.Sanitised(subject), Body: WordingReader.Sanitised(body, withPictures: true));
        var pictures = PicturePlaces.Of(clean.Body);
        return (await stores.Pictures.OfAsync(pictures, cancel)).Count == pictures.Count
            ? clean
            : throw ProblemException.Invalid(
                "A picture of the message is not one of this book. Take it out, and put it in again from its file."
            );
    }
}
