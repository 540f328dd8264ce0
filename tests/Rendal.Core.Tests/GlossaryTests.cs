using System.Text.RegularExpressions;

namespace Rendal.Core.Tests;

/// <summary>What the code is called: the glossary says it, and the code keeps to it.</summary>
public partial class GlossaryTests
{
    private static readonly string[] Lines = File.ReadAllLines(Path.Combine(Repository.Root, "docs", "glossary.md"));

    [Fact]
    public void No_type_and_no_folder_has_a_name_that_was_replaced()
    {
        var replaced = Rows("## Replaced names").Select(cells => cells[0]).ToHashSet(StringComparer.Ordinal);
        Assert.NotEmpty(replaced);
        Assert.Equal([], Types().Where(t => replaced.Contains(t.Name)).Select(t => $"{t.File}: {t.Name}"));
        Assert.Equal([], Repository.Sources("*.cs").SelectMany(f => f.Split('/')).Distinct().Where(replaced.Contains));
    }

    [Fact]
    public void Every_type_that_the_glossary_names_is_there()
    {
        var there = Types().Select(t => $"{t.Namespace}.{t.Name}").ToHashSet(StringComparer.Ordinal);
        var named = Rows("## Words of the work")
            .Concat(Rows("## Terms of the trade"))
            .SelectMany(cells => Code().Matches(cells[^1]))
            .Select(m => m.Groups[1].Value)
            .ToList();
        Assert.True(named.Count > 40);
        Assert.Equal([], named.Where(name => name != "Rendal.Postroom" && !there.Contains($"Rendal.{name}")));
    }

    private static IEnumerable<string[]> Rows(string heading) =>
        Lines
            .SkipWhile(l => !l.StartsWith(heading, StringComparison.Ordinal))
            .Skip(1)
            .TakeWhile(l => !l.StartsWith("## ", StringComparison.Ordinal))
            .Where(l => l.StartsWith("| ", StringComparison.Ordinal))
            .Skip(2)
            .Select(l => l.Trim('|', ' ').Split(" | ", StringSplitOptions.TrimEntries));

    private static IEnumerable<(string File, string Namespace, string Name)> Types() =>
        from file in Repository.Sources("*.cs")
        let text = File.ReadAllText(Path.Combine(Repository.Root, file))
        from Match type in Declaration().Matches(text)
        select (file, Namespace().Match(text).Groups[1].Value, type.Groups[1].Value);

    [GeneratedRegex(
        @"^\s*(?:(?:public|internal|private|protected|static|sealed|abstract|readonly|partial|file) )*(?:class|record struct|record|struct|enum|interface) (\w+)",
        RegexOptions.Multiline
    )]
    private static partial Regex Declaration();

    [GeneratedRegex(@"^namespace ([\w.]+);", RegexOptions.Multiline)]
    private static partial Regex Namespace();

    [GeneratedRegex("`([^`]+)`")]
    private static partial Regex Code();
}
