using System.Text;
using System.Text.Encodings.Web;
using System.Text.RegularExpressions;
using System.Text.Unicode;
using Ganss.Xss;
using Rendal.Core.Budgets;

namespace Rendal.Core.Wordings;

/// <summary>
/// A wording made ready to be filled many times: a tree of text, slots and conditions. What people type and what slots are
/// filled with is text wherever it lands; it never becomes markup, a header or part of the template.
/// </summary>
public sealed partial class WordingTemplate
{
    private static readonly HtmlEncoder Encoder = HtmlEncoder.Create(UnicodeRanges.All);

    // Properties whose values cannot name a place to fetch something from.
    private static readonly string[] Styles =
    [
        "background-color", "border", "border-bottom", "border-collapse", "border-color", "border-left", "border-right", "border-spacing", "border-style", "border-top", "border-width",
        "color", "font-family", "font-size", "font-style", "font-weight", "height", "letter-spacing", "line-height", "margin", "margin-bottom", "margin-left", "margin-right", "margin-top",
        "max-width", "min-width", "padding", "padding-bottom", "padding-left", "padding-right", "padding-top", "text-align", "text-decoration", "text-indent", "text-transform", "vertical-align", "white-space", "width",
    ];

    private readonly IReadOnlyList<WordingPart> subject;
    private readonly IReadOnlyList<WordingPart> body;

    private WordingTemplate(IReadOnlyList<WordingPart> subject, IReadOnlyList<WordingPart> body, IReadOnlyList<long> pictures, IReadOnlyList<string> errors) =>
        (this.subject, this.body, Pictures, Errors) = (subject, body, pictures, errors);

    /// <summary>The numbers of the pictures in its body.</summary>
    public IReadOnlyList<long> Pictures { get; }

    /// <summary>What is wrong with the wording itself, one sentence each: slots that name nothing known, a table in the subject, more than can be worked through. Empty when it can be used.</summary>
    public IReadOnlyList<string> Errors { get; }

    /// <summary>Makes a wording ready. Whatever it holds, it is made: what keeps it from being used stands in <see cref="Errors"/>.</summary>
    public static WordingTemplate Of(Wording wording)
    {
        var errors = new List<string>();
        var subject = WordingTree.Of(wording.Subject, WordingTree.Subject, errors);
        var body = Clean(wording.Body, errors);
        var parts = WordingTree.Of(body, WordingTree.Body, errors);
        return new WordingTemplate(subject, parts, PicturePlaces.Of(body), errors);
    }

    /// <summary>Whether a slot stands in its body, be it under a condition.</summary>
    /// <param name="slot">The name of the slot.</param>
    public bool Has(string slot)
    {
        return IsIn(body);

        bool IsIn(IReadOnlyList<WordingPart> parts) => parts.Any(part => part is WordingSlot place ? place.Slot.Name == slot : part is WordingCondition condition && IsIn(condition.Parts));
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
        sanitizer.AllowedAttributes.Add("data-slot");
        sanitizer.AllowedAttributes.Add("data-or-else");
        sanitizer.AllowedAttributes.Add("data-when");
        sanitizer.AllowedSchemes.Add("mailto");
        return sanitizer.Sanitize(body);
    }

    /// <summary>Fills the wording. Values are looked up by slot name; a slot that is not among them is empty. Words under a condition that does not hold are left away, with their slots.</summary>
    /// <param name="values">The values of the slots.</param>
    /// <param name="holding">The conditions that hold.</param>
    /// <exception cref="InvalidOperationException">The wording has <see cref="Errors"/>.</exception>
    public FilledWording Fill(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding)
    {
        if (Errors.Count > 0)
        {
            throw new InvalidOperationException($"The wording cannot be filled: {Errors[0]}");
        }

        var filling = new Filling(values, holding);
        return new FilledWording(OneLine(filling.Of(subject, value => value)), filling.Of(body, Encoder.Encode), filling.EmptySlots);
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

    private static string OneLine(string text) => Breaks().Replace(text, " ").Trim();

    [GeneratedRegex(@"[\s\p{Cc}\u2028\u2029]+")]
    private static partial Regex Breaks();

    /// <summary>One filling of a template.</summary>
    private sealed class Filling(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding)
    {
        private readonly List<Slot> empty = [];

        public IReadOnlyList<Slot> EmptySlots => [.. empty.Distinct()];

        public string Of(IReadOnlyList<WordingPart> parts, Func<string, string> escape)
        {
            var text = new StringBuilder();
            Put(parts, escape, text);
            return text.ToString();
        }

        private void Put(IReadOnlyList<WordingPart> parts, Func<string, string> escape, StringBuilder text)
        {
            foreach (var part in parts)
            {
                switch (part)
                {
                    case WordingText typed:
                        text.Append(typed.Text);
                        break;
                    case WordingSlot slot:
                        text.Append(Value(slot, escape));
                        break;
                    case WordingCondition condition when holding.Contains(condition.When):
                        Put(condition.Parts, escape, text);
                        break;
                }
            }
        }

        private string Value(WordingSlot place, Func<string, string> escape)
        {
            var value = values.GetValueOrDefault(place.Slot.Name, "");
            if (!string.IsNullOrWhiteSpace(value))
            {
                return place.Slot.IsHtml ? value : escape(value);
            }

            if (place.OrElse.Length == 0)
            {
                empty.Add(place.Slot);
            }

            return escape(place.OrElse);
        }
    }
}
