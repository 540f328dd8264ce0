using System.Collections.Concurrent;
using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.Core.Intake;
using Rendal.Files;
using Rendal.Store.Intake;

namespace Rendal.App.Intake;

/// <summary>
/// Files that are being looked at, opened once and kept as spooled rows, so that each change of their reading is seen at once. It is only
/// ever a short way: what is not here any more is opened again, by this process or another.
/// </summary>
/// <param name="clock">Tells which was not used for longest.</param>
public sealed class OpenedFiles(TimeProvider clock)
{
    private const int Most = 12;

    private readonly ConcurrentDictionary<(long Book, long File, FileOpening Opening), (LedgerTable Table, long Used)> opened = new();

    /// <summary>The rows of an intake's file.</summary>
    /// <param name="stores">The book.</param>
    /// <param name="intake">The intake.</param>
    /// <param name="opening">How it is opened.</param>
    /// <param name="meter">Is told how far the file is read, where it was not opened yet.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="FileRefused">It cannot be read, or not like that.</exception>
    public LedgerTable Open(BookStores stores, IntakeRecord intake, FileOpening opening, ProgressMeter meter, CancellationToken cancel)
    {
        var key = (stores.Book.Id, intake.FileId, opening);
        if (!opened.TryGetValue(key, out var known))
        {
            meter.Begin("reading the file");
            var at = meter.Rows(cancel);
            var table = TableFile.Open(intake.FileName, () => stores.Files.Open(intake.FileId), opening, at);
            known = (table.Rows is RowSpool ? table : table with { Rows = RowSpool.Of(table.Rows, at) }, 0);
        }

        opened[key] = known with { Used = clock.GetTimestamp() };
        while (opened.Count > Most)
        {
            // The spool of one that is put away is closed when nobody reads in it any more.
            opened.TryRemove(opened.MinBy(o => o.Value.Used).Key, out _);
        }

        return known.Table;
    }
}
