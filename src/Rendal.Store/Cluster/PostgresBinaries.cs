namespace Rendal.Store.Cluster;

/// <summary>The PostgreSQL server on this machine.</summary>
/// <param name="Folder">The folder with <c>initdb</c>, <c>postgres</c> and <c>pg_ctl</c>.</param>
public sealed record PostgresBinaries(string Folder)
{
    /// <summary>
    /// The newest server found where Debian puts it (<c>/usr/lib/postgresql/*/bin</c>), else on the PATH; null where there is none.
    /// </summary>
    public static PostgresBinaries? Find()
    {
        const string debian = "/usr/lib/postgresql";
        var versions = Directory.Exists(debian)
            ? Directory
                .GetDirectories(debian)
                .OrderByDescending(d => int.TryParse(Path.GetFileName(d), out var version) ? version : 0)
                .Select(d => Path.Combine(d, "bin"))
            : [];
        var path = (Environment.GetEnvironmentVariable("PATH") ?? "").Split(':', StringSplitOptions.RemoveEmptyEntries);
        var folder = versions
            .Concat(path)
            .FirstOrDefault(f =>
                File.Exists(Path.Combine(f, "initdb"))
                && File.Exists(Path.Combine(f, "postgres"))
                && File.Exists(Path.Combine(f, "pg_ctl"))
            );
        return folder is null ? null : new PostgresBinaries(folder);
    }

    /// <summary>The full path of one program.</summary>
    public string Program(string name) => Path.Combine(Folder, name);
}
