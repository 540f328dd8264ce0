using System.Diagnostics;
using Rendal.Web.Hosting;

namespace Rendal.Trials;

/// <summary>A worker in a process of its own, as <c>rendal start --role worker</c> makes it.</summary>
internal sealed class WorkerProcess : IDisposable
{
    private readonly Process process;

    private WorkerProcess(Process process) => this.process = process;

    /// <summary>Starts one with the data of a host that runs.</summary>
    public static WorkerProcess Start(HostParts parts)
    {
        var start = new ProcessStartInfo(
            Environment.ProcessPath is { } path && Path.GetFileNameWithoutExtension(path) == "dotnet" ? path : "dotnet"
        )
        {
            ArgumentList = { typeof(RendalHost).Assembly.Location, "start", "--role", "worker", "--data", parts.Data },
            Environment = { ["RENDAL_DATABASE_URL"] = parts.Database },
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        var process = Process.Start(start) ?? throw new InvalidOperationException("The worker could not be started.");

        // What it says is read and forgotten, lest it wait for a reader.
        process.OutputDataReceived += (_, _) => { };
        process.ErrorDataReceived += (_, _) => { };
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        return new WorkerProcess(process);
    }

    /// <summary>Ends it as a power cut does: SIGKILL, no farewell.</summary>
    public void Kill()
    {
        process.Kill();
        process.WaitForExit();
    }

    public void Dispose()
    {
        if (!process.HasExited)
        {
            Kill();
        }

        process.Dispose();
    }
}
