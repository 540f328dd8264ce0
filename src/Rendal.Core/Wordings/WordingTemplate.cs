using System.Text;
using System.Text.Encodings.Web;
using System.Text.RegularExpressions;
using System.Text.Unicode;
using Rendal.Core.Layouts;

namespace Rendal.Core.Wordings;

/// <summary>
/// A wording made ready to be filled many times: a tree of text, slots and conditions. What people type and what slots are filled with is
/// text wherever it lands; it never becomes markup, a header or part of the template.
/// </summary>
public sealed partial class WordingTemplate
{
    private static readonly HtmlEncoder Encoder = HtmlEncoder.Create(UnicodeRanges.All);

    private readonly IReadOnlyList<WordingPart> subject;
    private readonly IReadOnlyList<WordingPart> body;

    /// <summary>A wording that was taken apart.</summary>
    /// <param name="subject">The pieces of its subject.</param>
    /// <param name="body">The pieces of its body.</param>
    /// <param name="pictures">The numbers of the pictures in its body.</param>
    /// <param name="errors">What is wrong with it, one sentence each.</param>
    public WordingTemplate(
        IReadOnlyList<WordingPart> subject,
        IReadOnlyList<WordingPart> body,
        IReadOnlyList<long> pictures,
        IReadOnlyList<string> errors
    ) => (this.subject, this.body, Pictures, Errors) = (subject, body, pictures, errors);

    /// <summary>The numbers of the pictures in its body.</summary>
    public IReadOnlyList<long> Pictures { get; }

    /// <summary>
    /// What is wrong with the wording itself, one sentence each: slots that name nothing known, a table in the subject, more than can be
    /// worked through. Empty when it can be used.
    /// </summary>
    public IReadOnlyList<string> Errors { get; }

    /// <summary>Whether a slot stands in its body, be it under a condition.</summary>
    /// <param name="slot">The name of the slot.</param>
    public bool Has(string slot)
    {
        return IsIn(body);

        bool IsIn(IReadOnlyList<WordingPart> parts) =>
            parts.Any(part =>
                part is WordingSlot place ? place.Slot.Name == slot : part is WordingCondition condition && IsIn(condition.Parts)
            );
    }

    /// <summary>
    /// Fills the wording. Values are looked up by slot name; a slot that is not among them is empty. Words under a condition that does not
    /// hold are left away, with their slots.
    /// </summary>
    /// <param name="values">The values of the slots.</param>
    /// <param name="holding">The conditions that hold.</param>
    /// <param name="traced">Whether each slot of the body has beside it what it was filled from, for a page that is looked at.</param>
    /// <exception cref="InvalidOperationException">The wording has <see cref="Errors"/>.</exception>
    public FilledWording Fill(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding, bool traced = false)
    {
        if (Errors.Count > 0)
        {
            throw new InvalidOperationException($"The wording cannot be filled: {Errors[0]}");
        }

        var filling = new Filling(values, holding);
        return new FilledWording(
            OneLine(filling.Of(subject, (_, value) => value)),
            filling.Of(body, traced ? Traced : (_, value) => Encoder.Encode(value)),
            filling.EmptySlots
        );
    }

    private static string Traced(Slot slot, string value) =>
        $"<span {Origin.Attribute}=\"{Encoder.Encode(Origin.OfSlot(slot.Name).ToString())}\">{Encoder.Encode(value)}</span>";

    private static string OneLine(string text) => Breaks().Replace(text, " ").Trim();

    [GeneratedRegex(@"[\s\p{Cc}\u2028\u2029]+")]
    private static partial Regex Breaks();

    /// <summary>One filling of a template.</summary>
    private sealed class Filling(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding)
    {
        private readonly List<Slot> empty = [];

        /// <summary>The slots that stood in it and had no value, each once.</summary>
        public IReadOnlyList<Slot> EmptySlots => [.. empty.Distinct()];

        /// <summary>The text of some parts, filled.</summary>
        /// <param name="parts">The parts.</param>
        /// <param name="escape">What makes text of the value of a slot where it lands.</param>
        public string Of(IReadOnlyList<WordingPart> parts, Func<Slot, string, string> escape)
        {
            var text = new StringBuilder();
            Put(parts, escape, text);
            return text.ToString();
        }

        private void Put(IReadOnlyList<WordingPart> parts, Func<Slot, string, string> escape, StringBuilder text)
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

        private string Value(WordingSlot place, Func<Slot, string, string> escape)
        {
            var value = values.GetValueOrDefault(place.Slot.Name, "");
            if (!string.IsNullOrWhiteSpace(value))
            {
                return place.Slot.IsHtml ? value : escape(place.Slot, value);
            }

            if (place.OrElse.Length == 0)
            {
                empty.Add(place.Slot);
            }

            return escape(place.Slot, place.OrElse);
        }
    }
}
