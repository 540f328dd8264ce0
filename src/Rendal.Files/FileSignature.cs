using System.Text;

namespace Rendal.Files;

/// <summary>What a file really is, whatever its name says.</summary>
public enum FileFormat
{
    /// <summary>Text with separated cells.</summary>
    Text,

    /// <summary>A workbook of ISO/IEC 29500 (XLSX).</summary>
    Xlsx,

    /// <summary>A workbook in the older binary form (XLS, BIFF).</summary>
    Xls,

    /// <summary>A workbook of ISO/IEC 26300 (ODS).</summary>
    Ods,
}

/// <summary>Tells by its content what a file really is.</summary>
public static class FileSignature
{
    private const string Instead = "ask the accounting program for a workbook or a CSV file instead";

    private static readonly (byte[] Start, string What)[] Refused =
    [
        ("%PDF"u8.ToArray(), $"a PDF; {Instead}"),
        ([0x89, 0x50, 0x4E, 0x47], $"a picture; {Instead}"),
        ([0xFF, 0xD8, 0xFF], $"a picture; {Instead}"),
        ("GIF8"u8.ToArray(), $"a picture; {Instead}"),
        ("BM"u8.ToArray(), $"a picture; {Instead}"),
        ([0x49, 0x49, 0x2A, 0x00], $"a picture; {Instead}"),
        ([0x4D, 0x4D, 0x00, 0x2A], $"a picture; {Instead}"),
        ("{\\rtf"u8.ToArray(), $"a text document; {Instead}"),
        ([0x1F, 0x8B], "a packed file; unpack it first"),
        ([0x37, 0x7A, 0xBC, 0xAF], "a packed file; unpack it first"),
        ("Rar!"u8.ToArray(), "a packed file; unpack it first"),
    ];

    private static ReadOnlySpan<byte> Zip => [0x50, 0x4B, 0x03, 0x04];

    private static ReadOnlySpan<byte> Compound => [0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1];

    /// <summary>Tells what a file is by its first bytes, whatever its name says.</summary>
    /// <param name="name">The file's name, for the refusal.</param>
    /// <param name="open">Opens the file from its start. A packed or compound file needs a stream that can seek.</param>
    /// <exception cref="FileRefused">The file is empty, or something that no ledger comes in; the message names it.</exception>
    public static FileFormat Of(string name, Func<Stream> open)
    {
        var start = new byte[512];
        int length;
        using (var stream = open())
        {
            length = stream.ReadAtLeast(start, start.Length, throwOnEndOfStream: false);
        }

        if (length == 0)
        {
            throw new FileRefused($"{name} is empty.");
        }

        var head = start.AsSpan(0, length);
        if (head.StartsWith(Zip))
        {
            return OfZip(name, open);
        }

        if (head.StartsWith(Compound))
        {
            return OfCompound(name, open);
        }

        // The first workbooks were a bare stream of records; each begins with one that says so.
        if (length > 8 && head[0] == 0x09 && head[1] is 0x00 or 0x02 or 0x04 or 0x08 && head[3] == 0 && head[2] is >= 4 and <= 16)
        {
            return FileFormat.Xls;
        }

        foreach (var (mark, what) in Refused)
        {
            if (head.StartsWith(mark))
            {
                throw new FileRefused($"{name} is {what}.");
            }
        }

        var text = Encoding.Latin1.GetString(head).TrimStart('\u00EF', '\u00BB', '\u00BF', ' ', '\r', '\n', '\t');
        if (
            text.StartsWith("<?xml", StringComparison.OrdinalIgnoreCase)
            || text.StartsWith("<html", StringComparison.OrdinalIgnoreCase)
            || text.StartsWith("<!doctype", StringComparison.OrdinalIgnoreCase)
            || text.StartsWith("<table", StringComparison.OrdinalIgnoreCase)
        )
        {
            throw new FileRefused(
                $"{name} is a web page or an XML file, whatever its name says; open it in a spreadsheet program, save it as a "
                    + "workbook, and take that in."
            );
        }

        return FileFormat.Text;
    }

    private static FileFormat OfZip(string name, Func<Stream> open)
    {
        using var packed = new PackedFile(name, open);
        if (packed.Has("xl/workbook.xml") || packed.Has("xl/workbook.bin"))
        {
            return FileFormat.Xlsx;
        }

        if (packed.Has("word/document.xml"))
        {
            throw new FileRefused($"{name} is a text document; {Instead}.");
        }

        return packed.Text("mimetype")?.Trim() switch
        {
            null => throw new FileRefused($"{name} is a packed file; unpack it first."),
            var type when type.StartsWith("application/vnd.oasis.opendocument.spreadsheet", StringComparison.Ordinal) => FileFormat.Ods,
            var type when type.StartsWith("application/vnd.oasis.opendocument.text", StringComparison.Ordinal) => throw new FileRefused(
                $"{name} is a text document; {Instead}."
            ),
            _ => throw new FileRefused($"{name} is a packed file, but no workbook; {Instead}."),
        };
    }

    /// <summary>
    /// The names of the streams in a compound file stand in it as UTF-16; the first two megabytes hold its directory or it is looked at no
    /// further.
    /// </summary>
    private static FileFormat OfCompound(string name, Func<Stream> open)
    {
        using var stream = open();
        var bytes = new byte[2 * 1024 * 1024];
        var span = bytes.AsSpan(0, stream.ReadAtLeast(bytes, bytes.Length, throwOnEndOfStream: false));
        bool Has(ReadOnlySpan<byte> part, string entry) => part.IndexOf(Encoding.Unicode.GetBytes(entry + "\0")) >= 0;
        if (Has(span, "EncryptedPackage"))
        {
            throw UnderPassword(name);
        }

        if (Has(span, "WordDocument"))
        {
            throw new FileRefused($"{name} is a text document; {Instead}.");
        }

        return FileFormat.Xls;
    }

    /// <summary>What is said of a file that is under a password.</summary>
    internal static FileRefused UnderPassword(string name) =>
        new($"{name} is a workbook under a password; save it without one and take that in.");

    /// <summary>What is said of a file that breaks off or contradicts itself.</summary>
    internal static FileRefused Damaged(string name, Exception e) =>
        new($"{name} is damaged or cut short; open it in a spreadsheet program, look whether it is whole, and save it anew.", e);
}
