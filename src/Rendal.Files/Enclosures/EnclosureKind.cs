using System.IO.Compression;
using System.Text;

namespace Rendal.Files.Enclosures;

/// <summary>What may be enclosed: files that are read, and neither programs nor documents with programs in them.</summary>
public static class EnclosureKind
{
    /// <summary>The most bytes of a file that is enclosed; few mail servers take a larger message.</summary>
    public const long Largest = 25_000_000;

    private static readonly Dictionary<string, string> Types = new(StringComparer.OrdinalIgnoreCase)
    {
        [".pdf"] = "application/pdf",
        [".docx"] = "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
        [".xlsx"] = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
        [".pptx"] = "application/vnd.openxmlformats-officedocument.presentationml.presentation",
        [".odt"] = "application/vnd.oasis.opendocument.text",
        [".ods"] = "application/vnd.oasis.opendocument.spreadsheet",
        [".csv"] = "text/csv",
        [".txt"] = "text/plain",
        [".xml"] = "application/xml",
        [".ics"] = "text/calendar",
        [".png"] = "image/png",
        [".jpg"] = "image/jpeg",
        [".jpeg"] = "image/jpeg",
        [".tif"] = "image/tiff",
        [".tiff"] = "image/tiff",
    };

    // What begins so is run by some system, whatever it is called.
    private static readonly byte[][] Programs =
    [
        "MZ"u8.ToArray(),
        [0x7F, 0x45, 0x4C, 0x46],
        "#!"u8.ToArray(),
        [0xCA, 0xFE, 0xBA, 0xBE],
        [0xCF, 0xFA, 0xED, 0xFE],
        [0xCE, 0xFA, 0xED, 0xFE],
    ];

    private static readonly (string[] Endings, byte[] Start)[] Starts =
    [
        ([".png"], [0x89, 0x50, 0x4E, 0x47]),
        ([".jpg", ".jpeg"], [0xFF, 0xD8, 0xFF]),
        ([".docx", ".xlsx", ".pptx", ".odt", ".ods"], [0x50, 0x4B, 0x03, 0x04]),
    ];

    /// <summary>The endings of the kinds that may be enclosed in any book, in order: <c>.csv</c>.</summary>
    public static IReadOnlyList<string> Usual { get; } = [.. Types.Keys.Order(StringComparer.Ordinal)];

    /// <summary>The media type of a file by its ending; <c>application/octet-stream</c> for one that is not usual.</summary>
    public static string TypeOf(string name) => Types.GetValueOrDefault(Path.GetExtension(name), "application/octet-stream");

    /// <summary>Whether a file is a PDF by its content, which may begin after up to a thousand other bytes (ISO 32000-1, H.3).</summary>
    public static bool IsPdf(ReadOnlySpan<byte> bytes) => bytes[..Math.Min(bytes.Length, 1_024)].IndexOf("%PDF-"u8) >= 0;

    /// <summary>Why a file may not be enclosed, as what is said of it: <c>is a program</c>; empty where it may.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="bytes">Its content.</param>
    /// <param name="also">Endings that the book allows beside the usual ones. Nothing is looked for in those.</param>
    public static string Problem(string name, byte[] bytes, IReadOnlyCollection<string> also)
    {
        var ending = Path.GetExtension(name);
        if (bytes.Length == 0)
        {
            return "is empty";
        }

        if (also.Contains(ending, StringComparer.OrdinalIgnoreCase))
        {
            return "";
        }

        if (Programs.Any(p => bytes.AsSpan().StartsWith(p)))
        {
            return "is a program";
        }

        if (!Types.ContainsKey(ending))
        {
            return ending.Length == 0
                ? "has no ending that says what it is"
                : $"is of a kind ({ending.ToLowerInvariant()}) that this book does not enclose";
        }

        if (ending.Equals(".pdf", StringComparison.OrdinalIgnoreCase) != IsPdf(bytes) || Starts.Any(s => IsOther(s.Endings, s.Start)))
        {
            return $"is not what its ending {ending.ToLowerInvariant()} says";
        }

        return HasProgram(bytes) ? "has macros in it" : "";

        bool IsOther(string[] endings, byte[] start) =>
            endings.Contains(ending, StringComparer.OrdinalIgnoreCase) != bytes.AsSpan().StartsWith(start);
    }

    /// <summary>Whether a packed document holds macros, or a compound file is in it that is run when it is opened.</summary>
    private static bool HasProgram(byte[] bytes)
    {
        if (!bytes.AsSpan().StartsWith("PK"u8))
        {
            return false;
        }

        try
        {
            using var zip = new ZipArchive(new MemoryStream(bytes), ZipArchiveMode.Read, leaveOpen: false, Encoding.UTF8);
            return zip.Entries.Any(e =>
                e.FullName.EndsWith("vbaProject.bin", StringComparison.OrdinalIgnoreCase)
                || e.FullName.StartsWith("Basic/", StringComparison.OrdinalIgnoreCase)
                || e.FullName.StartsWith("Scripts/", StringComparison.OrdinalIgnoreCase)
            );
        }
        catch (InvalidDataException)
        {
            // What cannot be unpacked here is not run by anybody either.
            return false;
        }
    }
}
