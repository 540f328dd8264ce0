namespace Rendal.Files;

/// <summary>Tells by its first bytes what a file really is, whatever its name says.</summary>
public static class FileSignature
{
    private static readonly (byte[] Start, string Name)[] Known =
    [
        ([0x50, 0x4B, 0x03, 0x04], "a workbook or another packed file; save the sheet as CSV and take that in"),
        ([0xD0, 0xCF, 0x11, 0xE0], "a workbook or document of an older office program; save the sheet as CSV and take that in"),
        ("%PDF"u8.ToArray(), "a PDF; ask the accounting program for a CSV file instead"),
        ([0x89, 0x50, 0x4E, 0x47], "a picture; ask the accounting program for a CSV file instead"),
        ([0xFF, 0xD8, 0xFF], "a picture; ask the accounting program for a CSV file instead"),
        ("GIF8"u8.ToArray(), "a picture; ask the accounting program for a CSV file instead"),
        ("{\\rtf"u8.ToArray(), "a text document; ask the accounting program for a CSV file instead"),
        ([0x1F, 0x8B], "a packed file; unpack it first"),
    ];

    /// <summary>What the file is, and what to do, when it is no text file; null when it may be one.</summary>
    public static string? NotText(ReadOnlySpan<byte> start)
    {
        foreach (var (mark, name) in Known)
        {
            if (start.StartsWith(mark))
            {
                return name;
            }
        }

        return null;
    }
}
