using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace Rendal.Core.Tests;

/// <summary>The arrows between the projects run one way: Web, Cli → Store, Mail, Files, Postroom → Core.</summary>
public class ArchitectureTests
{
    private static readonly Dictionary<string, string[]> Allowed = new()
    {
        ["Rendal.Core"] = [],
        ["Rendal.Files"] = ["Rendal.Core"],
        ["Rendal.Store"] = ["Rendal.Core"],
        ["Rendal.Mail"] = ["Rendal.Core"],
        ["Rendal.Postroom"] = ["Rendal.Core"],
        ["Rendal.Web"] = ["Rendal.Core", "Rendal.Files", "Rendal.Store", "Rendal.Mail", "Rendal.Postroom"],
        ["Rendal.Cli"] = ["Rendal.Core", "Rendal.Files", "Rendal.Store", "Rendal.Mail", "Rendal.Postroom"],
    };

    [Fact]
    public void Every_project_refers_only_to_what_lies_below_it()
    {
        var projects = Directory.GetFiles(Path.Combine(Repository.Root, "src"), "*.csproj", SearchOption.AllDirectories);
        Assert.Equal(Allowed.Keys.Order(), projects.Select(p => Path.GetFileNameWithoutExtension(p)!).Order());
        foreach (var project in projects)
        {
            var refers = XDocument.Load(project).Descendants("ProjectReference").Select(r => Path.GetFileNameWithoutExtension(r.Attribute("Include")!.Value.Replace('\\', '/')));
            Assert.Empty(refers.Except(Allowed[Path.GetFileNameWithoutExtension(project)]));
        }
    }

    [Fact]
    public void The_core_knows_no_files_clock_database_web_or_mail_server()
    {
        string[] forbidden = ["System.IO.File", "File.", "Directory.", "DateTime.Now", "DateTime.UtcNow", "DateTimeOffset.Now", "DateTimeOffset.UtcNow", "TimeProvider", "HttpClient", "Npgsql", "Microsoft.AspNetCore", "MailKit", "Console."];
        var sources = Directory.GetFiles(Path.Combine(Repository.Root, "src", "Rendal.Core"), "*.cs", SearchOption.AllDirectories);
        Assert.NotEmpty(sources);
        Assert.All(sources, source =>
        {
            var code = File.ReadAllText(source);
            Assert.DoesNotContain(forbidden, word => Regex.IsMatch(code, @"(?<![\w.])" + Regex.Escape(word)));
        });
    }
}
