using System.Runtime.InteropServices;
using Rendal.Core.Budgets;

namespace Rendal.Files;

/// <summary>
/// Budgets whose time begins when they are made, for work on one thread. The time is what the thread had a processor for, so
/// that nothing is over its budget because the machine is busy with something else.
/// </summary>
public static class TimedBudget
{
    // See clock_gettime(2): the processor time of the thread that asks.
    private const int OfTheThread = 3;

    /// <summary>Begins one. It is to be asked by the thread that begins it.</summary>
    /// <param name="subject">What is worked on, as the subject of a sentence.</param>
    /// <param name="limits">What it may take.</param>
    /// <param name="cancel">Whoever asked for the work has gone.</param>
    public static Budget Begin(string subject, Limits limits, CancellationToken cancel)
    {
        var since = Used();
        return new Budget(subject, limits, () => Used() - since, cancel);
    }

    private static TimeSpan Used() =>
        GetTime(OfTheThread, out var time) == 0
            ? TimeSpan.FromSeconds(time.Seconds) + TimeSpan.FromMicroseconds(time.Nanoseconds / 1_000)
            : throw new InvalidOperationException("The system does not tell how long a thread has worked.");

    [DllImport("libc", EntryPoint = "clock_gettime")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int GetTime(int clock, out Time time);

    [StructLayout(LayoutKind.Sequential)]
    private readonly struct Time
    {
        /// <summary>Whole seconds.</summary>
        public readonly nint Seconds;

        /// <summary>What is beyond them.</summary>
        public readonly nint Nanoseconds;
    }
}
