using System.Reflection;
using Rendal.Store.Cluster;
using Rendal.Web.Hosting;

// The build runs this program once to write the API document; nothing may be started then, and what it writes stays among what was built.
if (Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider")
{
    await RendalHost
        .Build(
            new HostParts(
                "Host=127.0.0.1;Database=none",
                Path.Combine(Path.GetDirectoryName(typeof(RendalHost).Assembly.Location)!, "api-document"),
                0,
                0,
                0,
                Role.Web,
                null,
                null
            )
        )
        .RunAsync();
    return 0;
}

if (args.Contains("--help") || args.Contains("-h"))
{
    Console.WriteLine(RendalOptions.Help);
    return 0;
}

try
{
    await Launch.RunAsync(RendalOptions.Parse(args));
    return 0;
}
catch (Exception e) when (e is StartRefused or ClusterFailed)
{
    await Console.Error.WriteLineAsync($"rendal: {e.Message}");
    return 1;
}
