using System.Xml;
using System.Xml.Linq;

namespace Rendal.Files.Workbooks;

/// <summary>
/// The parts of an XLSX workbook (ISO/IEC 29500-2). Without the one that holds its texts a workbook reads as if they were empty.
/// </summary>
internal static class XlsxParts
{
    private const string Spreadsheet = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    private const string Relationships = "http://schemas.openxmlformats.org/package/2006/relationships";

    private static readonly Uri Folder = new("file:///xl/");

    /// <summary>Whether a boolean of XML Schema is true: it is written <c>1</c> or <c>true</c>.</summary>
    public static bool IsTrue(string? boolean) => boolean is "1" or "true";

    /// <summary>The parts that the sheets are in, by the sheets' names; without those that are not there.</summary>
    public static IReadOnlyDictionary<string, string> OfSheets(PackedFile packed)
    {
        var parts = new Dictionary<string, string>(StringComparer.Ordinal);
        if (Load(packed, "xl/workbook.xml") is not { } book || Load(packed, "xl/_rels/workbook.xml.rels") is not { } relationships)
        {
            return parts;
        }

        var targets = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var relationship in relationships.Descendants(XName.Get("Relationship", Relationships)))
        {
            targets.TryAdd((string?)relationship.Attribute("Id") ?? "", Part((string?)relationship.Attribute("Target") ?? ""));
        }

        foreach (var sheet in book.Descendants(XName.Get("sheet", Spreadsheet)))
        {
            var id = sheet.Attributes().FirstOrDefault(a => a.Name.LocalName == "id" && a.Name.NamespaceName.Length > 0)?.Value ?? "";
            if (targets.TryGetValue(id, out var part) && packed.Has(part))
            {
                parts.TryAdd((string?)sheet.Attribute("name") ?? "", part);
            }
        }

        return parts;
    }

    /// <summary>The first part that the workbook names as its own and that is not there; null where all are.</summary>
    public static string? FirstMissing(PackedFile packed)
    {
        var book = packed.Has("xl/workbook.xml") ? "xl/_rels/workbook.xml.rels" : "xl/_rels/workbook.bin.rels";
        return Load(packed, book) is not { } relationships
            ? book
            : relationships
                .Descendants(XName.Get("Relationship", Relationships))
                .Where(r => (string?)r.Attribute("TargetMode") != "External")
                .Select(r => Part((string?)r.Attribute("Target") ?? ""))
                .FirstOrDefault(part => !packed.Has(part));
    }

    private static string Part(string target) =>
        Uri.TryCreate(Folder, target, out var part) ? Uri.UnescapeDataString(part.AbsolutePath[1..]) : target;

    /// <summary>A small part as a tree; null where it is not there or no XML.</summary>
    private static XDocument? Load(PackedFile packed, string part)
    {
        if (packed.Text(part) is not { } content)
        {
            return null;
        }

        try
        {
            using var xml = XmlReader.Create(new StringReader(content), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit });
            return XDocument.Load(xml);
        }
        catch (XmlException)
        {
            return null;
        }
    }
}
