using Rendal.App.Books;
using Rendal.App.Ledger;
using Rendal.App.Rounds;
using Rendal.Core.Enclosures;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Store.Books;

namespace Rendal.App.Enclosures;

/// <summary>How a line of the list of copies stands.</summary>
public enum CopyLineState
{
    /// <summary>A person has to say which file is the copy of which document.</summary>
    Question,

    /// <summary>An invoice of the round has no copy.</summary>
    Missing,

    /// <summary>A document of the round has a copy, or a file is the copy of one that is not in the round.</summary>
    Matched,

    /// <summary>A credit note of the round has no copy, and goes without.</summary>
    NotNeeded,

    /// <summary>A file is a copy of nothing in the ledger.</summary>
    LeftOver,
}

/// <summary>A document of the round with its copies, or a file that is a copy of none of them.</summary>
/// <param name="State">How it stands.</param>
/// <param name="Customer">Whose document it is; empty for a file without one.</param>
/// <param name="Name">That customer’s name.</param>
/// <param name="Number">The document’s number; empty for a file without one.</param>
/// <param name="Amount">What is open of it; null for a file without one.</param>
/// <param name="Currency">The currency of the amount; null for a file without one.</param>
/// <param name="Files">The files: copies, or those that may be.</param>
/// <param name="Reason">Why it is in question or left over, in words; empty for nothing.</param>
public sealed record CopyLine(
    CopyLineState State,
    string Customer,
    string Name,
    string Number,
    decimal? Amount,
    Currency? Currency,
    IReadOnlyList<EnclosureFile> Files,
    string Reason
);

/// <summary>Which file is the copy of which document of a round: every document and every file is in it once.</summary>
public sealed class CopyList(BookStores stores)
{
    /// <summary>All lines: what is in question first, then what is missing, what is matched, what needs none, what is left over.</summary>
    /// <exception cref="ProblemException">The round is not there.</exception>
    public async Task<IReadOnlyList<CopyLine>> RunAsync(long id, CancellationToken cancel)
    {
        var round = await stores.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        return await RecentFigures.OfAsync<List<CopyLine>>(
            stores,
            [ContentKind.Enclosure],
            (id, round.Revision, round.PreparedAt),
            async () => await ReckonAsync(id, cancel),
            lines => lines.Count
        );
    }

    private async Task<List<CopyLine>> ReckonAsync(long id, CancellationToken cancel)
    {
        var content = await RoundContent.LoadAsync(stores, id, cancel);
        await CopiesAnew.RecogniseAsync(stores, content.Intake.Id, cancel);
        var matching = await RoundEnclosures.MatchingAsync(stores, content.Round, null, cancel);
        var lines = new List<CopyLine>();
        var shown = new HashSet<long>();
        foreach (var (_, statements) in (await content.ChooseAsync(cancel)).ByCustomer())
        {
            foreach (var item in statements.SelectMany(s => s.Items).Where(i => LedgerDocument.IsDocument(i.Row)))
            {
                var row = item.Row;
                var questions = matching.InQuestion(row.Customer, row.Number);
                var copies = questions.Count > 0 ? [.. questions.Select(q => q.File)] : matching.Of(row.Customer, row.Number);
                shown.UnionWith(copies.Select(c => c.Id));
                lines.Add(
                    new CopyLine(
                        questions.Count > 0 ? CopyLineState.Question
                            : copies.Count > 0 ? CopyLineState.Matched
                            : row.Kind == ItemKind.Invoice ? CopyLineState.Missing
                            : CopyLineState.NotNeeded,
                        row.Customer,
                        content.Card(row.Customer).Name,
                        row.Number,
                        item.Open,
                        row.Currency,
                        copies,
                        questions.Count > 0 ? questions[0].Reason : ""
                    )
                );
            }
        }

        lines.AddRange(
            matching
                .Files.Where(f => !shown.Contains(f.File.Id))
                .Select(f => new CopyLine(
                    f.State switch
                    {
                        CopyState.Matched => CopyLineState.Matched,
                        CopyState.Question => CopyLineState.Question,
                        _ => CopyLineState.LeftOver,
                    },
                    f.Documents is [var document] ? document.Customer : "",
                    f.Documents is [var named] ? content.Card(named.Customer).Name : "",
                    f.Documents is [var numbered] ? numbered.Number : "",
                    null,
                    null,
                    [f.File],
                    f.State == CopyState.Matched ? "not in this round" : f.Reason
                ))
        );
        return
        [
            .. lines
                .OrderBy(l => l.State)
                .ThenBy(l => l.Name, StringComparer.CurrentCultureIgnoreCase)
                .ThenBy(l => l.Number, StringComparer.Ordinal),
        ];
    }
}
