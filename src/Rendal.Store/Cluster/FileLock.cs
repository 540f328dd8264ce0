using System.Runtime.InteropServices;
using Microsoft.Win32.SafeHandles;

namespace Rendal.Store.Cluster;

/// <summary>
/// A lock on a file that goes with its process, however that ends (flock(2)). Any number of processes share one, or one has it
/// alone.
/// </summary>
internal sealed class FileLock : IDisposable
{
    private const int Shared = 1;
    private const int Exclusive = 2;
    private const int AtOnce = 4;

    // See open(2), on Linux.
    private const int ReadWrite = 0x2;
    private const int Create = 0x40;
    private const int CloseOnExec = 0x80000;
    private const int OwnerMode = 0x180;

    private static readonly TimeSpan Again = TimeSpan.FromMilliseconds(50);

    private readonly SafeFileHandle file;

    private FileLock(SafeFileHandle file) => this.file = file;

    /// <summary>Shares a file with others, as soon as nobody has it alone.</summary>
    /// <exception cref="IOException">The file cannot be opened.</exception>
    public static async Task<FileLock> ShareAsync(string path, CancellationToken cancel) =>
        await AsSoonAsPossibleAsync(path, Shared, cancel);

    /// <summary>Has a file alone, as soon as nobody else has it.</summary>
    /// <exception cref="IOException">The file cannot be opened.</exception>
    public static async Task<FileLock> AloneAsync(string path, CancellationToken cancel) =>
        await AsSoonAsPossibleAsync(path, Exclusive, cancel);

    /// <summary>Stops sharing, and has the file alone if nobody else shares it. False where somebody does: it is let go of then.</summary>
    public bool BecomeAlone()
    {
        if (Take(Exclusive))
        {
            return true;
        }

        file.Dispose();
        return false;
    }

    /// <inheritdoc/>
    public void Dispose() => file.Dispose();

    private static async Task<FileLock> AsSoonAsPossibleAsync(string path, int how, CancellationToken cancel)
    {
        // Opened by the framework, a file is locked already, and in a way that two cannot both turn into having it alone.
        var opened = Open(path, ReadWrite | Create | CloseOnExec, OwnerMode);
        var taken =
            opened >= 0
                ? new FileLock(new SafeFileHandle(opened, ownsHandle: true))
                : throw new IOException($"{path} cannot be opened: {Marshal.GetPInvokeErrorMessage(Marshal.GetLastPInvokeError())}");
        try
        {
            while (!taken.Take(how))
            {
                await Task.Delay(Again, cancel);
            }

            return taken;
        }
        catch
        {
            taken.Dispose();
            throw;
        }
    }

    private bool Take(int how)
    {
        var isAdded = false;
        file.DangerousAddRef(ref isAdded);
        try
        {
            return Flock((int)file.DangerousGetHandle(), how | AtOnce) == 0;
        }
        finally
        {
            file.DangerousRelease();
        }
    }

    [DllImport(
        "libc",
        EntryPoint = "open",
        SetLastError = true,
        CharSet = CharSet.Ansi,
        BestFitMapping = false,
        ThrowOnUnmappableChar = true
    )]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int Open([MarshalAs(UnmanagedType.LPUTF8Str)] string path, int flags, int mode);

    [DllImport("libc", EntryPoint = "flock", SetLastError = true)]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int Flock(int file, int how);
}
