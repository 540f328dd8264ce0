using System.Text;
using System.Text.Encodings.Web;
using System.Text.RegularExpressions;
using System.Text.Unicode;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Fluid;
using Ganss.Xss;

namespace Rendal.Core.Wordings;

/// <summary>
/// A wording made ready to be filled many times. Liquid is the syntax underneath; braces that the bookkeeper typed
/// stay braces, and values of slots are text wherever they land: they never become markup, a header or Liquid.
/// </summary>
public sealed partial class WordingTemplate
{
    private static readonly FluidParser Parser = new();
    private static readonly TemplateOptions Options = new();
    private static readonly HtmlEncoder Encoder = HtmlEncoder.Create(UnicodeRanges.All);

    private readonly IFluidTemplate subject;
    private readonly IFluidTemplate body;
    private readonly List<UsedSlot> used;

    private WordingTemplate(IFluidTemplate subject, IFluidTemplate body, List<UsedSlot> used, IReadOnlyList<long> pictures, IReadOnlyList<string> errors) =>
        (this.subject, this.body, this.used, Pictures, Errors) = (subject, body, used, pictures, errors);

    /// <summary>The numbers of the pictures in its body.</summary>
    public IReadOnlyList<long> Pictures { get; }

    /// <summary>What is wrong with the wording itself, one sentence each: slots that name nothing known, a table in the subject. Empty when it can be used.</summary>
    public IReadOnlyList<string> Errors { get; }

    /// <summary>Makes a wording ready.</summary>
    public static WordingTemplate Of(Wording wording)
    {
        var used = new List<UsedSlot>();
        var errors = new List<string>();
        var subject = Parse(wording.Subject, "subject", used, errors);
        var body = Parse(Sanitised(wording.Body, withPictures: true), "body", used, errors);
        if (used.Find(u => u.Part == "subject" && u.Slot.IsHtml) is { } table)
        {
            errors.Add($"“{table.Slot.Label}” cannot stand in the subject: a subject is one line of text.");
        }

        return new WordingTemplate(subject, body, used, PicturePlaces.Of(wording.Body), errors);
    }

    /// <summary>
    /// The body with scripts, event handlers, forms, frames, remote pictures and whatever else has no place in a
    /// message taken out; paragraphs, lists, tables, emphasis, links and slots stay.
    /// </summary>
    /// <param name="body">An HTML fragment.</param>
    /// <param name="withPictures">Whether the places of the book's own pictures stay too.</param>
    public static string Sanitised(string body, bool withPictures = false)
    {
        var sanitizer = new HtmlSanitizer();
        sanitizer.AllowedTags.ExceptWith(["form", "input", "button", "textarea", "select", "option"]);
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

        var context = new TemplateContext(Options);
        context.SetValue("value", used.Select(u => values.GetValueOrDefault(u.Slot.Name, "")).ToArray());
        context.SetValue("fallback", used.Select(u => u.OrElse).ToArray());
        context.SetValue("holds", Enum.GetValues<TextWhen>().Select(holding.Contains).ToArray());
        var empty = used.Where(u => u.OrElse.Length == 0 && u.When.All(holding.Contains) && string.IsNullOrWhiteSpace(values.GetValueOrDefault(u.Slot.Name)))
            .Select(u => u.Slot).Distinct().ToList();
        return new FilledWording(OneLine(subject.Render(context, NullEncoder.Default)), body.Render(context, Encoder), empty);
    }

    private static IFluidTemplate Parse(string fragment, string part, List<UsedSlot> used, List<string> errors)
    {
        var document = new HtmlParser().ParseDocument($"<body>{fragment.Replace("\uE000", "", StringComparison.Ordinal).Replace("\uE001", "", StringComparison.Ordinal)}</body>");
        var slots = new List<string>();
        var conditions = Conditions(document, part, errors);
        foreach (var element in document.QuerySelectorAll("[data-slot]").ToList())
        {
            var name = element.GetAttribute("data-slot")!;
            if (SlotCatalogue.Find(name) is { } slot)
            {
                used.Add(new UsedSlot(part, slot, element.GetAttribute("data-or-else")?.Trim() ?? "", [.. conditions.Where(c => c.Element.Contains(element)).Select(c => c.When)]));
                slots.Add($"{{{{ value[{used.Count - 1}] | default: fallback[{used.Count - 1}] {(slot.IsHtml ? "| raw " : "")}}}}}");
            }
            else
            {
                errors.Add($"The {part} has a slot “{name}” that names nothing known{Nearest(name)}");
                slots.Add("");
            }

            element.Replace(document.CreateTextNode(Placeholder(slots.Count - 1)));
        }

        foreach (var (element, when) in conditions)
        {
            slots.Add($"{{% if holds[{(int)when}] %}}");
            slots.Add("{% endif %}");

            // A paragraph that is nothing else goes along, so that no empty one is left.
            INode held = element.ParentElement is { LocalName: "p" or "li" } block && IsAll(element, block) ? block : element;
            held.Parent!.InsertBefore(document.CreateTextNode(Placeholder(slots.Count - 2)), held);
            held.Parent!.InsertBefore(document.CreateTextNode(Placeholder(slots.Count - 1)), held.NextSibling);
            element.Replace([.. element.ChildNodes]);
        }

        var literal = part == "subject" ? document.Body!.TextContent : document.Body!.InnerHtml;
        var escaped = LiquidOpening().Replace(literal, "{{ '$0' }}");
        var liquid = new StringBuilder(escaped);
        for (var i = 0; i < slots.Count; i++)
        {
            liquid.Replace(Placeholder(i), slots[i]);
        }

        return Parser.TryParse(liquid.ToString(), out var template, out var error)
            ? template
            : throw new InvalidOperationException($"The wording could not be made ready: {error}");
    }

    /// <summary>Whether an element is all there is in a block: no words and no pictures stand beside it.</summary>
    private static bool IsAll(IElement element, IElement block) =>
        block.TextContent.Trim() == element.TextContent.Trim() && block.QuerySelectorAll("img").All(element.Contains);

    /// <summary>The pieces that stand under a condition, the innermost first.</summary>
    private static List<(IElement Element, TextWhen When)> Conditions(IDocument document, string part, List<string> errors)
    {
        var found = new List<(IElement, TextWhen)>();
        foreach (var element in document.QuerySelectorAll("[data-when]").Reverse())
        {
            var name = element.GetAttribute("data-when")!;
            if (TextConditions.Find(name) is { } when)
            {
                found.Add((element, when));
            }
            else
            {
                errors.Add($"The {part} has words under “{name}”, which is no condition that is known; there are {string.Join(", ", TextConditions.Names)}.");
            }
        }

        return found;
    }

    /// <summary>Private-use characters stand for slots while the text around them is made safe; the same characters in the text are taken out before.</summary>
    private static string Placeholder(int index) => $"\uE000{index}\uE001";

    private static string Nearest(string name) =>
        SlotCatalogue.Nearest(name, [.. SlotCatalogue.All.Select(s => s.Name)]) is { } near ? $"; did you mean “{SlotCatalogue.Find(near)!.Label}”?" : ".";

    private static string OneLine(string text) => Breaks().Replace(text, " ").Trim();

    [GeneratedRegex(@"\{[\{%]")]
    private static partial Regex LiquidOpening();

    [GeneratedRegex(@"[\s\p{Cc}\u2028\u2029]+")]
    private static partial Regex Breaks();

    private sealed record UsedSlot(string Part, Slot Slot, string OrElse, IReadOnlyList<TextWhen> When);
}
