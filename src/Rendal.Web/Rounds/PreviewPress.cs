using Rendal.Core.Layouts;
using Rendal.Files.Documents;
using Rendal.Files.Letters;
using Rendal.Files.Pdf;
using Rendal.Web.Hosting;

namespace Rendal.Web.Rounds;

/// <summary>One press for all previews, used by one request at a time.</summary>
internal sealed class PreviewPress : IDisposable
{
    private readonly SemaphoreSlim one = new(1);
    private readonly Press press = new();

    public async Task<DocumentFile> MakeAsync(StatementPaper paper, Layout layout, DocumentForm form, CancellationToken cancel)
    {
        if (layout.Letter is not null)
        {
            // A letter needs no press, and a word processor takes seconds.
            try
            {
                return await Task.Run(() => DocumentFile.Make(paper, layout, press, form), cancel);
            }
            catch (LetterFailed e)
            {
                throw Unable.Conflict(e.Message);
            }
        }

        await one.WaitAsync(cancel);
        try
        {
            return DocumentFile.Make(paper, layout, press, form);
        }
        finally
        {
            one.Release();
        }
    }

    public void Dispose()
    {
        press.Dispose();
        one.Dispose();
    }
}
