using System.Diagnostics;

namespace Rendal.App.Progress;

/// <summary>
/// Where a long work tells how far it has come. One begins its stages; any number of threads may take the steps, and any may read it.
/// </summary>
public sealed class ProgressMeter
{
    private readonly Stopwatch since = Stopwatch.StartNew();
    private volatile Stage stage = new("opening", 0, "rows");
    private int done;

    /// <summary>Begins another stage, at its first step.</summary>
    /// <param name="what">What is done in it, in a word or two for a person.</param>
    /// <param name="of">How many steps it has; 0 where that is not known.</param>
    /// <param name="unit">What a step is, in the plural.</param>
    public void Begin(string what, int of = 0, string unit = "rows")
    {
        stage = new Stage(what, of, unit);
        Volatile.Write(ref done, 0);
        since.Restart();
    }

    /// <summary>Counts one step of the stage as done. Safe to be called by many at once.</summary>
    public void Step() => Interlocked.Increment(ref done);

    /// <summary>Something to be called for each row of a stage, which also stops it.</summary>
    public Action<int> Rows(CancellationToken cancel) =>
        _ =>
        {
            if ((Interlocked.Increment(ref done) & 1023) == 0)
            {
                cancel.ThrowIfCancellationRequested();
            }
        };

    /// <summary>How far the work has come, for a person who waits. It may be asked at any time, by any thread.</summary>
    public WorkProgress Now()
    {
        var (now, of) = (Volatile.Read(ref done), stage.Of);
        var seconds = since.Elapsed.TotalSeconds;
        var speed = seconds < 0.2 ? 0 : (int)(now / seconds);
        return new WorkProgress(
            stage.What,
            now,
            of,
            stage.Unit,
            speed,
            of > 0 && speed > 0 ? (int)Math.Ceiling(Math.Max(of - now, 0) / (double)speed) : null
        );
    }

    private sealed record Stage(string What, int Of, string Unit);
}
