using Ganss.Xss;
using Rendal.Core.Budgets;
using Rendal.Core.Wordings;

namespace Rendal.Html;

/// <summary>Takes wordings apart, and takes out of them what has no place in a message.</summary>
public static class WordingReader
{
    // Properties whose values cannot name a place to fetch something from.
    private static readonly string[] Styles =
    [
        "background-color",
        "border",
        "border-bottom",
        "border-collapse",
        "border-color",
        "border-left",
        "border-right",
        "border-spacing",
        "border-style",
        "border-top",
        "border-width",
        "color",
        "font-family",
        "font-size",
        "font-style",
        "font-weight",
        "height",
        "letter-spacing",
        "line-height",
        "margin",
        "margin-bottom",
        "margin-left",
        "margin-right",
        "margin-top",
        "max-width",
        "min-width",
        "padding",
        "padding-bottom",
        "padding-left",
        "padding-right",
        "padding-top",
        "text-align",
        "text-decoration",
        "text-indent",
        "text-transform",
        "vertical-align",
        "white-space",
        "width",
    ];

    /// <summary>
    /// Makes a wording ready. Whatever it holds, it is made: what keeps it from being used stands in <see cref="WordingTemplate.Errors"/>.
    /// </summary>
    public static WordingTemplate Read(Wording wording)
    {
        var errors = new List<string>();
        var subject = WordingTree.Of(wording.Subject, WordingTree.Subject, errors);
        var body = Clean(wording.Body, errors);
        var parts = WordingTree.Of(body, WordingTree.Body, errors);
        var template = new WordingTemplate(wording.Language, subject, parts, PicturePlaces.Of(body), errors);
        if (template.Blocks.Count(b => b.Slot.Name == SlotCatalogue.Signature) > 1)
        {
            errors.Add("The signature stands twice; it stands once, at the end.");
        }

        return template;
    }

    /// <summary>
    /// The body with scripts, event handlers, forms, frames, remote pictures and whatever else has no place in a
    /// message taken out; paragraphs, lists, tables, emphasis, links and slots stay.
    /// </summary>
    /// <param name="body">An HTML fragment.</param>
    /// <param name="withPictures">Whether the places of the book's own pictures stay too.</param>
    /// <exception cref="OverBudget">It is longer, has more elements or is nested more deeply than is worked through.</exception>
    public static string Sanitised(string body, bool withPictures = false)
    {
        Markup.Check(body, new Budget("The text", Limits.Markup));
        var sanitizer = new HtmlSanitizer();
        sanitizer.AllowedTags.ExceptWith(["form", "input", "button", "textarea", "select", "option"]);
        sanitizer.AllowedAttributes.ExceptWith(["background", "src", "dynsrc", "lowsrc"]);
        sanitizer.AllowedCssProperties.Clear();
        sanitizer.AllowedCssProperties.UnionWith(Styles);
        if (withPictures)
        {
            sanitizer.AllowedAttributes.Add(PicturePlaces.Attribute);
        }

        // Without the attribute no picture is one of the book's.
        sanitizer.PostProcessDom += (_, e) => PicturePlaces.Clean(e.Document);
        sanitizer.AllowedAttributes.UnionWith(WordingMarks.Attributes);
        sanitizer.AllowedSchemes.Add("mailto");
        return sanitizer.Sanitize(body);
    }

    private static string Clean(string body, List<string> errors)
    {
        try
        {
            return Sanitised(body, withPictures: true);
        }
        catch (OverBudget e)
        {
            errors.Add(e.Message);
            return "";
        }
    }
}
