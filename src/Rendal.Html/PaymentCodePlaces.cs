using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Rendal.Core.Layouts;

namespace Rendal.Html;

/// <summary>The places of codes to be scanned in the filled body of a message. No wording has one: it comes from a slot alone.</summary>
public static class PaymentCodePlaces
{
    /// <summary>The codes of a body, each once, in their order.</summary>
    public static IReadOnlyList<PaymentCode> Of(string body) =>
        body.Contains(PaymentCode.Attribute, StringComparison.Ordinal) ? [.. Places(Parse(body)).Select(p => p.Code).Distinct()] : [];

    /// <summary>A body with the address of the picture of each code put in.</summary>
    public static string Put(string body, Func<PaymentCode, string> address)
    {
        if (!body.Contains(PaymentCode.Attribute, StringComparison.Ordinal))
        {
            return body;
        }

        var document = Parse(body);
        foreach (var (image, code) in Places(document))
        {
            image.SetAttribute("src", address(code));
            image.RemoveAttribute(PaymentCode.Attribute);
        }

        return document.Body!.InnerHtml;
    }

    private static IDocument Parse(string body) => new HtmlParser().ParseDocument($"<body>{body}</body>");

    private static List<(IElement Image, PaymentCode Code)> Places(IDocument document) =>
        [
            .. document
                .QuerySelectorAll($"img[{PaymentCode.Attribute}]")
                .Select(image => (image, PaymentCode.Read(image.GetAttribute(PaymentCode.Attribute)!)))
                .Where(p => p.Item2 is not null)
                .Select(p => (p.image, p.Item2!)),
        ];
}
