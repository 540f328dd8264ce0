using System.Collections.Concurrent;

namespace Rendal.Core.Intake;

/// <summary>Reads rows in another thread, a bounded number of them ahead of whoever goes through them.</summary>
public static class ReadAhead
{
    private const int RowsInABatch = 128;
    private const int BatchesAhead = 4;

    /// <summary>
    /// The same rows in the same order. What goes wrong while reading is thrown after the rows before it; whoever stops early stops the
    /// reading too.
    /// </summary>
    public static IEnumerable<T> Of<T>(IEnumerable<T> rows)
    {
        using var stop = new CancellationTokenSource();
        using var batches = new BlockingCollection<T[]>(BatchesAhead);
        var reading = Task.Run(() => Read(rows, batches, stop.Token));
        try
        {
            foreach (var batch in batches.GetConsumingEnumerable())
            {
                foreach (var row in batch)
                {
                    yield return row;
                }
            }

            reading.GetAwaiter().GetResult();
        }
        finally
        {
            stop.Cancel();

            // The file is closed when this returns, however it ended.
            Task.WhenAny(reading).Wait();
        }
    }

    private static void Read<T>(IEnumerable<T> rows, BlockingCollection<T[]> batches, CancellationToken stop)
    {
        var batch = new List<T>(RowsInABatch);
        try
        {
            foreach (var row in rows)
            {
                batch.Add(row);
                if (batch.Count == RowsInABatch)
                {
                    var handed = HandOver(batches, [.. batch], stop);
                    batch.Clear();
                    if (!handed)
                    {
                        return;
                    }
                }
            }
        }
        finally
        {
            HandOver(batches, [.. batch], stop);
            batches.CompleteAdding();
        }
    }

    /// <summary>Hands rows over as soon as there is room. False where nobody goes through them any more.</summary>
    private static bool HandOver<T>(BlockingCollection<T[]> batches, T[] batch, CancellationToken stop)
    {
        try
        {
            batches.Add(batch, stop);
            return true;
        }
        catch (OperationCanceledException)
        {
            return false;
        }
    }
}
