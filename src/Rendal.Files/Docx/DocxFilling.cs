using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Wordprocessing;
using Rendal.Core.Layouts;
using Rendal.Core.Wordings;
using Rendal.Files.Documents;

namespace Rendal.Files.Docx;

/// <summary>Fills a letter for one customer.</summary>
public static class DocxFilling
{
    private const string WordNamespace2010 = "http://schemas.microsoft.com/office/word/2010/wordml";

    /// <summary>A copy of a letter with its slots, conditions and tables filled; the letter stays as it is.</summary>
    /// <param name="letter">The file as it was brought; a file without problems, which <see cref="DocxInspection"/> tells.</param>
    /// <param name="content">What it is filled with.</param>
    public static byte[] Fill(byte[] letter, DocxContent content)
    {
        using var stream = new MemoryStream();
        stream.Write(letter);
        stream.Position = 0;
        using (var copy = WordprocessingDocument.Open(stream, true))
        {
            ForgetTemplate(copy);
            foreach (var (_, root) in DocxFile.Roots(copy).ToList())
            {
                Conditions(root, content.Holding);
                var ofItems = root.Descendants<TableRow>().Where(IsOfItems).ToList();

                // Each paragraph is filled once, so that braces in somebody's data stay braces.
                foreach (
                    var paragraph in root.Descendants<Paragraph>().Where(p => !p.Ancestors<TableRow>().Any(ofItems.Contains)).ToList()
                )
                {
                    Fill(paragraph, content.Values.GetValueOrDefault);
                }

                ofItems.ForEach(row => Repeat(row, content));
            }
        }

        return SettledPackage.Of(stream.ToArray());
    }

    /// <summary>Where the template of the letter lies on its writer's computer is nobody's business.</summary>
    private static void ForgetTemplate(WordprocessingDocument letter)
    {
        if (letter.MainDocumentPart!.DocumentSettingsPart is { } settings)
        {
            settings.Settings?.RemoveAllChildren<AttachedTemplate>();
            foreach (var external in settings.ExternalRelationships.ToList())
            {
                settings.DeleteExternalRelationship(external);
            }
        }
    }

    /// <summary>Takes away what stands under a condition that does not hold, and the marks of conditions.</summary>
    private static void Conditions(OpenXmlElement container, IReadOnlySet<TextWhen> holding)
    {
        var open = new Stack<bool>();
        foreach (var child in container.ChildElements.ToList())
        {
            var isMark = false;
            if (child is Paragraph paragraph)
            {
                var text = new ParagraphText(paragraph);
                var marks = Mark.In(text.All);
                if (Mark.IsAlone(marks, text.All))
                {
                    isMark = true;
                    if (marks[0].If is { } words)
                    {
                        open.Push(Mark.Condition(words) is { } when && holding.Contains(when));
                    }
                    else
                    {
                        open.Pop();
                    }
                }
                else
                {
                    Within(text, holding);
                }
            }

            if (isMark || (open.Contains(false) && child is Paragraph or Table or SdtBlock))
            {
                child.Remove();
            }
            else
            {
                Conditions(child, holding);
            }
        }

        if (container is TableCell or TextBoxContent && !container.Elements<Paragraph>().Any())
        {
            container.Append(new Paragraph());
        }
    }

    /// <summary>Conditions that begin and end within a paragraph, the innermost first.</summary>
    private static void Within(ParagraphText text, IReadOnlySet<TextWhen> holding)
    {
        while (Innermost(Mark.In(text.All)) is var (begin, end))
        {
            if (Mark.Condition(begin.If!) is { } when && holding.Contains(when))
            {
                text.Replace(end.Start, end.Length, "");
                text.Replace(begin.Start, begin.Length, "");
            }
            else
            {
                text.Replace(begin.Start, end.Start + end.Length - begin.Start, "");
            }
        }
    }

    /// <summary>The first end of a condition with the beginning that is nearest before it; null where there is none.</summary>
    private static (Mark Begin, Mark End)? Innermost(IReadOnlyList<Mark> marks) =>
        marks.FirstOrDefault(m => m.IsEnd) is { } end && marks.LastOrDefault(m => m.If is not null && m.Start < end.Start) is { } begin
            ? (begin, end)
            : null;

    /// <summary>A row with slots of an item stands once for each item; without items, not at all.</summary>
    private static void Repeat(TableRow row, DocxContent content)
    {
        foreach (var item in content.Items)
        {
            var copy = (TableRow)row.CloneNode(true);
            foreach (var paragraph in copy.Descendants<Paragraph>().ToList())
            {
                Fill(paragraph, name => (IsOfItem(name) ? item : content.Values).GetValueOrDefault(name));
                Rename(paragraph);
            }

            row.InsertBeforeSelf(copy);
        }

        var table = row.Ancestors<Table>().First();
        row.Remove();
        if (!table.Elements<TableRow>().Any())
        {
            table.Remove();
        }
    }

    private static bool IsOfItems(TableRow row) =>
        row.Descendants<Paragraph>()
            .Where(p => p.Ancestors<TableRow>().First() == row)
            .SelectMany(p => Mark.In(new ParagraphText(p).All))
            .Any(m => IsOfItem(m.Slot.Name));

    private static bool IsOfItem(string name) => name.StartsWith(DocxSlot.OfItem, StringComparison.OrdinalIgnoreCase);

    /// <summary>What is there only once, a number of a paragraph or a bookmark, is not there in copies of it.</summary>
    private static void Rename(Paragraph paragraph)
    {
        paragraph.RemoveAttribute("paraId", WordNamespace2010);
        paragraph.RemoveAttribute("textId", WordNamespace2010);
        foreach (var once in paragraph.Descendants().Where(e => e is BookmarkStart or BookmarkEnd).ToList())
        {
            once.Remove();
        }
    }

    private static void Fill(Paragraph paragraph, Func<string, string?> valueOf)
    {
        var text = new ParagraphText(paragraph);
        foreach (var mark in Mark.In(text.All).Reverse())
        {
            var (written, orElse) = mark.Slot;
            var value = DocxInspection.NameOf(written) is { } name
                ? valueOf(name)
                : throw new InvalidOperationException($"“{written}” names nothing known.");
            text.Replace(mark.Start, mark.Length, string.IsNullOrWhiteSpace(value) ? orElse : value);
        }
    }
}
