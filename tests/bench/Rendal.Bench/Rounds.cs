using System.Diagnostics;

namespace Rendal.Bench;

/// <summary>Repeats work and takes the median, so that one disturbed round counts for little.</summary>
internal static class Rounds
{
    /// <summary>
    /// The median seconds of several rounds of two pieces of work, taken in turns so that a busy machine slows both alike.
    /// </summary>
    public static (double First, double Second) InTurns(int rounds, Action first, Action second)
    {
        first();
        second();
        var firsts = new List<double>();
        var seconds = new List<double>();
        for (var i = 0; i < rounds; i++)
        {
            firsts.Add(Seconds(first));
            seconds.Add(Seconds(second));
        }

        return (Median(firsts), Median(seconds));
    }

    public static double Seconds(Action work)
    {
        GC.Collect();
        GC.WaitForPendingFinalizers();
        var watch = Stopwatch.StartNew();
        work();
        return watch.Elapsed.TotalSeconds;
    }

    public static double Median(List<double> values)
    {
        values.Sort();
        return values.Count % 2 == 1 ? values[values.Count / 2] : (values[(values.Count / 2) - 1] + values[values.Count / 2]) / 2;
    }
}
