using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Wordprocessing;
using Rendal.Core.Layouts;
using Rendal.Core.Wordings;

namespace Rendal.Files.Docx;

/// <summary>What a letter that is brought along has in it.</summary>
/// <param name="Slots">Its slots in their order, each once for each fallback and condition.</param>
/// <param name="Problems">What keeps it from being used, one sentence each with its place; empty when it can be used.</param>
public sealed record DocxInspection(IReadOnlyList<DocxSlot> Slots, IReadOnlyList<string> Problems)
{
    private const int Quoted = 40;

    /// <summary>Tells which slots a letter has and what keeps it from being a layout.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="headings">The headings of the columns of the ledger that have no meaning for the rules; a slot for one that is not
    /// among them is a problem. Null where there is no ledger yet, which takes any.</param>
    public static DocxInspection At(byte[] bytes, IReadOnlyCollection<string>? headings = null)
    {
        if (DocxFile.Problem(bytes) is { } problem)
        {
            return new DocxInspection([], [problem]);
        }

        var looking = new Looking(headings);
        using var letter = WordprocessingDocument.Open(new MemoryStream(bytes), false);
        foreach (var (place, root) in DocxFile.Roots(letter))
        {
            looking.Walk(place, root, []);
        }

        return new DocxInspection(
            [.. looking.Slots.DistinctBy(s => (s.Name, s.OrElse, string.Join(',', s.When)))],
            [.. looking.Problems.Distinct()]
        );
    }

    /// <summary>
    /// The name in the catalogue of a slot that is written by its name or its label, whatever the case; null where there is none.
    /// </summary>
    internal static string? NameOf(string written)
    {
        if (written.StartsWith(DocxSlot.OfItem, StringComparison.OrdinalIgnoreCase))
        {
            var field = written[DocxSlot.OfItem.Length..].Trim();
            return DocxSlot.OfItem
                + (ItemFields.All.Append("currency").FirstOrDefault(f => f.Equals(field, StringComparison.OrdinalIgnoreCase)) ?? field);
        }

        return SlotCatalogue
            .All.FirstOrDefault(s =>
                !s.IsOfMessage
                && (
                    s.Name.Equals(written, StringComparison.OrdinalIgnoreCase)
                    || s.Label.Equals(written, StringComparison.OrdinalIgnoreCase)
                )
            )
            ?.Name
            ?? (
                written.StartsWith(SlotCatalogue.Column, StringComparison.OrdinalIgnoreCase)
                && written.Length > SlotCatalogue.Column.Length
                    ? SlotCatalogue.Column + written[SlotCatalogue.Column.Length..].Trim()
                    : null
            );
    }

    private sealed class Looking(IReadOnlyCollection<string>? headings)
    {
        /// <summary>The slots in it, in the order met.</summary>
        public List<DocxSlot> Slots { get; } = [];

        /// <summary>What is wrong with it, one sentence each.</summary>
        public List<string> Problems { get; } = [];

        /// <summary>Looks through what stands in one place, block by block, so that conditions are known.</summary>
        public void Walk(string place, OpenXmlElement container, IReadOnlyList<TextWhen> when)
        {
            var open = new Stack<TextWhen>(when);
            foreach (var child in container.ChildElements)
            {
                if (child is Paragraph paragraph)
                {
                    Paragraph(place, paragraph, open);
                }

                // Text boxes, cells of tables, and whatever else holds paragraphs.
                Walk(place, child, [.. open.Reverse()]);
            }

            if (open.Count > when.Count)
            {
                Problems.Add($"In the {place} a condition is opened with “{{{{ if … }}}}” and not ended with “{{{{ end }}}}” beside it.");
            }
        }

        private void Paragraph(string place, Paragraph paragraph, Stack<TextWhen> open)
        {
            var text = new ParagraphText(paragraph).All;
            if (Mark.IsBroken(text))
            {
                Problems.Add(
                    $"In the {place}, “{Short(text)}”: a slot stands between two opening and two closing braces, {{{{ like this }}}}."
                );
            }

            var marks = Mark.In(text);
            if (!Mark.IsAlone(marks, text) && !IsWhole(marks))
            {
                Problems.Add(
                    $"In the {place}, “{Short(text)}”: a condition begins and ends within one paragraph, or “{{{{ if … }}}}” "
                        + $"and “{{{{ end }}}}” stand in paragraphs of their own."
                );
                return;
            }

            var inRow = paragraph.Ancestors<TableRow>().Any();
            foreach (var mark in marks)
            {
                if (mark.If is { } words)
                {
                    if (Mark.Condition(words) is { } when)
                    {
                        open.Push(when);
                    }
                    else
                    {
                        Problems.Add(
                            $"In the {place}: “{words}” is no condition that is known; there are "
                                + $"{string.Join(", ", Mark.AllConditions.Select(c => $"“{c}”"))}."
                        );
                        open.Push(TextWhen.Always);
                    }
                }
                else if (mark.IsEnd)
                {
                    if (!open.TryPop(out _))
                    {
                        Problems.Add($"In the {place}, “{Short(text)}”: “{{{{ end }}}}” ends nothing.");
                    }
                }
                else
                {
                    Slot(place, mark, [.. open.Reverse()], inRow);
                }
            }
        }

        private void Slot(string place, Mark mark, IReadOnlyList<TextWhen> when, bool inRow)
        {
            var (written, orElse) = mark.Slot;
            var name = NameOf(written);
            if (name is null || !IsKnown(name))
            {
                IReadOnlyCollection<string> known =
                [
                    .. SlotCatalogue
                        .All.Where(s => !s.IsOfMessage)
                        .SelectMany(s => new[] { s.Name, s.Label })
                        .Concat(ItemFields.All.Append("currency").Concat(headings ?? []).Select(f => DocxSlot.OfItem + f))
                        .Concat((headings ?? []).Select(h => SlotCatalogue.Column + h)),
                ];
                Problems.Add(
                    $"In the {place}: “{written}” names nothing "
                        + $"known{(SlotCatalogue.Nearest(written, known) is { } near ? $"; did you mean “{near}”?" : ".")}"
                );
                return;
            }

            if (name.StartsWith(DocxSlot.OfItem, StringComparison.Ordinal) && !inRow)
            {
                Problems.Add(
                    $"In the {place}: “{written}” is of one item, so it has to stand in a row of a table; the row then stands "
                        + "once for each item."
                );
            }

            Slots.Add(new DocxSlot(name, orElse, when));
        }

        /// <summary>Whether each condition of a paragraph is ended in it, and none is ended that was not opened.</summary>
        private static bool IsWhole(IReadOnlyList<Mark> marks)
        {
            var depth = 0;
            return marks.All(m =>
                    (
                        depth +=
                            m.If is not null ? 1
                            : m.IsEnd ? -1
                            : 0
                    ) >= 0
                )
                && depth == 0;
        }

        private bool IsKnown(string name) => headings is null || (Column(name) is not { } column || headings.Contains(column));

        /// <summary>The heading of the column that a slot is for; null for one of the catalogue.</summary>
        private static string? Column(string name) =>
            name.StartsWith(DocxSlot.OfItem, StringComparison.Ordinal)
                ? name[DocxSlot.OfItem.Length..] is var field && (ItemFields.All.Contains(field) || field == "currency")
                    ? null
                    : field
                : name.StartsWith(SlotCatalogue.Column, StringComparison.Ordinal)
                    ? name[SlotCatalogue.Column.Length..]
                    : null;

        private static string Short(string text) => text.Length > Quoted ? text[..Quoted] + "…" : text;
    }
}
