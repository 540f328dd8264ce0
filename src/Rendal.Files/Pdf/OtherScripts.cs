using System.Collections.Frozen;
using System.Text;

namespace Rendal.Files.Pdf;

/// <summary>
/// What stands in where the face of a text lacks a character: faces of other scripts. A file is read when the first text
/// asks for it. One serves all faces of a press.
/// </summary>
internal sealed class OtherScripts : IDisposable
{
    // The large file comes last: it is read only for what no other has.
    private static readonly string[] Names =
    [
        "NotoSansHebrew-Regular.ttf", "NotoSansArabic-Regular.ttf", "NotoSansArmenian-Regular.ttf", "NotoSansGeorgian-Regular.ttf",
        "NotoSansThai-Regular.ttf", "NotoSansDevanagari-Regular.ttf", "NotoEmoji-Regular.ttf", "NotoSansSC-Regular.ttf",
    ];

    private readonly Lazy<FaceFile>[] files = [.. Names.Select(name => new Lazy<FaceFile>(() => new FaceFile(name)))];

    /// <summary>All characters that can be printed, the usual face's as well.</summary>
    public static FrozenSet<int> Characters => AllCharacters.Value;

    private static Lazy<FrozenSet<int>> AllCharacters { get; } =
        new(() => Names.Prepend("SourceSans3-Regular.ttf").SelectMany(name => FaceReduction.Characters(FaceFile.Bytes(name))).ToFrozenSet());

    /// <summary>The first file that has a character; null where none has.</summary>
    public FaceFile? Find(Rune character) => Characters.Contains(character.Value) ? files.Select(f => f.Value).FirstOrDefault(f => f.Has(character)) : null;

    public void Dispose()
    {
        foreach (var file in files.Where(f => f.IsValueCreated))
        {
            file.Value.Dispose();
        }
    }
}
