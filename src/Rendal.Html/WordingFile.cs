using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using AngleSharp;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Rendal.Core.Budgets;
using Rendal.Core.Wordings;

namespace Rendal.Html;

/// <summary>
/// A wording as a file of its own, to be kept, sent to somebody or taken into another book: a page (HTML Living Standard) in UTF-8 that
/// any browser shows. Its language is the page’s, its name the title, its subject the heading and its body the main part. Slots are as
/// they are stored, with their label inside for whoever reads it; pictures stand in it as <c>data:</c> addresses (RFC 2397).
/// <code>
/// &lt;html lang="en"&gt;&lt;title&gt;Month-end statement&lt;/title&gt;…
/// &lt;h1 id="subject"&gt;Statement at &lt;span data-slot="statement.date"&gt;{Date of the statement}&lt;/span&gt;&lt;/h1&gt;
/// &lt;main id="message"&gt;&lt;p&gt;…&lt;/p&gt;&lt;/main&gt;
/// </code>
/// </summary>
public static partial class WordingFile
{
    /// <summary>The most bytes of such a file: a text as long as may be, and a dozen of the largest pictures.</summary>
    public const int Largest = 6_000_000;

    private const string Subject = "subject";
    private const string Message = "message";
    private const string Source = "src";
    private const string Page =
        "<!doctype html><html><head><meta charset=\"utf-8\"><title></title></head><body>\n"
        + $"<h1 id=\"{Subject}\"></h1>\n<main id=\"{Message}\"></main>\n</body></html>";

    private const string Filled = $"[{WordingMarks.Slot}], [{WordingMarks.Choice}]";

    /// <summary>The page of a wording.</summary>
    /// <param name="wording">The wording.</param>
    /// <param name="pictures">The pictures of its body; a place without its picture is left out.</param>
    public static string Write(Wording wording, IReadOnlyList<MessagePicture> pictures)
    {
        var document = new HtmlParser().ParseDocument(Page);
        document.DocumentElement.SetAttribute("lang", wording.Language);
        document.QuerySelector("title")!.TextContent = wording.Name;
        Part(document, Subject)!.InnerHtml = wording.Subject;
        Part(document, Message)!.InnerHtml = wording.Body;
        foreach (var place in document.QuerySelectorAll(Filled))
        {
            var name = place.GetAttribute(WordingMarks.Slot) ?? place.GetAttribute(WordingMarks.Choice)!;
            place.TextContent = $"{{{SlotCatalogue.Find(name)?.Label ?? name}}}";
        }

        foreach (var image in document.QuerySelectorAll("img").ToList())
        {
            if (pictures.FirstOrDefault(p => image.GetAttribute(PicturePlaces.Attribute) == Text(p.Number)) is { } picture)
            {
                image.SetAttribute(Source, $"data:{picture.ContentType};base64,{Convert.ToBase64String(picture.Bytes)}");
            }
            else
            {
                image.Remove();
            }
        }

        return document.ToHtml();
    }

    /// <summary>The wording of such a page. It is not checked further, as it may have been written by anybody.</summary>
    /// <param name="file">The file.</param>
    /// <returns>
    /// The wording, whose pictures are numbered from 1 in the order in which they stand, and their bytes in that order.
    /// </returns>
    /// <exception cref="FormatException">It is no such page, with the reason as a sentence for people.</exception>
    /// <exception cref="OverBudget">Its text is longer, has more elements or is nested more deeply than
    /// <see cref="Limits.Markup"/> says.</exception>
    public static (Wording Wording, IReadOnlyList<byte[]> Pictures) Read(byte[] file)
    {
        var pictures = new List<byte[]>();
        var text = Picture()
            .Replace(Decoded(file), found =>
            {
                pictures.Add(Bytes(found.Groups[1].Value, pictures.Count + 1));
                return $"{Source}=\"{Text(pictures.Count)}\"";
            });
        Markup.Check(text, new Budget("The text of the file", Limits.Markup));
        var document = new HtmlParser().ParseDocument(text);
        if (Part(document, Subject) is not { } subject || Part(document, Message) is not { } message)
        {
            throw new FormatException(
                "it is not a page that “Download” made of a wording. To use its words, open it in a browser, copy them, and paste them "
                    + "into the message"
            );
        }

        var within = Enumerable.Range(1, pictures.Count).Select(n => Text(n)).ToHashSet(StringComparer.Ordinal);
        foreach (var image in message.QuerySelectorAll("img"))
        {
            if (image.GetAttribute(Source) is not { } number || !within.Contains(number))
            {
                throw new FormatException(
                    "a picture is not in it, but elsewhere. Take it out of the page, and put it in again afterwards"
                );
            }

            image.SetAttribute(PicturePlaces.Attribute, number);
            image.RemoveAttribute(Source);
        }

        foreach (var place in document.QuerySelectorAll(Filled))
        {
            place.TextContent = "";
        }

        return (
            new Wording(
                document.QuerySelector("title")?.TextContent ?? "",
                document.DocumentElement.GetAttribute("lang") ?? "",
                subject.InnerHtml,
                message.InnerHtml
            ),
            pictures
        );
    }

    private static IElement? Part(IDocument document, string id) => document.QuerySelector($"body > #{id}");

    private static string Text(long number) => number.ToString(CultureInfo.InvariantCulture);

    private static string Decoded(byte[] file)
    {
        try
        {
            return new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(file).TrimStart('\uFEFF');
        }
        catch (DecoderFallbackException)
        {
            throw new FormatException("it is not written in UTF-8; another program changed it");
        }
    }

    private static byte[] Bytes(string base64, int number)
    {
        var bytes = new byte[(base64.Length / 4 * 3) + 3];
        return Convert.TryFromBase64String(base64, bytes, out var length)
            ? bytes[..length]
            : throw new FormatException($"its picture {Text(number)} is damaged");
    }

    [GeneratedRegex("src=\"data:image/(?:png|jpeg);base64,([^\"]*)\"", RegexOptions.NonBacktracking)]
    private static partial Regex Picture();
}
