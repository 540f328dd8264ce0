using System.Diagnostics;
using System.Runtime.CompilerServices;

namespace Rendal.Core.Tests;

/// <summary>Waits for what comes about by itself, and fails by its name where it does not.</summary>
internal static class Eventually
{
    // Only what hangs meets it, on the slowest machine too.
    private static readonly TimeSpan Limit = TimeSpan.FromMinutes(3);
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(50);

    /// <summary>Waits until it holds.</summary>
    public static async Task HoldsAsync(Func<bool> holds, [CallerArgumentExpression(nameof(holds))] string what = "") =>
        await BecomesAsync(() => Task.FromResult(holds()), h => h, what);

    /// <summary>Waits until it holds.</summary>
    public static async Task HoldsAsync(Func<Task<bool>> holds, [CallerArgumentExpression(nameof(holds))] string what = "") =>
        await BecomesAsync(holds, h => h, what);

    /// <summary>Looks until what is seen is as it should be; gives that.</summary>
    public static async Task<T> BecomesAsync<T>(
        Func<Task<T>> look,
        Predicate<T> isReached,
        [CallerArgumentExpression(nameof(isReached))] string what = ""
    )
    {
        var begun = Stopwatch.StartNew();
        while (true)
        {
            var seen = await look();
            if (isReached(seen))
            {
                return seen;
            }

            Assert.True(begun.Elapsed < Limit, $"This did not come about: {what}");
            await Task.Delay(Pause, TestContext.Current.CancellationToken);
        }
    }
}
