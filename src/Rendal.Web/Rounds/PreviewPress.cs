using Rendal.Core.Layouts;
using Rendal.Files.Documents;
using Rendal.Files.Pdf;

namespace Rendal.Web.Rounds;

/// <summary>One press for all previews, used by one request at a time.</summary>
internal sealed class PreviewPress : IDisposable
{
    private readonly SemaphoreSlim one = new(1);
    private readonly Press press = new();

    public async Task<DocumentFile> MakeAsync(StatementPaper paper, Layout layout, DocumentForm form, CancellationToken cancel)
    {
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
