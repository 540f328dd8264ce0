using System.Text;
using Rendal.Core.Dispatch;
using Rendal.Core.Tests;

namespace Rendal.Mail.Tests;

/// <summary>
/// The messages in tests/returned: reports and replies as mail servers really wrote them, others after their standards, and
/// people's answers. What each is stands in its expected.txt, a line each; what comes of it is written to artifacts/returned.
/// </summary>
public class ReturnedFilesTests
{
    private static readonly string Folder = Path.Combine(Repository.Root, "tests", "returned");

    [Fact]
    public void Each_is_read_as_what_it_is()
    {
        var files = Directory.GetFiles(Folder, "*.eml").Order(StringComparer.Ordinal).ToList();
        Assert.True(files.Count >= 100, $"There are {files.Count}.");
        var actual = string.Concat(files.Select(f => $"{Path.GetFileNameWithoutExtension(f)}: {Read(f)}\n"));
        var kept = Directory.CreateDirectory(Path.Combine(Repository.Root, "artifacts", "returned")).FullName;
        File.WriteAllText(Path.Combine(kept, "actual.txt"), actual);
        Assert.Equal(File.ReadAllText(Path.Combine(Folder, "expected.txt")), actual);
    }

    [Fact]
    public void No_persons_answer_is_a_report_and_no_report_is_an_answer()
    {
        foreach (var file in Directory.GetFiles(Folder, "*.eml"))
        {
            var (name, kind) = (Path.GetFileName(file), BounceReader.Read(BoundedMail.Load(File.ReadAllBytes(file))).Kind);
            Assert.True(
                name.StartsWith("answer-", StringComparison.Ordinal) ? kind == ReturnKind.Other
                    : name.StartsWith("auto-", StringComparison.Ordinal) || name.Contains("-away", StringComparison.Ordinal)
                        ? kind == ReturnKind.AutomaticReply
                    : name.StartsWith("unclear-", StringComparison.Ordinal) ? kind == ReturnKind.Unclear
                    : name.Contains("-warning", StringComparison.Ordinal) || name == "notice-delayed.eml" ? kind == ReturnKind.Delayed
                    : name is "report-delivered.eml" or "report-relayed.eml" or "report-expanded.eml" ? kind == ReturnKind.Other
                    : kind == ReturnKind.Failed,
                $"{name} is {kind}."
            );
        }
    }

    private static string Read(string file)
    {
        var mail = BounceReader.Read(BoundedMail.Load(File.ReadAllBytes(file)));
        var line = new StringBuilder(mail.Kind.Code()).Append(" of ").AppendJoin(", ", mail.MessageIds);
        foreach (var one in mail.IsReport || mail.Kind == ReturnKind.Other ? mail.Recipients : [])
        {
            line.Append($"; {one.Address} {one.Kind.Code()} {one.Status} {one.Reason}".TrimEnd());
        }

        return line.ToString();
    }
}
