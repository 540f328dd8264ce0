using System.Collections.Frozen;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.RegularExpressions;
using System.Text.Unicode;
using Rendal.Core.Layouts;
using Rendal.Core.Review;

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
    /// <param name="language">The code of the language that it is written in; empty for that of the customer.</param>
    /// <param name="subject">The pieces of its subject.</param>
    /// <param name="body">The pieces of its body.</param>
    /// <param name="pictures">The numbers of the pictures in its body.</param>
    /// <param name="errors">What is wrong with it, one sentence each.</param>
    public WordingTemplate(
        string language,
        IReadOnlyList<WordingPart> subject,
        IReadOnlyList<WordingPart> body,
        IReadOnlyList<long> pictures,
        IReadOnlyList<string> errors
    )
    {
        (Language, this.subject, this.body, Pictures, Errors) = (language, subject, body, pictures, errors);
        Blocks = [.. All(body).OfType<WordingSlot>().Where(p => p.Slot.IsHtml)];
        Passages = [.. All(subject).Concat(All(body)).OfType<WordingPassage>()];
        Uses = All(subject).Concat(All(body)).SelectMany(SlotsOf).ToFrozenSet(StringComparer.Ordinal);
    }

    /// <summary>The code of the language that it is written in; empty for that of the customer.</summary>
    public string Language { get; }

    /// <summary>The numbers of the pictures in its body.</summary>
    public IReadOnlyList<long> Pictures { get; }

    /// <summary>
    /// What is wrong with the wording itself, one sentence each: slots that name nothing known, a table in the subject, more than can be
    /// worked through. Empty when it can be used.
    /// </summary>
    public IReadOnlyList<string> Errors { get; }

    /// <summary>The pieces of a page that stand in its body, be it under a condition: tables, strips, buttons.</summary>
    public IReadOnlyList<WordingSlot> Blocks { get; }

    /// <summary>The names of the slots that it uses in any way: filled, asked for by a condition, or to choose a word by.</summary>
    public IReadOnlySet<string> Uses { get; }

    /// <summary>The conditions in it, in their order; those of the subject first.</summary>
    public IReadOnlyList<WordingPassage> Passages { get; }

    /// <summary>
    /// Fills the wording. Values are looked up by <see cref="WordingSlot.Key"/>; a slot that is not among them is empty. A piece of a page
    /// may be an empty text, and nothing stands there then. Words under a condition that does not hold are left away, with their slots.
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
            filling.Of(body, (slot, value) => traced && slot is not null ? Traced(slot, value) : Encoder.Encode(value)),
            filling.EmptySlots
        );
    }

    /// <summary>The wording filled as it is read, with what was typed and what was filled told apart.</summary>
    /// <param name="values">The values of the slots.</param>
    /// <param name="holding">The conditions that hold.</param>
    public MessageText Read(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding)
    {
        var text = new MessageTextBuilder();
        var spans = new List<TextSpan>();
        Each(subject, (typed, from) => spans.Add(new TextSpan(typed, from)), typed => spans.Add(new TextSpan(typed, null)));
        Each(body, text.Text, text.Typed);
        return text.End(new MessageLine(spans));

        void Each(IReadOnlyList<WordingPart> parts, Action<string, Slot?> filled, Action<string> typed)
        {
            foreach (var part in parts)
            {
                switch (part)
                {
                    case WordingText written:
                        typed(written.Text);
                        break;
                    case WordingSlot { Slot.IsHtml: true }:
                        text.Block();
                        break;
                    case WordingSlot slot:
                        filled(Filling.Shown(slot, values), slot.Slot);
                        break;
                    case WordingChoice choice:
                        filled(choice.WordFor(values), null);
                        break;
                    case WordingPassage passage when passage.When.Holds(values, holding):
                        Each(passage.Parts, filled, typed);
                        break;
                }
            }
        }
    }

    /// <summary>How many passages are told apart by <see cref="Standing"/>.</summary>
    public const int MostPassages = 63;

    /// <summary>Which of the first <see cref="MostPassages"/> of <see cref="Passages"/> stand, a bit each, the lowest for the first.</summary>
    /// <param name="values">The values of the slots.</param>
    /// <param name="holding">The conditions that hold.</param>
    public long Standing(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding) =>
        Passages
            .Take(MostPassages)
            .Index()
            .Where(p => p.Item.When.Holds(values, holding))
            .Aggregate(0L, (bits, p) => bits | (1L << p.Index));

    private static string Traced(Slot slot, string value) =>
        $"<span {Origin.Attribute}=\"{Encoder.Encode(Origin.OfSlot(slot.Name).ToString())}\">{Encoder.Encode(value)}</span>";

    /// <summary>All pieces, those under conditions too.</summary>
    private static IEnumerable<WordingPart> All(IReadOnlyList<WordingPart> parts) =>
        parts.SelectMany(part => part is WordingPassage passage ? All(passage.Parts).Prepend(part) : [part]);

    private static string[] SlotsOf(WordingPart part) =>
        part switch
        {
            WordingSlot slot => [slot.Slot.Name],
            WordingChoice choice => [choice.By.Name],
            WordingPassage { When: SlotCondition condition } => [condition.Slot.Name],
            _ => [],
        };

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
        /// <param name="escape">What makes text of the value of a slot where it lands, or of a chosen word, which is of no slot.</param>
        public string Of(IReadOnlyList<WordingPart> parts, Func<Slot?, string, string> escape)
        {
            var text = new StringBuilder();
            Put(parts, escape, text);
            return text.ToString();
        }

        private void Put(IReadOnlyList<WordingPart> parts, Func<Slot?, string, string> escape, StringBuilder text)
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
                    case WordingChoice choice:
                        text.Append(escape(null, choice.WordFor(values)));
                        break;
                    case WordingPassage passage when passage.When.Holds(values, holding):
                        Put(passage.Parts, escape, text);
                        break;
                }
            }
        }

        /// <summary>The value of a slot that is text, as it is to stand there; empty where it has none.</summary>
        public static string Shown(WordingSlot place, IReadOnlyDictionary<string, string> values)
        {
            var value = values.GetValueOrDefault(place.Key);
            value = string.IsNullOrWhiteSpace(value) ? place.OrElse : value;
            return place.IsCapital ? Capital(value) : value;
        }

        private string Value(WordingSlot place, Func<Slot?, string, string> escape)
        {
            if (place.Slot.IsHtml && values.TryGetValue(place.Key, out var block))
            {
                return block;
            }

            var value = Shown(place, values);
            if (value.Length == 0)
            {
                empty.Add(place.Slot);
            }

            return escape(place.Slot, value);
        }

        private static string Capital(string text) =>
            text.Length == 0 ? text : Rune.ToUpperInvariant(Rune.GetRuneAt(text, 0)) + text[Rune.GetRuneAt(text, 0).Utf16SequenceLength..];
    }
}
