namespace Rendal.Core.Tests;

/// <summary>The project's own files, for tests that read them.</summary>
internal static class Repository
{
    /// <summary>The folder with the solution.</summary>
    public static string Root { get; } = Find();

    /// <summary>Files written for the project by patterns of their names, as paths from its root.</summary>
    public static IEnumerable<string> Sources(params string[] patterns) =>
        Folders(new DirectoryInfo(Root))
            .SelectMany(folder => patterns.SelectMany(folder.EnumerateFiles))
            .Select(f => Path.GetRelativePath(Root, f.FullName).Replace('\\', '/'))
            .Where(f => f != "web/src/shared/api/schema.d.ts");

    private static IEnumerable<DirectoryInfo> Folders(DirectoryInfo folder) =>
        folder
            .EnumerateDirectories()
            .Where(f => f.Name is not ("artifacts" or "node_modules" or "obj" or "bin") && f.Name[0] != '.')
            .SelectMany(Folders)
            .Prepend(folder);

    private static string Find()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Rendal.slnx")))
        {
            folder = folder.Parent ?? throw new InvalidOperationException("The tests do not run inside the project.");
        }

        return folder.FullName;
    }
}
