using Rendal.Core.Tests;

namespace Rendal.Files.Tests.Awkward;

/// <summary>
/// Every file in tests/awkward is odd in one way, which its name tells; beside it stands what must come of it. Where something else comes
/// of it, that is written to artifacts/awkward, to be compared.
/// </summary>
public class AwkwardFilesTests
{
    private static readonly string Folder = Path.Combine(Repository.Root, "tests", "awkward");

    public static TheoryData<string> Files() =>
        [
            .. Directory
                .GetFiles(Folder)
                .Select(f => Path.GetFileName(f)!)
                .Where(f => !f.EndsWith(".expected", StringComparison.Ordinal))
                .Order(StringComparer.Ordinal),
        ];

    [Theory]
    [MemberData(nameof(Files))]
    public void What_must_come_of_it_comes_of_it(string file)
    {
        var actual = Outcome.Of(file, () => File.OpenRead(Path.Combine(Folder, file)));
        var expected = Path.Combine(Folder, file + ".expected");
        if (!File.Exists(expected) || File.ReadAllText(expected) != actual)
        {
            var kept = Directory.CreateDirectory(Path.Combine(Repository.Root, "artifacts", "awkward")).FullName;
            File.WriteAllText(Path.Combine(kept, file + ".actual"), actual);
        }

        Assert.True(File.Exists(expected), $"tests/awkward/{file}.expected says what must come of it, and is not there.");
        Assert.Equal(File.ReadAllText(expected), actual);
    }

    [Fact]
    public void There_are_many_of_them_and_each_outcome_belongs_to_a_file()
    {
        Assert.True(Files().Count >= 40);
        Assert.All(Directory.GetFiles(Folder, "*.expected"), e => Assert.True(File.Exists(e[..^".expected".Length])));
    }
}
