using System.Xml;
using System.Xml.Linq;

namespace Rendal.Files.Workbooks;

/// <summary>The parts of an XLSX workbook (ISO/IEC 29500-2). Without the one that holds its texts a workbook reads as if they were empty.</summary>
internal static class XlsxParts
{
    private const string Relationships = "http://schemas.openxmlformats.org/package/2006/relationships";

    private static readonly Uri Folder = new("file:///xl/");

    /// <summary>The first part that the workbook names as its own and that is not there; null where all are.</summary>
    public static string? FirstMissing(PackedFile packed)
    {
        var book = packed.Has("xl/workbook.xml") ? "xl/_rels/workbook.xml.rels" : "xl/_rels/workbook.bin.rels";
        if (packed.Text(book) is not { } content)
        {
            return book;
        }

        try
        {
            using var xml = XmlReader.Create(new StringReader(content), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit });
            return XDocument.Load(xml).Descendants(XName.Get("Relationship", Relationships))
                .Where(r => (string?)r.Attribute("TargetMode") != "External")
                .Select(r => (string?)r.Attribute("Target") ?? "")
                .Select(target => Uri.TryCreate(Folder, target, out var part) ? Uri.UnescapeDataString(part.AbsolutePath[1..]) : target)
                .FirstOrDefault(part => !packed.Has(part));
        }
        catch (XmlException)
        {
            return book;
        }
    }
}
