using System.Collections.Concurrent;
using Rendal.Core.Layouts;
using Rendal.Files.Documents;
using Rendal.Files.Letters;
using Rendal.Files.Pdf;

namespace Rendal.App.Documents;

/// <summary>Makes the documents of previews: a few at once for each book, beside those of other books.</summary>
public sealed class PreviewPress : IDisposable
{
    private const int OfOneBook = 2;
    private const int MostKept = 4;

    private readonly BookTurns turns = new(OfOneBook);
    private readonly ConcurrentBag<Press> idle = [];

    /// <summary>Makes a document.</summary>
    /// <exception cref="Unable">It cannot be made; the reason is for a person.</exception>
    /// <exception cref="Core.Budgets.OverBudget">It takes more than a document may.</exception>
    public Task<DocumentFile> MakeAsync(long book, StatementPaper paper, Layout layout, DocumentForm form, CancellationToken cancel) =>
        turns.TakeAsync(book, () => Background.RunAsync(() => Make(paper, layout, form, cancel)), cancel);

    /// <inheritdoc/>
    public void Dispose()
    {
        while (idle.TryTake(out var press))
        {
            press.Dispose();
        }
    }

    private DocumentFile Make(StatementPaper paper, Layout layout, DocumentForm form, CancellationToken cancel)
    {
        var press = idle.TryTake(out var kept) ? kept : new Press();
        try
        {
            return DocumentFile.Make(paper, layout, press, form, cancel);
        }
        catch (LetterFailed e)
        {
            throw Unable.Conflict(e.Message);
        }
        finally
        {
            if (idle.Count < MostKept)
            {
                idle.Add(press);
            }
            else
            {
                press.Dispose();
            }
        }
    }
}
