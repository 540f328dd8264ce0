using Rendal.Core.Intake;
using Rendal.Files.Csv;
using Rendal.Store.Intake;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Intake;

/// <summary>A stored ledger file with what was recognised of it.</summary>
internal sealed record LedgerFile(LedgerTable Table, RecognisedReading? Recognised, ReadingSettings Settings)
{
    /// <summary>Opens the file of an intake and works out its reading, with what the person decided.</summary>
    public static LedgerFile Open(BookScope scope, IntakeRecord intake, ReadingChange change)
    {
        var table = CsvLedger.Open(intake.FileName, () => scope.Files.Open(intake.FileId));
        var settings = new ReadingSettings(scope.Book.Currency, scope.Book.TermsDays);
        return new LedgerFile(table, Recognition.Recognise(table, settings, change), settings);
    }

    /// <summary>What keeps the file from being read; empty when it can be.</summary>
    public IReadOnlyList<string> Lacks => Recognised?.Reading.Lacks() ?? ["No row of headings was found. Say which row has them."];

    /// <summary>A reader of its rows.</summary>
    public async Task<LedgerReader> ReaderAsync(BookScope scope, CancellationToken cancel)
    {
        if (Lacks is [var lack, ..])
        {
            throw Unable.Invalid(lack);
        }

        var terms = await scope.Customers.TermsAsync(cancel);
        return new LedgerReader(Table, Recognised!, Settings, key => terms.TryGetValue(key, out var days) ? days : null);
    }
}
