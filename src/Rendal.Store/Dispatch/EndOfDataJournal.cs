using System.Text;

namespace Rendal.Store.Dispatch;

/// <summary>
/// Which messages the workers of one machine have given the end of, as files that outlive a worker that is killed. The database says that
/// the end of a message is about to go out, and takes a while to write that down for good; a worker killed in that while has not given it.
/// Here that can be told: a number is noted at the very moment, in no time, and what is noted stays as long as the machine runs.
/// </summary>
/// <param name="folder">The folder of the files; made where it is missing.</param>
/// <param name="database">Tells databases apart whose workers use the same folder, as <see cref="DispatchQueue.DatabaseAsync"/>
/// does.</param>
public sealed class EndOfDataJournal(string folder, string database)
{
    private const string BootFile = "/proc/sys/kernel/random/boot_id";

    /// <summary>What says that a file was written on this machine since it was last started, and so is complete.</summary>
    private readonly byte[] header = Encoding.UTF8.GetBytes(
        $"{(File.Exists(BootFile) ? File.ReadAllText(BootFile).Trim() : Guid.NewGuid())} {database}\n"
    );

    /// <summary>Opens the file in which a worker notes the ends of data that it gives.</summary>
    /// <exception cref="IOException">The file cannot be made.</exception>
    public EndOfDataNotes Begin(long worker)
    {
        Directory.CreateDirectory(folder);
        return new EndOfDataNotes(PathOf(worker), header);
    }

    /// <summary>
    /// What a dead worker noted. Null where that is not known: the worker lives and has only lost the database, it ran on another machine
    /// or as another user, or this machine was started since.
    /// </summary>
    public WorkerNotes? Of(long worker)
    {
        try
        {
            // Who lives holds its file.
            using var file = new FileStream(PathOf(worker), FileMode.Open, FileAccess.Read, FileShare.None);
            var bytes = new byte[file.Length];
            file.ReadExactly(bytes);
            var noted = bytes.AsSpan(Math.Min(header.Length, bytes.Length));
            return bytes.AsSpan().StartsWith(header) && noted.Length % sizeof(long) == 0 ? EndOfDataNotes.Read(noted) : null;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    /// <summary>Throws the notes of a dead worker away, once all it had claimed is seen to.</summary>
    public void Forget(long worker) => File.Delete(PathOf(worker));

    private string PathOf(long worker) => Path.Combine(folder, $"worker-{worker}");
}
