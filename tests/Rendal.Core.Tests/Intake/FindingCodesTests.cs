using System.Reflection;
using System.Text.RegularExpressions;
using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class FindingCodesTests
{
    [Fact]
    public void Every_code_stands_in_the_documentation_and_nothing_else_does()
    {
        var codes = typeof(FindingCodes)
            .GetFields(BindingFlags.Public | BindingFlags.Static)
            .Select(f => (string)f.GetRawConstantValue()!)
            .Order(StringComparer.Ordinal);
        var documented = Regex
            .Matches(File.ReadAllText(Path.Combine(Repository.Root, "docs", "findings.md")), @"^\| `([a-z-]+)` \|", RegexOptions.Multiline)
            .Select(m => m.Groups[1].Value)
            .Order(StringComparer.Ordinal);
        Assert.Equal(codes, documented);
    }
}
