using Rendal.Store.Cluster;

namespace Rendal.Web.Hosting;

/// <summary>The folder that the data are in.</summary>
internal static class DataFolder
{
    /// <summary>
    /// Whether it lies elsewhere than when it was used last: it was moved, or this is a copy. It is asked once; from then on it lies where
    /// it does.
    /// </summary>
    public static async Task<bool> WasMovedAsync(string folder, CancellationToken cancel)
    {
        var file = Path.Combine(folder, "place");
        var here = $"{Environment.MachineName} {folder} {await Place.OfAsync(folder, cancel)}";
        var before = File.Exists(file) ? await File.ReadAllTextAsync(file, cancel) : here;
        await File.WriteAllTextAsync(file, here, cancel);
        return before != here;
    }
}
