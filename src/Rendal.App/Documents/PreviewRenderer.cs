using System.Collections.Concurrent;
using Rendal.Core.Layouts;
using Rendal.Files.Documents;
using Rendal.Files.Docx;
using Rendal.Files.Pdf;
using SkiaSharp;

namespace Rendal.App.Documents;

/// <summary>Makes the documents of previews: a few at once for each book, beside those of other books.</summary>
public sealed class PreviewRenderer : IDisposable
{
    private const int OfOneBook = 2;
    private const int MostKept = 4;

    private readonly BookThrottle turns = new(OfOneBook);
    private readonly ConcurrentBag<DocumentRenderer> idle = [];

    /// <summary>Makes a document.</summary>
    /// <exception cref="ProblemException">It cannot be made; the reason is for a person.</exception>
    /// <exception cref="Core.Budgets.OverBudget">It takes more than a document may.</exception>
    public Task<DocumentFile> MakeAsync(
        long book,
        StatementDocument document,
        Layout layout,
        DocumentForm form,
        CancellationToken cancel
    ) => turns.TakeAsync(book, () => Background.RunAsync(() => Make(document, layout, form, cancel)), cancel);

    /// <summary>Where on the pages of a document stands what was taken from somewhere, and how large each page is in points.</summary>
    /// <exception cref="Core.Budgets.OverBudget">It takes more than a document may.</exception>
    public Task<(IReadOnlyList<PlacedOrigin> Places, SKSize Page)> PlacesAsync(
        long book,
        StatementDocument document,
        Layout layout,
        CancellationToken cancel
    ) => turns.TakeAsync(book, () => Background.RunAsync(() => With(renderer => renderer.Places(document, layout, cancel))), cancel);

    /// <inheritdoc/>
    public void Dispose()
    {
        while (idle.TryTake(out var renderer))
        {
            renderer.Dispose();
        }
    }

    private DocumentFile Make(StatementDocument document, Layout layout, DocumentForm form, CancellationToken cancel)
    {
        try
        {
            return With(renderer => DocumentFile.Make(document, layout, renderer, form, cancel));
        }
        catch (DocxConversionFailed e)
        {
            throw ProblemException.Conflict(e.Message);
        }
    }

    private T With<T>(Func<DocumentRenderer, T> work)
    {
        var renderer = idle.TryTake(out var kept) ? kept : new DocumentRenderer();
        try
        {
            return work(renderer);
        }
        finally
        {
            if (idle.Count < MostKept)
            {
                idle.Add(renderer);
            }
            else
            {
                renderer.Dispose();
            }
        }
    }
}
