using System.Collections.Concurrent;
using System.Diagnostics.CodeAnalysis;

namespace Rendal.App.Delivery;

/// <summary>A few things of a kind that many use in turn. Each is used by one at a time, and made when the first needs it.</summary>
/// <param name="most">How many there are at most.</param>
/// <param name="make">Makes one.</param>
[SuppressMessage("Design", "CA1001", Justification = "A SemaphoreSlim whose wait handle nobody asks for has nothing to be disposed of.")]
internal sealed class BoundedPool<T>(int most, Func<T> make)
{
    private readonly SemaphoreSlim free = new(most);
    private readonly ConcurrentBag<T> idle = [];

    /// <summary>Those that nobody is using.</summary>
    public IReadOnlyCollection<T> Idle => idle;

    /// <summary>Uses one as soon as one is free.</summary>
    public async Task<TResult> UseAsync<TResult>(Func<T, Task<TResult>> use)
    {
        await free.WaitAsync();
        var one = idle.TryTake(out var left) ? left : make();
        try
        {
            return await use(one);
        }
        finally
        {
            idle.Add(one);
            free.Release();
        }
    }
}
