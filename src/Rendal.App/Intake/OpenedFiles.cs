using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Text.Json;
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

    private readonly ConditionalWeakTable<IEnumerable<FileRow>, OutlinedFile> outlines = [];

    /// <summary>
    /// What the columns of an opened ledger are; null where nothing looks like a table. It is worked out once for as long as nothing else
    /// is decided about the file: a page asks for it with each part of the rows.
    /// </summary>
    /// <param name="table">The opened file.</param>
    /// <param name="change">What the person decided.</param>
    public Reading? Outline(LedgerTable table, ReadingChange change) => Outlined(table, change).Ledger.Value;

    /// <summary>What the columns of an opened customer list are, in the same way.</summary>
    /// <param name="table">The opened file.</param>
    /// <param name="change">What the person decided.</param>
    public CardReading? CardOutline(LedgerTable table, ReadingChange change) => Outlined(table, change).Customers.Value;

    private OutlinedFile Outlined(LedgerTable table, ReadingChange change)
    {
        var said = JsonSerializer.Serialize(change);
        if (!outlines.TryGetValue(table.Rows, out var known) || known.Said != said)
        {
            known = new OutlinedFile(said, new(() => Recognition.Outline(table, change)), new(() => CardReading.Of(table, change)));
            outlines.AddOrUpdate(table.Rows, known);
        }

        return known;
    }

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

    private sealed record OutlinedFile(string Said, Lazy<Reading?> Ledger, Lazy<CardReading?> Customers);
}
