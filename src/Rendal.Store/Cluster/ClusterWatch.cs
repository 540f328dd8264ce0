using System.Diagnostics;

namespace Rendal.Store.Cluster;

/// <summary>
/// A small process beside the server that stops it when nobody uses it any more: whoever started it may have been killed, or
/// have crashed in a library, and then nothing of theirs runs that could.
/// </summary>
internal static class ClusterWatch
{
    // While this has the file alone, who comes waits, and finds the server stopped and not half stopped.
    private const string Script = """
        exec </dev/null >/dev/null 2>&1
        folder=$1 data=$2; shift 2
        exec 9<"$folder/watch" && flock -w 10 9 || exit 0
        exec 8<"$folder/in-use" || exit 0
        while sleep 1; do
            [ -e "$folder/in-use" ] && [ -e "$data/postmaster.pid" ] || exit 0
            flock -n -x 8 || continue
            "$@" -D "$data" -m fast -w -t 10 stop || "$@" -D "$data" -m immediate -w -t 10 stop
            exit 0
        done
        """;

    /// <summary>Begins to watch; nothing where somebody does already. One at a time begins.</summary>
    /// <param name="folder">The folder of the cluster, with the file that who uses it shares.</param>
    /// <param name="data">The folder of the server's data.</param>
    /// <param name="stop">The program that stops it, and what comes before its options.</param>
    public static void Begin(string folder, string data, IReadOnlyList<string> stop)
    {
        // Made here and not by the script, which begins a moment later: by then the folder may be on its way to be deleted.
        // One that is there is held by whoever watches.
        var watch = Path.Combine(folder, "watch");
        if (!File.Exists(watch))
        {
            File.Create(watch).Dispose();
        }

        // Of a session of its own, so that Ctrl-C at the terminal does not end it with the rest.
        var start = new ProcessStartInfo("setsid")
        {
            WorkingDirectory = "/",
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        foreach (var argument in new[] { "sh", "-c", Script, "rendal-watch", folder, data }.Concat(stop))
        {
            start.ArgumentList.Add(argument);
        }

        using var process = Process.Start(start)
            ?? throw new ClusterFailed("The database server cannot be watched: setsid could not be run.");
    }
}
