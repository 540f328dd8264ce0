using System.Globalization;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;

namespace Rendal.Html;

/// <summary>
/// The places of pictures in the body of a message: <c>&lt;img data-picture="12" alt="Tarnbrook Linen Hire" width="180"&gt;</c>.
/// A body says only which picture stands where; the address that shows it is put in where the body is used.
/// </summary>
public static class PicturePlaces
{
    /// <summary>The attribute that has a picture's number.</summary>
    public const string Attribute = "data-picture";

    private static readonly string[] Kept = [Attribute, "alt", "width"];

    /// <summary>The numbers of the pictures of a body, each once, in their order.</summary>
    public static IReadOnlyList<long> Of(string body) =>
        body.Contains(Attribute, StringComparison.Ordinal) ? [.. Places(Parse(body)).Select(Number).Distinct()] : [];

    /// <summary>A body with the address of each picture put in. A picture is never wider than the window it is shown in.</summary>
    /// <param name="body">An HTML fragment.</param>
    /// <param name="address">The address of the picture of a number.</param>
    public static string Put(string body, Func<long, string> address)
    {
        if (!body.Contains(Attribute, StringComparison.Ordinal))
        {
            return body;
        }

        var document = Parse(body);
        foreach (var place in Places(document))
        {
            place.SetAttribute("src", address(Number(place)));
            place.SetAttribute("style", "max-width:100%;height:auto");
            place.RemoveAttribute(Attribute);
        }

        return document.Body!.InnerHtml;
    }

    /// <summary>A body with other numbers for its pictures, as another book has them.</summary>
    /// <param name="body">An HTML fragment.</param>
    /// <param name="other">The number instead of a number.</param>
    public static string Renumbered(string body, Func<long, long> other)
    {
        var document = Parse(body);
        foreach (var place in Places(document))
        {
            place.SetAttribute(Attribute, other(Number(place)).ToString(CultureInfo.InvariantCulture));
        }

        return document.Body!.InnerHtml;
    }

    /// <summary>
    /// Takes out pictures that are not the book's, and whatever else stands at a place: an address above all, which would fetch something.
    /// </summary>
    internal static void Clean(IParentNode document)
    {
        foreach (var image in document.QuerySelectorAll("img").ToList())
        {
            if (!TryNumber(image, out _))
            {
                image.Remove();
                continue;
            }

            foreach (var attribute in image.Attributes.Select(a => a.Name).Where(name => !Kept.Contains(name)).ToList())
            {
                image.RemoveAttribute(attribute);
            }
        }
    }

    private static IDocument Parse(string body) => new HtmlParser().ParseDocument($"<body>{body}</body>");

    private static List<IElement> Places(IDocument document) =>
        [.. document.QuerySelectorAll($"img[{Attribute}]").Where(e => TryNumber(e, out _))];

    private static long Number(IElement image) =>
        TryNumber(image, out var number) ? number : throw new InvalidOperationException("The place of a picture has no number.");

    private static bool TryNumber(IElement image, out long number) =>
        long.TryParse(image.GetAttribute(Attribute), NumberStyles.None, CultureInfo.InvariantCulture, out number);
}
