using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace Rendal.Core.Tests;

/// <summary>
/// The arrows between the projects run one way: Web, Cli → App → Store, Mail, Files → Core. Each may use the packages named for it.
/// </summary>
public class ArchitectureTests
{
    private static readonly Dictionary<string, string[]> Packages = new()
    {
        ["Rendal.Core"] = ["System.IO.Hashing"],
        ["Rendal.Html"] = ["AngleSharp", "HtmlSanitizer"],
        ["Rendal.App"] =
        [
            "DiffPlex",
            "Microsoft.AspNetCore.DataProtection.Abstractions",
            "Microsoft.Extensions.Caching.Memory",
            "Microsoft.Extensions.Logging.Abstractions",
        ],
        ["Rendal.Files"] =
        [
            "CsvHelper",
            "DocumentFormat.OpenXml",
            "ExcelDataReader",
            "ExcelNumberFormat",
            "HarfBuzzSharp",
            "HarfBuzzSharp.NativeAssets.Linux",
            "PdfPig",
            "QRCoder",
            "SkiaSharp",
            "SkiaSharp.NativeAssets.Linux.NoDependencies",
            "System.IO.Hashing",
        ],
        ["Rendal.Store"] = ["Microsoft.Extensions.Caching.Memory", "Npgsql", "dbup-postgresql"],
        ["Rendal.Mail"] = ["AngleSharp", "MailKit"],
        ["Rendal.Postroom"] = ["Microsoft.AspNetCore.App", "MimeKit"],
        ["Rendal.Web"] = ["Microsoft.AspNetCore.OpenApi", "Microsoft.Extensions.ApiDescription.Server", "Serilog.AspNetCore"],
        ["Rendal.Cli"] = [],
    };

    private static readonly Dictionary<string, string[]> Allowed = new()
    {
        ["Rendal.Core"] = [],
        ["Rendal.Files"] = ["Rendal.Core"],
        ["Rendal.Html"] = ["Rendal.Core"],
        ["Rendal.Store"] = ["Rendal.Core"],
        ["Rendal.Mail"] = ["Rendal.Core", "Rendal.Html"],
        ["Rendal.Postroom"] = ["Rendal.Core"],
        ["Rendal.App"] = ["Rendal.Core", "Rendal.Files", "Rendal.Html", "Rendal.Store", "Rendal.Mail"],
        ["Rendal.Web"] = ["Rendal.App", "Rendal.Core", "Rendal.Files", "Rendal.Html", "Rendal.Store", "Rendal.Mail", "Rendal.Postroom"],
        ["Rendal.Cli"] = ["Rendal.App", "Rendal.Core", "Rendal.Files", "Rendal.Html"],
    };

    [Fact]
    public void Every_project_refers_only_to_what_lies_below_it()
    {
        var projects = Directory.GetFiles(Path.Combine(Repository.Root, "src"), "*.csproj", SearchOption.AllDirectories);
        Assert.Equal(Allowed.Keys.Order(), projects.Select(p => Path.GetFileNameWithoutExtension(p)!).Order());
        foreach (var project in projects)
        {
            var refers = XDocument
                .Load(project)
                .Descendants("ProjectReference")
                .Select(r => Path.GetFileNameWithoutExtension(r.Attribute("Include")!.Value.Replace('\\', '/')));
            Assert.Empty(refers.Except(Allowed[Path.GetFileNameWithoutExtension(project)]));
        }
    }

    [Fact]
    public void Every_project_uses_the_packages_that_are_named_for_it_and_no_other()
    {
        foreach (var project in Directory.GetFiles(Path.Combine(Repository.Root, "src"), "*.csproj", SearchOption.AllDirectories))
        {
            var uses = XDocument
                .Load(project)
                .Descendants()
                .Where(e => e.Name.LocalName is "PackageReference" or "FrameworkReference")
                .Select(r => r.Attribute("Include")!.Value);
            Assert.Equal(
                Packages[Path.GetFileNameWithoutExtension(project)].Order(StringComparer.Ordinal),
                uses.Order(StringComparer.Ordinal)
            );
        }
    }

    [Fact]
    public void A_use_case_knows_no_web()
    {
        var sources = Directory.GetFiles(Path.Combine(Repository.Root, "src", "Rendal.App"), "*.cs", SearchOption.AllDirectories);
        Assert.NotEmpty(sources);
        Assert.All(sources, source =>
            Assert.DoesNotMatch(@"HttpContext|StatusCodes|IResult|Microsoft\.AspNetCore\.(?!DataProtection)", File.ReadAllText(source))
        );
    }

    [Fact]
    public void The_core_knows_no_files_clock_database_web_or_mail_server()
    {
        string[] forbidden =
        [
            "System.IO.File",
            "File.",
            "Directory.",
            "DateTime.Now",
            "DateTime.UtcNow",
            "DateTimeOffset.Now",
            "DateTimeOffset.UtcNow",
            "TimeProvider",
            "HttpClient",
            "Npgsql",
            "Microsoft.AspNetCore",
            "MailKit",
            "Console.",
        ];
        var sources = Directory.GetFiles(Path.Combine(Repository.Root, "src", "Rendal.Core"), "*.cs", SearchOption.AllDirectories);
        Assert.NotEmpty(sources);
        Assert.All(sources, source =>
        {
            var code = File.ReadAllText(source);
            Assert.DoesNotContain(forbidden, word => Regex.IsMatch(code, @"(?<![\w.])" + Regex.Escape(word)));
        });
    }
}
