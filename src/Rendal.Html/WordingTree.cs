using System.Text;
using AngleSharp.Dom;
using AngleSharp.Html;
using Rendal.Core.Budgets;
using Rendal.Core.Wordings;

namespace Rendal.Html;

/// <summary>
/// Makes the tree of a subject or a body: its text, its slots, its choices and its passages. These are elements with an attribute, so
/// that nothing that people type can be taken for one.
/// </summary>
internal sealed class WordingTree
{
    private readonly string part;
    private readonly bool isBody;
    private readonly Budget budget;
    private readonly List<string> errors;
    private readonly StringBuilder text = new();

    private WordingTree(string part, Budget budget, List<string> errors) =>
        (this.part, isBody, this.budget, this.errors) = (part, part == Body, budget, errors);

    /// <summary>What the subject is called in errors.</summary>
    public const string Subject = "subject";

    /// <summary>What the body is called in errors.</summary>
    public const string Body = "body";

    /// <summary>The pieces of a fragment. What is wrong with it is added to the errors, and the pieces are not to be used then.</summary>
    public static IReadOnlyList<WordingPart> Of(string fragment, string part, List<string> errors)
    {
        var budget = new Budget($"The {part}", Limits.Markup);
        try
        {
            return new WordingTree(part, budget, errors).Pieces(Markup.Parse(fragment, budget).Body!, null);
        }
        catch (OverBudget e)
        {
            errors.Add(e.Message);
            return [];
        }
    }

    /// <summary>The pieces that stand inside an element.</summary>
    /// <param name="container">The element.</param>
    /// <param name="dissolved">The one of its elements whose condition is held by the container already; null for none.</param>
    private List<WordingPart> Pieces(INode container, IElement? dissolved)
    {
        var pieces = new List<WordingPart>();
        Walk(container, dissolved, pieces);
        End(pieces);
        return pieces;
    }

    private void Walk(INode container, IElement? dissolved, List<WordingPart> pieces)
    {
        foreach (var node in container.ChildNodes)
        {
            if (node is IElement element)
            {
                Element(element, element == dissolved, pieces);
            }
            else if (node is IText words)
            {
                text.Append(isBody ? HtmlMarkupFormatter.Instance.Text(words) : words.Data);
            }
        }
    }

    private void Element(IElement element, bool isDissolved, List<WordingPart> pieces)
    {
        if (element.GetAttribute(WordingMarks.Slot) is { } slot)
        {
            budget.Spend(Cost.Slots);
            Slot(slot, element, pieces);
        }
        else if (element.GetAttribute(WordingMarks.Choice) is { } by)
        {
            budget.Spend(Cost.Slots);
            Choice(by, element, pieces);
        }
        else if (isDissolved)
        {
            Walk(element, null, pieces);
        }
        else if (element.HasAttribute(WordingMarks.When))
        {
            Add(Passage(element, () => Pieces(element, null)), pieces);
        }
        else if (
            isBody
            && element.LocalName is "p" or "li"
            && element.Children.FirstOrDefault(c => c.HasAttribute(WordingMarks.When) && IsAll(c, element)) is { } all
        )
        {
            // A paragraph that is nothing else goes along, so that no empty one is left.
            Add(Passage(all, () => Tagged(element, all)), pieces);
        }
        else
        {
            Tags(element, null, pieces);
        }
    }

    private List<WordingPart> Tagged(IElement element, IElement dissolved)
    {
        var pieces = new List<WordingPart>();
        Tags(element, dissolved, pieces);
        End(pieces);
        return pieces;
    }

    private void Tags(IElement element, IElement? dissolved, List<WordingPart> pieces)
    {
        var isEmpty = element.Flags.HasFlag(NodeFlags.SelfClosing);
        var hasTags = isBody && !IsPlaceOfABlock(element);
        if (hasTags)
        {
            text.Append(HtmlMarkupFormatter.Instance.OpenTag(element, isEmpty));
        }

        if (!isEmpty)
        {
            Walk(element, dissolved, pieces);
        }

        if (hasTags)
        {
            text.Append(HtmlMarkupFormatter.Instance.CloseTag(element, isEmpty));
        }
    }

    /// <summary>Whether a paragraph is there for a table alone, which no paragraph can hold.</summary>
    private static bool IsPlaceOfABlock(IElement element) =>
        element.LocalName == "p"
        && element.QuerySelectorAll($"[{WordingMarks.Slot}]") is [var only]
        && SlotCatalogue.Find(only.GetAttribute(WordingMarks.Slot)!) is { IsHtml: true, Name: not SlotCatalogue.Signature }
        && IsAll(only, element);

