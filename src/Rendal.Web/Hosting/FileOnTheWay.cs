using Microsoft.AspNetCore.Http.HttpResults;

namespace Rendal.Web.Hosting;

/// <summary>
/// A file that is made to be saved by a browser. It is made on disk, for it may be long, and is gone with its last reader.
/// </summary>
internal static class FileOnTheWay
{
    /// <summary>Makes it and sends it.</summary>
    /// <param name="contentType">For example <c>application/zip</c>.</param>
    /// <param name="name">The name that the browser proposes.</param>
    /// <param name="write">Writes it, on a stream that can be wound back.</param>
    public static async Task<FileStreamHttpResult> SendAsync(string contentType, string name, Func<Stream, Task> write)
    {
        var file = new FileStream(
            Path.GetTempFileName(),
            FileMode.Open,
            FileAccess.ReadWrite,
            FileShare.None,
            65_536,
            FileOptions.DeleteOnClose | FileOptions.Asynchronous
        );
        try
        {
            await write(file);
            file.Position = 0;
            return TypedResults.File(file, contentType, name);
        }
        catch
        {
            await file.DisposeAsync();
            throw;
        }
    }
}
