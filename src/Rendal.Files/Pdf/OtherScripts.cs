using System.Collections.Frozen;
using System.Globalization;
using System.Text;

namespace Rendal.Files.Pdf;

/// <summary>
/// What stands in where the font of a text lacks a character: fonts of other scripts. A file is read when the first text asks for it. One
/// serves all fonts of a renderer.
/// </summary>
internal sealed class OtherScripts : IDisposable
{
    // The large file comes last: it is read only for what no other has.
    private static readonly string[] Names =
    [
        "NotoSansHebrew-Regular.ttf",
        "NotoSansArabic-Regular.ttf",
        "NotoSansArmenian-Regular.ttf",
        "NotoSansGeorgian-Regular.ttf",
        "NotoSansThai-Regular.ttf",
        "NotoSansDevanagari-Regular.ttf",
        "NotoEmoji-Regular.ttf",
        "NotoSansSC-Regular.ttf",
    ];

    private readonly Lazy<FontFile>[] files = [.. Names.Select(name => new Lazy<FontFile>(() => new FontFile(name)))];

    private static readonly Lazy<FrozenSet<int>> Characters = new(() =>
        Names.Prepend("SourceSans3-Regular.ttf").SelectMany(name => FontSubset.Characters(FontFile.Bytes(name))).ToFrozenSet()
    );

    /// <summary>The first file that has a character; null where none has.</summary>
    public FontFile? Find(Rune character) =>
        Characters.Value.Contains(character.Value) ? files.Select(f => f.Value).FirstOrDefault(f => f.Has(character)) : null;

    /// <summary>
    /// Whether a character can be seen on paper, or is not meant to be seen: a line break, a joiner, a mark of direction.
    /// </summary>
    public static bool CanPrint(Rune character) =>
        Characters.Value.Contains(character.Value)
        || Rune.IsControl(character)
        || Rune.IsWhiteSpace(character)
        || Rune.GetUnicodeCategory(character) == UnicodeCategory.Format
        || character.Value is >= 0xFE00 and <= 0xFE0F or >= 0xE0100 and <= 0xE01EF;

    public void Dispose()
    {
        foreach (var file in files.Where(f => f.IsValueCreated))
        {
            file.Value.Dispose();
        }
    }
}
