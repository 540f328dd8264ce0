using System.Diagnostics;

namespace Rendal.Store.Cluster;

/// <summary>Where a folder lies: on which device, under which number, which no other folder has whatever it is called.</summary>
public static class Place
{
    /// <summary>The device and the number, for example <c>2049:1311</c>; null where it cannot be told. Links are followed.</summary>
    public static async Task<string?> OfAsync(string folder, CancellationToken cancel)
    {
        using var process = Process.Start(
            new ProcessStartInfo("stat")
            {
                ArgumentList = { "-L", "-c", "%d:%i", folder },
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        );
        if (process is null)
        {
            return null;
        }

        var found = await process.StandardOutput.ReadToEndAsync(cancel);
        await process.WaitForExitAsync(cancel);
        return process.ExitCode == 0 ? found.Trim() : null;
    }
}
