using System.IO.Compression;
using System.Text;
using System.Text.RegularExpressions;

namespace Rendal.Files.Documents;

/// <summary>
/// A workbook or letter (a package of ECMA-376, part 2) without what its library takes from the time and from chance, so that the same
/// document is the same bytes whenever it is made: what was looked at can be compared with what went.
/// </summary>
internal static partial class SettledPackage
{
    // The first moment that a ZIP can tell.
    private static readonly DateTimeOffset Always = new(1980, 1, 1, 0, 0, 0, TimeSpan.Zero);

    /// <summary>
    /// The same package: its parts in their order, their times always the same, and a number in each name that was a GUID.
    /// </summary>
    /// <param name="package">It as the library wrote it.</param>
    public static byte[] Of(byte[] package)
    {
        using var from = new ZipArchive(new MemoryStream(package), ZipArchiveMode.Read);
        var numbers = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        foreach (var entry in from.Entries)
        {
            foreach (Match drawn in Drawn().Matches(entry.FullName))
            {
                numbers.TryAdd(drawn.Value, $"{numbers.Count + 1}");
            }
        }

        using var stream = new MemoryStream();
        using (var to = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var entry in from.Entries)
            {
                var settled = to.CreateEntry(Numbered(entry.FullName));
                settled.LastWriteTime = Always;
                using var content = entry.Open();
                using var copy = settled.Open();
                if (entry.FullName.EndsWith(".rels", StringComparison.Ordinal) || entry.FullName == "[Content_Types].xml")
                {
                    using var reader = new StreamReader(content, Encoding.UTF8);
                    var text = Numbered(reader.ReadToEnd());
                    copy.Write(Encoding.UTF8.GetBytes(entry.FullName == "_rels/.rels" ? WithOwnIds(text) : text));
                }
                else
                {
                    content.CopyTo(copy);
                }
            }
        }

        return stream.ToArray();

        string Numbered(string text) => Drawn().Replace(text, drawn => numbers.GetValueOrDefault(drawn.Value, drawn.Value));
    }

    /// <summary>The relationships of the package itself, which are found by their kind: nothing names them by their identifiers.</summary>
    private static string WithOwnIds(string relationships)
    {
        var number = 0;
        return Identifier().Replace(relationships, _ => $" Id=\"rId{++number}\"");
    }

    [GeneratedRegex(" Id=\"[^\"]*\"")]
    private static partial Regex Identifier();

    [GeneratedRegex("[0-9a-fA-F]{32}")]
    private static partial Regex Drawn();
}
