using System.Diagnostics;

namespace Rendal.Files.Docx;

/// <summary>LibreOffice, where it is installed: it makes PDFs of letters. One call takes many, as each start costs seconds.</summary>
public sealed class WordProcessor
{
    /// <summary>What to say where it is missing.</summary>
    public const string Missing =
        "To make a PDF of a letter, LibreOffice has to be installed on the server (the package libreoffice-writer-nogui); it "
        + "is not. Enclose the letter as DOCX instead.";

    private const string Settings = """pdf:writer_pdf_Export:{"SelectPdfVersion":{"type":"long","value":"2"}}""";
    private static readonly TimeSpan ForStart = TimeSpan.FromMinutes(1);
    private static readonly TimeSpan ForEach = TimeSpan.FromSeconds(10);
    private static readonly SemaphoreSlim One = new(1);

    /// <summary>Where the program is; null where it is not installed.</summary>
    public static string? Program { get; } =
        (Environment.GetEnvironmentVariable("PATH") ?? "")
            .Split(Path.PathSeparator)
            .SelectMany(folder => new[] { "soffice", "libreoffice" }.Select(name => Path.Combine(folder, name)))
            .FirstOrDefault(File.Exists);

    /// <summary>PDFs (PDF/A-2b) of filled letters, in their order.</summary>
    /// <param name="letters">The letters as DOCX.</param>
    /// <exception cref="DocxConversionFailed">The program is not installed, or made no PDF of one; the message says which.</exception>
    public static IReadOnlyList<byte[]> Pdfs(IReadOnlyList<byte[]> letters)
    {
        if (letters.Count == 0)
        {
            return [];
        }

        var program = Program ?? throw new DocxConversionFailed(Missing);
        var folder = Directory.CreateTempSubdirectory("rendal-letters-").FullName;
        One.Wait();
        try
        {
            var files = letters.Select((letter, i) => Path.Combine(folder, $"{i}.docx")).ToList();
            foreach (var (file, letter) in files.Zip(letters))
            {
                File.WriteAllBytes(file, letter);
            }

            var said = Run(program, folder, files);
            return
            [
                .. files.Select(
                    (file, i) =>
                        Path.ChangeExtension(file, ".pdf") is var pdf && File.Exists(pdf)
                            ? File.ReadAllBytes(pdf)
                            : throw new DocxConversionFailed($"LibreOffice made no PDF of letter {i + 1} of {letters.Count}. {said}")
                ),
            ];
        }
        finally
        {
            One.Release();
            Directory.Delete(folder, recursive: true);
        }
    }

    private static string Run(string program, string folder, List<string> files)
    {
        var start = new ProcessStartInfo(program)
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            ArgumentList =
            {
                "--headless",
                "--norestore",
                "--nolockcheck",
                $"-env:UserInstallation=file://{folder}/profile",
                "--convert-to",
                Settings,
                "--outdir",
                folder,
            },
        };
        files.ForEach(start.ArgumentList.Add);
        using var process = Process.Start(start)!;
        var output = process.StandardOutput.ReadToEndAsync();
        var errors = process.StandardError.ReadToEndAsync();
        if (!process.WaitForExit(ForStart + (ForEach * files.Count)))
        {
            process.Kill(entireProcessTree: true);
            process.WaitForExit();
            return "It did not end in its time.";
        }

        return (errors.Result + output.Result).ReplaceLineEndings(" ").Trim();
    }
}
