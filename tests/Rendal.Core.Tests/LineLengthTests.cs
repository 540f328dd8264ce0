using System.Text.RegularExpressions;

namespace Rendal.Core.Tests;

/// <summary>Lines of code end before column 140; of a literal that cannot be parted only what stands around it counts.</summary>
public partial class LineLengthTests
{
    private const int Longest = 139;

    [Fact]
    public void Lines_of_code_end_before_column_140()
    {
        var lines = Repository.Sources("*.cs", "*.ts", "*.tsx", "*.css").SelectMany(Numbered).ToList();
        Assert.True(lines.Count > 10_000);
        Assert.Equal([], lines.Where(l => Literal().Replace(l.Text, "\"\"").Length > Longest).Select(l => l.Place));
    }

    [Fact]
    public void Lines_of_prose_end_before_column_140()
    {
        var lines = Repository.Sources("*.md").Where(f => !IsReport(f)).SelectMany(Numbered).Where(l => !l.Text.StartsWith('|')).ToList();
        Assert.True(lines.Count > 500);
        Assert.Equal([], lines.Where(l => l.Text.Length > Longest).Select(l => l.Place));
    }

    /// <summary>Whether a bench wrote it.</summary>
    private static bool IsReport(string file) =>
        File.ReadAllText(Path.Combine(Repository.Root, file)).Contains("Written by `./rendal bench", StringComparison.Ordinal);

    private static IEnumerable<(string Place, string Text)> Numbered(string file) =>
        File.ReadLines(Path.Combine(Repository.Root, file)).Select((line, at) => ($"{file}:{at + 1}", line));

    [GeneratedRegex("""("{3,}).*?\1|"(?:\\.|[^"\\])*"|`[^`]*`""")]
    private static partial Regex Literal();
}
