using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Intake.Columns;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Files;
using Rendal.Store.Intake;

namespace Rendal.App.Intake;

/// <summary>What a ledger file comes to.</summary>
/// <param name="Reader">Its reader, after the last row.</param>
/// <param name="Kept">The sum of the rows that would be kept, by currency.</param>
/// <param name="SetAside">The sum of those that would be set aside, as far as they have a currency.</param>
/// <param name="Doubts">What makes it doubtful that this is the next ledger of the book; empty when nothing does, and for the first
/// one, unless it seems to be no ledger at all.</param>
public sealed record LedgerRead(
    LedgerReader Reader,
    IReadOnlyDictionary<Currency, decimal> Kept,
    IReadOnlyDictionary<Currency, decimal> SetAside,
    IReadOnlyList<string> Doubts
);

/// <summary>A ledger file with its reading and the corrections that are laid over it.</summary>
public sealed class LedgerLook
{
    private readonly BookStores stores;
    private readonly IntakeRecord intake;
    private readonly ReadingChange change;
    private readonly Dictionary<string, PaymentTerms> terms;
    private readonly ReadingSettings settings;

    private LedgerLook(
        BookStores stores,
        IntakeRecord intake,
        ReadingChange change,
        LedgerTable table,
        RecognisedReading? recognised,
        Dictionary<string, PaymentTerms> terms,
        ReadingSettings settings
    ) =>
        (this.stores, this.intake, this.change, Table, Recognised, this.terms, this.settings) = (
            stores,
            intake,
            change,
            table,
            recognised,
            terms,
            settings
        );

    /// <summary>The rows of the file.</summary>
    public LedgerTable Table { get; }

    /// <summary>How they are read; null where no row of headings was found.</summary>
    public RecognisedReading? Recognised { get; }

    /// <summary>What keeps the file from being read; empty when it can be.</summary>
    public IReadOnlyList<string> Lacks => Recognised?.Reading.Lacks() ?? ["No row of headings was found. Say which row has them."];

    /// <summary>What it seems to be instead of a ledger; null where it may well be one, and for one that was kept.</summary>
    public OtherList? SeemsToBe => intake.State == "looked-at" ? Recognised?.Reading.SeemsToBe : null;

    private int RowCount => ((RowSpool)Table.Rows).Count;

    /// <summary>Opens the file of an intake and works out its reading, with what was decided and put right.</summary>
    /// <exception cref="FileRefused">The file cannot be read.</exception>
    public static async Task<LedgerLook> OpenAsync(
        BookStores stores,
        IntakeRecord intake,
        OpenedFiles files,
        ProgressMeter meter,
        CancellationToken cancel
    )
    {
        var corrections = await stores.Corrections.HoldingAsync(cancel);
        var terms = await stores.Customers.TermsAsync(cancel);
        var table = files.Open(stores, intake, intake.Change.Opening, meter, cancel);
        var settings = new ReadingSettings(stores.Book.Currency, stores.Book.TermsDays);
        meter.Begin("finding out how it is written", ((RowSpool)table.Rows).Count);
        var recognised = Recognition.Recognise(table.Watched(meter.Rows(cancel)), settings, intake.Change, corrections);
        await stores.Intakes.CarryDownAsync(intake.Id, recognised?.Reading.CarriesDown == true, cancel);
        return new LedgerLook(stores, intake, intake.Change, table, recognised, terms, settings);
    }

    /// <summary>A reader of its rows, which tells how far it has come.</summary>
    /// <exception cref="ProblemException">Something keeps it from being read.</exception>
    public LedgerReader Reader(ProgressMeter meter, string stage, CancellationToken cancel)
    {
        if (Lacks is [var lack, ..])
        {
            throw ProblemException.Invalid($"{intake.FileName}: {lack}");
        }

        meter.Begin(stage, RowCount);
        return new LedgerReader(
            Table.Watched(meter.Rows(cancel)),
            Recognised!,
            settings,
            key => terms.TryGetValue(key, out var own) ? own : null,
            change
        );
    }

    /// <summary>Goes through all its rows: what would be kept, and what was noticed.</summary>
    /// <exception cref="ProblemException">Something keeps it from being read.</exception>
    public async Task<LedgerRead> ReadAsync(ProgressMeter meter, CancellationToken cancel)
    {
        var reader = Reader(meter, "reading the rows", cancel);
        var kept = new SortedDictionary<Currency, decimal>();
        var aside = new SortedDictionary<Currency, decimal>();
        DateOnly? newest = null;
        foreach (var read in reader.Rows())
        {
            if (read.Row is { } row)
            {
                kept[row.Currency] = kept.GetValueOrDefault(row.Currency) + row.Open;
                newest = row.Date > newest || newest is null ? row.Date ?? newest : newest;
            }
            else if (read.SetAside!.Currency is { } currency)
            {
                aside[currency] = aside.GetValueOrDefault(currency) + read.SetAside.Amount;
            }
        }

        reader.NoteMissingAddresses(await stores.Customers.ReachableAsync(cancel));
        var outline = new LedgerOutline(reader.RowsKept, reader.Customers.Keys.ToHashSet(StringComparer.Ordinal), newest);
        IReadOnlyList<string> seems = SeemsToBe is { } other ? [other.Says] : [];
        return new LedgerRead(reader, kept, aside, [.. seems, .. await DoubtsAsync(outline, cancel)]);
    }

    private async Task<IReadOnlyList<string>> DoubtsAsync(LedgerOutline outline, CancellationToken cancel) =>
        intake.State == "looked-at" && await stores.Intakes.CurrentAsync(cancel) is { } current && current.FileId != intake.FileId
            ? (await stores.Ledger.OutlineAsync(current.Id, cancel)).DoubtsAbout(outline)
            : [];
}
