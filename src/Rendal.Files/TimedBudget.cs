using System.Diagnostics;
using Rendal.Core.Budgets;

namespace Rendal.Files;

/// <summary>Budgets whose time begins when they are made.</summary>
public static class TimedBudget
{
    /// <summary>Begins one.</summary>
    /// <param name="subject">What is worked on, as the subject of a sentence.</param>
    /// <param name="limits">What it may take.</param>
    /// <param name="cancel">Whoever asked for the work has gone.</param>
    public static Budget Begin(string subject, Limits limits, CancellationToken cancel)
    {
        var since = Stopwatch.StartNew();
        return new Budget(subject, limits, () => since.Elapsed, cancel);
    }
}
