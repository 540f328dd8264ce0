using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Wordprocessing;

namespace Rendal.Files.Tests.Docx;

/// <summary>Letters as word processors write them.</summary>
internal static class Docx
{
    /// <summary>A letter of paragraphs and tables.</summary>
    public static byte[] Of(params OpenXmlElement[] body) => Of(WordprocessingDocumentType.Document, null, body);

    /// <summary>A letter of paragraphs, each of one run.</summary>
    public static byte[] Of(params string[] paragraphs) => Of([.. paragraphs.Select(p => Paragraph(p))]);

    public static byte[] Of(WordprocessingDocumentType type, Action<MainDocumentPart>? more, params OpenXmlElement[] body)
    {
        using var stream = new MemoryStream();
        using (var file = WordprocessingDocument.Create(stream, type))
        {
            var main = file.AddMainDocumentPart();
            main.Document = new Document(new Body(body));
            more?.Invoke(main);
        }

        return stream.ToArray();
    }

    /// <summary>A paragraph of runs that look different, as after somebody edited it.</summary>
    public static Paragraph Paragraph(params string[] runs) =>
        new(
            runs.Select(
                (text, i) =>
                    new Run(
                        new RunProperties { Bold = i % 2 == 1 ? new Bold() : null },
                        new Text(text) { Space = SpaceProcessingModeValues.Preserve }
                    )
            )
        );

    public static Table Table(params string[][] rows) =>
        new([
            new TableProperties(),
            new TableGrid(rows[0].Select(_ => new GridColumn())),
            .. rows.Select(row => new TableRow(row.Select(cell => new TableCell(Paragraph(cell))))),
        ]);

    /// <summary>The words of each paragraph of all places of a letter, tables row by row.</summary>
    public static List<string> Lines(byte[] letter)
    {
        using var file = WordprocessingDocument.Open(new MemoryStream(letter), false);
        var main = file.MainDocumentPart!;
        return
        [
            .. main.HeaderParts.SelectMany(h => h.Header!.Descendants<Paragraph>()).Select(p => p.InnerText),
            .. main.Document!.Body!.Descendants<Paragraph>()
                .Select(p =>
                    string.Concat(
                        p.Descendants()
                            .Where(d => d is Text or Break && d.Ancestors<Paragraph>().First() == p)
                            .Select(d => d is Break ? "\n" : d.InnerText)
                    )
                ),
            .. main.FooterParts.SelectMany(f => f.Footer!.Descendants<Paragraph>()).Select(p => p.InnerText),
        ];
    }
}
