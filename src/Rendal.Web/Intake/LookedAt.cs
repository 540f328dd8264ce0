using Rendal.App.Progress;
using Rendal.App;
using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Files;
using Rendal.Store.Intake;
using Rendal.Web.Books;

namespace Rendal.Web.Intake;

/// <summary>A ledger file with its reading and the corrections that are laid over it.</summary>
internal sealed class LookedAt
{
    private readonly BookScope scope;
    private readonly IntakeRecord intake;
    private readonly Dictionary<string, PaymentTerms> terms;
    private readonly ReadingSettings settings;

    private LookedAt(BookScope scope, IntakeRecord intake, LedgerTable table, RecognisedReading? recognised, Dictionary<string, PaymentTerms> terms, ReadingSettings settings) =>
        (this.scope, this.intake, Table, Recognised, this.terms, this.settings) = (scope, intake, table, recognised, terms, settings);

    public LedgerTable Table { get; }

    public RecognisedReading? Recognised { get; }

    /// <summary>What keeps the file from being read; empty when it can be.</summary>
    public IReadOnlyList<string> Lacks => Recognised?.Reading.Lacks() ?? ["No row of headings was found. Say which row has them."];

    /// <summary>How many rows the file has in all, for progress.</summary>
    public int RowCount => ((RowSpool)Table.Rows).Count;

    /// <summary>Opens the file of an intake and works out its reading, with what was decided and put right.</summary>
    public static async Task<LookedAt> OpenAsync(BookScope scope, IntakeRecord intake, ReadingChange change, OpenedFiles files, ProgressMeter meter, CancellationToken cancel)
    {
        var corrections = await scope.Corrections.HoldingAsync(cancel);
        var terms = await scope.Customers.TermsAsync(cancel);
        var table = files.Open(scope, intake, change.Opening, meter, cancel);
        var settings = new ReadingSettings(scope.Book.Currency, scope.Book.TermsDays);
        meter.Begin("finding out how it is written", ((RowSpool)table.Rows).Count);
        var recognised = Recognition.Recognise(table.Watched(meter.Rows(cancel)), settings, change, corrections);
        await scope.Intakes.CarryDownAsync(intake.Id, recognised?.Reading.CarriesDown == true, cancel);
        return new LookedAt(scope, intake, table, recognised, terms, settings);
    }

    /// <summary>A reader of its rows, which tells how far it has come.</summary>
    public LedgerReader Reader(ReadingChange change, ProgressMeter meter, string stage, CancellationToken cancel)
    {
        if (Lacks is [var lack, ..])
        {
            throw Unable.Invalid($"{intake.FileName}: {lack}");
        }

        meter.Begin(stage, RowCount);
        return new LedgerReader(Table.Watched(meter.Rows(cancel)), Recognised!, settings, key => terms.TryGetValue(key, out var own) ? own : null, change);
    }

    /// <summary>The view of the whole: what would be kept, and what was noticed.</summary>
    public async Task<IntakeView> ViewAsync(ReadingChange change, ProgressMeter meter, CancellationToken cancel)
    {
        var view = IntakeView.Of(intake, Table, Recognised?.Reading, Lacks, change);
        if (Lacks.Count > 0)
        {
            return view;
        }

        var reader = Reader(change, meter, "reading the rows", cancel);
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

        reader.NoteMissingAddresses(await scope.Customers.ReachableAsync(cancel));
        var outline = new LedgerOutline(reader.RowsKept, reader.Customers.Keys.ToHashSet(StringComparer.Ordinal), newest);
        return view.With(reader, kept, aside) with { Doubts = await DoubtsAsync(outline, cancel) };
    }

    /// <summary>What makes it doubtful that this is the next ledger of the book; empty when nothing does, and for the first one.</summary>
    public async Task<IReadOnlyList<string>> DoubtsAsync(LedgerOutline outline, CancellationToken cancel) =>
        intake.State == "looked-at" && await scope.Intakes.CurrentAsync(cancel) is { } current && current.FileId != intake.FileId
            ? (await scope.Ledger.OutlineAsync(current.Id, cancel)).DoubtsAbout(outline)
            : [];
}
