using System.Diagnostics;
using Rendal.Core.Tests;

namespace Rendal.Files.Tests.Pdf;

/// <summary>The ready-made layouts printed, and their first pages drawn by pdf.js in Chromium, once for all tests.</summary>
public sealed class ReadyMadePages : IAsyncLifetime
{
    // pdf.js draws points of 1/72 inch; three quarters of that can be read and stays small.
    private const string Scale = "0.75";

    private readonly string folder = Directory.CreateTempSubdirectory("rendal-pages").FullName;

    /// <summary>The picture (PNG) of a document's first page.</summary>
    public byte[] Drawn(string file) => File.ReadAllBytes(Path.Combine(folder, $"{file}.png"));

    /// <inheritdoc/>
    public async ValueTask InitializeAsync()
    {
        foreach (var (file, pdf) in ReadyMadePicturesTests.Documents())
        {
            await File.WriteAllBytesAsync(Path.Combine(folder, $"{file}.pdf"), pdf);
        }

        using var drawing = Process.Start(
            new ProcessStartInfo("node", [Path.Combine(Repository.Root, "tests", "e2e", "draw-pages.mjs"), folder, Scale])
            {
                RedirectStandardError = true,
            }
        )!;
        var said = await drawing.StandardError.ReadToEndAsync();
        await drawing.WaitForExitAsync();
        Assert.True(drawing.ExitCode == 0, $"The pages could not be drawn. Run ./rendal test, which fetches what this needs. {said}");
    }

    /// <inheritdoc/>
    public ValueTask DisposeAsync()
    {
        Directory.Delete(folder, recursive: true);
        return ValueTask.CompletedTask;
    }
}
