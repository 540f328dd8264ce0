using System.IO.Compression;
using System.Xml;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Wordprocessing;
using Rendal.Core.Budgets;

namespace Rendal.Files.Docx;

/// <summary>Opens letters, and refuses what is no letter or could do more than be read.</summary>
internal static class DocxFile
{
    private const int MostParts = 2_000;

    private static readonly string[] FetchingFields = ["INCLUDETEXT", "INCLUDEPICTURE", "DDE", "DDEAUTO", "LINK", "IMPORT", "DATABASE"];

    /// <summary>Why a file cannot be taken as a letter, as a sentence with what to do; null where it can.</summary>
    public static string? Problem(byte[] bytes)
    {
        if (bytes is [0xD0, 0xCF, 0x11, 0xE0, ..])
        {
            return "The file is under a password, or in the older form of word processors. Save it as DOCX without a password.";
        }

        if (bytes is not [0x50, 0x4B, 0x03, 0x04, ..])
        {
            return "The file is no DOCX. Save the letter as DOCX in your word processor.";
        }

        try
        {
            using (var zip = new ZipArchive(new MemoryStream(bytes), ZipArchiveMode.Read))
            {
                if (
                    zip.GetEntry("mimetype") is { Length: < 200 } kind
                    && new StreamReader(kind.Open()).ReadToEnd().Contains("opendocument.text", StringComparison.Ordinal)
                )
                {
                    return "The file is an ODT. Save it as DOCX in your word processor.";
                }

                if (zip.Entries.Count > MostParts || zip.Entries.Sum(e => Math.Max(0, e.Length)) > Limits.Letter.Most(Cost.Bytes))
                {
                    return "The file unpacks to more than a letter can be. Save it anew in your word processor.";
                }

                if (zip.Entries.Any(e => e.Name.Contains("vbaProject", StringComparison.OrdinalIgnoreCase)))
                {
                    return "The file has macros in it. Save it as a plain DOCX without macros.";
                }

                CheckTrees(zip);
            }

            using var letter = WordprocessingDocument.Open(new MemoryStream(bytes), false);
            if (letter.DocumentType != WordprocessingDocumentType.Document)
            {
                return
                    letter.DocumentType
                        is WordprocessingDocumentType.MacroEnabledDocument
                            or WordprocessingDocumentType.MacroEnabledTemplate
                    ? "The file has macros in it. Save it as a plain DOCX without macros."
                    : "The file is a template. Save it as a DOCX document.";
            }

            return Fetching(letter);
        }
        catch (OverBudget e)
        {
            return e.Message;
        }
        catch (Exception e)
            when (PackedFile.IsDamage(e)
                || e is OpenXmlPackageException or XmlException or FileFormatException or KeyNotFoundException or InvalidOperationException
            )
        {
            return "The file is damaged, or no DOCX. Open it in your word processor and save it anew.";
        }
    }

    /// <summary>
    /// The texts of a letter with the name of where each stands: the body, headers, footers and notes; text boxes stand within them.
    /// </summary>
    public static IEnumerable<(string Place, OpenXmlPartRootElement Root)> Roots(WordprocessingDocument letter)
    {
        var main = letter.MainDocumentPart!;
        yield return ("body", main.Document!);
        foreach (var part in main.Parts.Select(p => p.OpenXmlPart))
        {
            var place = part switch
            {
                HeaderPart => "header",
                FooterPart => "footer",
                FootnotesPart => "footnotes",
                EndnotesPart => "endnotes",
                _ => null,
            };
            if (place is not null && part.RootElement is { } root)
            {
                yield return (place, root);
            }
        }
    }

    /// <summary>
    /// Looks how deeply the elements of each part are nested, before anything makes a tree of them: whatever walks it goes down
    /// a level of the stack with each.
    /// </summary>
    private static void CheckTrees(ZipArchive zip)
    {
        var budget = TimedBudget.Begin("The letter", Limits.Letter, CancellationToken.None);
        foreach (var part in zip.Entries.Where(e => Path.GetExtension(e.FullName).ToUpperInvariant() is ".XML" or ".RELS"))
        {
            using var content = part.Open();
            using var xml = XmlReader.Create(content, new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit });
            while (xml.Read())
            {
                if (xml.NodeType == XmlNodeType.Element)
                {
                    budget.Spend(Cost.Elements);
                    budget.AtMost(Cost.Levels, xml.Depth);
                    budget.Continue();
                }
            }
        }
    }

    /// <summary>Whatever would make a program fetch something when it opens the letter.</summary>
    private static string? Fetching(WordprocessingDocument letter)
    {
        if (letter.MainDocumentPart?.Document?.Body is null)
        {
            throw new InvalidDataException("The document part is missing.");
        }

        foreach (var part in letter.GetAllParts())
        {
            if (
                part.ExternalRelationships.FirstOrDefault(r =>
                    !r.RelationshipType.EndsWith("/attachedTemplate", StringComparison.Ordinal)
                ) is
                { } external
            )
            {
                return $"The letter takes in something from elsewhere ({external.Uri}). Put it into the document itself.";
            }

            if (part is EmbeddedObjectPart or EmbeddedPackagePart or AlternativeFormatImportPart or EmbeddedControlPersistencePart)
            {
                return "The letter has another document embedded in it. Put its text or picture there instead.";
            }
        }

        foreach (var (place, root) in Roots(letter))
        {
            var codes = root.Descendants<FieldCode>()
                .Select(f => f.Text)
                .Concat(root.Descendants<SimpleField>().Select(f => f.Instruction?.Value ?? ""));
            if (codes.Select(c => c.Trim().Split(' ')[0].ToUpperInvariant()).FirstOrDefault(FetchingFields.Contains) is { } field)
            {
                return $"The {place} of the letter has a field that takes in something from elsewhere ({field}). Put it into the "
                    + "document itself.";
            }
        }

        return null;
    }
}
