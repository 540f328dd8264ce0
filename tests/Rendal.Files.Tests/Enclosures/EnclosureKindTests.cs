using System.IO.Compression;
using Rendal.Files.Enclosures;

namespace Rendal.Files.Tests.Enclosures;

/// <summary>What may be enclosed.</summary>
public sealed class EnclosureKindTests
{
    private static readonly byte[] Pdf = "%PDF-1.7\n"u8.ToArray();

    [Theory]
    [InlineData("invoice.pdf", "%PDF-1.7", "")]
    [InlineData("INVOICE.PDF", "\u0000\u0001%PDF-1.4", "")]
    [InlineData("terms.txt", "as agreed", "")]
    [InlineData("terms.txt", "", "is empty")]
    [InlineData("invoice.pdf", "MZ\u0090", "is a program")]
    [InlineData("setup.txt", "#!/bin/sh", "is a program")]
    [InlineData("invoice.pdf", "<html>", "is not what its ending .pdf says")]
    [InlineData("invoice.txt", "%PDF-1.7", "is not what its ending .txt says")]
    [InlineData("map.png", "GIF89a", "is not what its ending .png says")]
    [InlineData("page.html", "<html>", "is of a kind (.html) that this book does not enclose")]
    [InlineData("README", "text", "has no ending that says what it is")]
    public void A_file_is_what_its_content_says(string name, string content, string problem) =>
        Assert.Equal(problem, EnclosureKind.Problem(name, System.Text.Encoding.Latin1.GetBytes(content), []));

    [Fact]
    public void A_document_with_macros_goes_only_where_the_book_allows_its_kind()
    {
        var sheet = Packed("xl/workbook.xml", "xl/vbaProject.bin");
        Assert.Equal("has macros in it", EnclosureKind.Problem("prices.xlsx", sheet, []));
        Assert.Equal("is of a kind (.xlsm) that this book does not enclose", EnclosureKind.Problem("prices.xlsm", sheet, []));
        Assert.Equal("", EnclosureKind.Problem("prices.xlsm", sheet, [".xlsm"]));
        Assert.Equal("", EnclosureKind.Problem("prices.xlsx", Packed("xl/workbook.xml"), []));
    }

    [Fact]
    public void A_kind_that_the_book_allows_is_allowed_in_either_case() =>
        Assert.Equal("", EnclosureKind.Problem("signed.P7M", Pdf, [".p7m"]));

    private static byte[] Packed(params string[] parts)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var part in parts)
            {
                zip.CreateEntry(part);
            }
        }

        return bytes.ToArray();
    }
}
