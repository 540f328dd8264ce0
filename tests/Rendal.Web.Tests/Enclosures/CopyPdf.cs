using System.IO.Compression;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Fonts.Standard14Fonts;
using UglyToad.PdfPig.Writer;

namespace Rendal.Web.Tests.Enclosures;

/// <summary>Copies of invoices for tests.</summary>
internal static class CopyPdf
{
    /// <summary>A PDF with a page for each text, whose lines are parted by <c>\n</c>.</summary>
    public static byte[] Of(params string[] pages)
    {
        using var builder = new PdfDocumentBuilder();
        var font = builder.AddStandard14Font(Standard14Font.Helvetica);
        foreach (var text in pages)
        {
            var page = builder.AddPage(PageSize.A4);
            foreach (var (line, at) in text.Split('\n').Select((line, at) => (line, at)))
            {
                page.AddText(line, 11, new PdfPoint(60, 780 - (20 * at)), font);
            }
        }

        return builder.Build();
    }

    /// <summary>Files in a ZIP.</summary>
    public static byte[] Zip(params (string Name, byte[] Bytes)[] files)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, content) in files)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(content);
            }
        }

        return bytes.ToArray();
    }
}