    private void Slot(string name, IElement element, List<WordingPart> pieces)
    {
        if (Known(name, "has a slot") is not { } slot)
        {
            return;
        }

        var format = element.GetAttribute(WordingMarks.Format)?.Trim() ?? "";
        if (slot.IsHtml && !isBody)
        {
            errors.Add($"“{slot.Label}” cannot stand in the subject: a subject is one line of text.");
        }
        else if (FormatProblem(slot, format) is { } problem)
        {
            errors.Add($"The {part} has “{slot.Label}” {problem}");
        }
        else
        {
            var orElse = element.GetAttribute(WordingMarks.OrElse)?.Trim() ?? "";
            Add(new WordingSlot(slot, orElse, format, element.HasAttribute(WordingMarks.Capital)), pieces);
        }
    }

    private static string? FormatProblem(Slot slot, string format) =>
        format.Length == 0 ? null
        : slot.Name == SlotCatalogue.Table
            ? TableColumns.Read(format) is null ? "with columns that are not known, or with one of them twice."
                : null
        : slot.IsHtml || SlotFormat.Of(slot.Kind).Contains(format) ? null
        : $"written as “{format}”, which is no way to write it.";

    private void Choice(string by, IElement element, List<WordingPart> pieces)
    {
        if (Known(by, "chooses a word by") is not { } slot)
        {
            return;
        }

        if (slot.IsHtml)
        {
            errors.Add($"The {part} chooses a word by “{slot.Label}”, which is no text.");
        }
        else if (WordingMarks.ChoiceWords(element) is not { } words)
        {
            errors.Add($"The {part} chooses a word by “{slot.Label}” and has no words for it.");
        }
        else
        {
            Add(new WordingChoice(slot, words, element.GetAttribute(WordingMarks.OrElse) ?? ""), pieces);
        }
    }

    /// <summary>The slot of a name; null, with an error, where there is none.</summary>
    private Slot? Known(string name, string what)
    {
        if (SlotCatalogue.Find(name) is { } slot)
        {
            return slot;
        }

        var near = SlotCatalogue.Nearest(name, [.. SlotCatalogue.All.Select(s => s.Name)]);
        errors.Add(
            $"The {part} {what} “{name}” that names nothing known"
                + $"{(near is null ? "." : $"; did you mean “{SlotCatalogue.Find(near)!.Label}”?")}"
        );
        return null;
    }

    private WordingPassage? Passage(IElement element, Func<List<WordingPart>> under)
    {
        budget.Spend(Cost.Slots);
        if (Condition(element) is not { } when)
        {
            return null;
        }

        // The words so far stand before the condition, not under it.
        var before = text.ToString();
        text.Clear();
        var passage = new WordingPassage(when, under());
        text.Append(before);
        return passage;
    }

    private WordingCondition? Condition(IElement element)
    {
        var name = element.GetAttribute(WordingMarks.When) ?? "";
        if (name == WordingMarks.BySlot)
        {
            return SlotCondition(element);
        }

        if (TextConditions.Find(name) is { } when)
        {
            return new StatementCondition(when);
        }

        errors.Add(
            $"The {part} has words under “{name}”, which is no condition that is known; there are "
                + $"{string.Join(", ", TextConditions.Names)}."
        );
        return null;
    }

    private SlotCondition? SlotCondition(IElement element)
    {
        if (Known(element.GetAttribute(WordingMarks.Of) ?? "", "has words under a condition on") is not { } slot)
        {
            return null;
        }

        var with = element.GetAttribute(WordingMarks.With) ?? "";
        if (slot.IsHtml || WordingMarks.Comparison(element) is not { } comparison)
        {
            errors.Add($"The {part} has words under a condition on “{slot.Label}” that asks nothing that is known.");
            return null;
        }

        if (string.IsNullOrWhiteSpace(with) && comparison is not (SlotComparison.IsEmpty or SlotComparison.IsNotEmpty))
        {
            errors.Add($"The {part} has words under a condition on “{slot.Label}” that compares it with nothing.");
            return null;
        }

        return new SlotCondition(slot, comparison, with);
    }

    private void Add(WordingPart? piece, List<WordingPart> pieces)
    {
        if (piece is not null)
        {
            End(pieces);
            pieces.Add(piece);
        }
    }

    private void End(List<WordingPart> pieces)
    {
        if (text.Length > 0)
        {
            pieces.Add(new WordingText(text.ToString()));
            text.Clear();
        }
    }

    /// <summary>Whether an element is all there is in a block: no words, slots or pictures stand beside it.</summary>
    private static bool IsAll(IElement element, IElement block) =>
        block.TextContent.Trim() == element.TextContent.Trim()
        && block.QuerySelectorAll($"img, [{WordingMarks.Slot}], [{WordingMarks.Choice}]").All(element.Contains);
}
