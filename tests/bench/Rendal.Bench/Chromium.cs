using System.Diagnostics;
using System.Globalization;

namespace Rendal.Bench;

/// <summary>Debian's Chromium, led by a script of the interface's tests.</summary>
internal static class Chromium
{
    /// <summary>The numbers that the script prints; null where Chromium is not installed.</summary>
    /// <exception cref="InvalidOperationException">The script failed.</exception>
    public static IReadOnlyList<double>? Run(string script, params string[] words)
    {
        // The scripts ask for the same.
        if (!File.Exists(Environment.GetEnvironmentVariable("RENDAL_CHROMIUM") ?? "/usr/bin/chromium"))
        {
            return null;
        }

        using var process = Process.Start(
            new ProcessStartInfo("node", [$"tests/e2e/{script}", .. words]) { RedirectStandardOutput = true }
        )!;
        var answer = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return process.ExitCode == 0
            ? [.. answer.Split(' ').Select(w => double.Parse(w, CultureInfo.InvariantCulture))]
            : throw new InvalidOperationException($"{script} failed in Chromium.");
    }
}
