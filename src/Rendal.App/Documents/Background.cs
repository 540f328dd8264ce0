using System.Runtime.InteropServices;

namespace Rendal.App.Documents;

/// <summary>
/// Work that takes a processor for some time, on a thread of its own that gives way to all others. What is being carried goes on at once
/// when it can: between the mark that the end is given and the giving, a kill leaves a parcel unsure.
/// </summary>
internal static class Background
{
    // See setpriority(2): of the thread that calls. Ten of nineteen steps down is about a tenth of the usual share.
    private const int OfAThread = 0;
    private const int StepsDown = 10;

    /// <summary>Does the work, and gives or throws what it gives or throws.</summary>
    public static Task<T> RunAsync<T>(Func<T> work) =>
        Task.Factory.StartNew(
            () =>
            {
                // Where the system does not allow it, the work is done all the same.
                _ = SetPriority(OfAThread, 0, StepsDown);
                return work();
            },
            CancellationToken.None,
            TaskCreationOptions.LongRunning,
            TaskScheduler.Default
        );

    [DllImport("libc", EntryPoint = "setpriority")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int SetPriority(int which, uint who, int steps);
}
