namespace Rendal.Core.Tests;

/// <summary>The project's own files, for tests that read them.</summary>
internal static class Repository
{
    /// <summary>The folder with the solution.</summary>
    public static string Root { get; } = Find();

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
