using CsCheck;

namespace Rendal.Files.Tests;

public class FileNameTests
{
    [Theory]
    [InlineData("H014 statement 2026-10-31", "H014 statement 2026-10-31.pdf")]
    [InlineData("../../etc/passwd", "_.._etc_passwd.pdf")]
    [InlineData("a:b*c?", "a_b_c_.pdf")]
    [InlineData("CON", "_CON.pdf")]
    [InlineData("...", "document.pdf")]
    [InlineData("x\r\ny", "x__y.pdf")]
    [InlineData("evil\u202Efdp.exe", "evil_fdp.exe.pdf")]
    public void Names_are_made_safe(string stem, string name) => Assert.Equal(name, FileName.Safe(stem, ".pdf"));

    [Fact]
    public void No_name_is_too_long_or_forbidden_whatever_it_is_made_from()
    {
        Gen.String.Sample(
            stem =>
            {
                var name = FileName.Safe(stem, ".pdf");
                Assert.InRange(name.Length, 5, FileName.Longest);
                Assert.DoesNotContain(name, c => char.IsControl(c) || "/\\:*?\"<>|".Contains(c));
                Assert.False(name.StartsWith('.') || name.StartsWith(' '));
            },
            iter: 5_000
        );
    }

    [Fact]
    public void Names_are_unique_whatever_their_case()
    {
        var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        Assert.Equal(["a.pdf", "A (2).pdf", "a (3).pdf"], new[] { "a.pdf", "A.pdf", "a.pdf" }.Select(n => FileName.Unique(n, taken)));
        var longest = FileName.Safe(new string('x', 300), ".pdf");
        Assert.All([FileName.Unique(longest, taken), FileName.Unique(longest, taken)], n => Assert.True(n.Length <= FileName.Longest));
    }
}
