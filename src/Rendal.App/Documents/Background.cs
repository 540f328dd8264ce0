using System.Runtime.InteropServices;

namespace Rendal.App.Documents;

/// <summary>
/// Work that takes a processor for some time, on a thread of its own that gives way to all others. What is being carried
/// goes on at once when it can: between the mark that the end is given and the giving, a kill leaves a parcel unsure.
/// </summary>
internal static class Background
{
    // See setpriority(2): of a thread. Ten of nineteen steps down is about a tenth of the usual share, and all of them a seventh of that.
    private const int OfAThread = 0;
    private const int StepsDown = 10;
    private const int AllStepsDown = 19;

    // What takes longer gives way to what has just begun: nobody waits for a short document because of long ones.
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(1);

    /// <summary>Does the work.</summary>
    public static Task<T> RunAsync<T>(Func<T> work) => Task.Factory.StartNew(
        () =>
        {
            // Where the system does not allow it, the work is done all the same.
            _ = SetPriority(OfAThread, 0, StepsDown);
            var thread = ThreadId();
            var longer = new Timer(_ => SetPriority(OfAThread, thread, AllStepsDown), null, Long, Timeout.InfiniteTimeSpan);
            try
            {
                return work();
            }
            finally
            {
                // The thread is no other one's before nothing is done to it any more.
                using var isOver = new ManualResetEvent(initialState: false);
                if (longer.Dispose(isOver))
                {
                    isOver.WaitOne();
                }
            }
        },
        CancellationToken.None,
        TaskCreationOptions.LongRunning,
        TaskScheduler.Default);

    [DllImport("libc", EntryPoint = "setpriority")]
    private static extern int SetPriority(int which, uint who, int steps);

    [DllImport("libc", EntryPoint = "gettid")]
    private static extern uint ThreadId();
}
