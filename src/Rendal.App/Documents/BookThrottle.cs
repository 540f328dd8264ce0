using System.Collections.Concurrent;

namespace Rendal.App.Documents;

/// <summary>Lets work that takes a processor for some time go on a few at once for each book, so that no book waits for another.</summary>
/// <param name="ofABook">How many of one book are at it at once.</param>
internal sealed class BookThrottle(int ofABook)
{
    private readonly ConcurrentDictionary<long, SemaphoreSlim> books = [];

    /// <summary>Does the work when it is the book's turn.</summary>
    /// <exception cref="OperationCanceledException">Whoever waits has gone.</exception>
    public async Task<T> TakeAsync<T>(long book, Func<Task<T>> work, CancellationToken cancel)
    {
        var turns = books.GetOrAdd(book, _ => new SemaphoreSlim(ofABook));
        await turns.WaitAsync(cancel);
        try
        {
            return await work();
        }
        finally
        {
            turns.Release();
        }
    }
}
