using Rendal.App.Books;
using Rendal.Core.Layouts;
using Rendal.Files.Docx;

namespace Rendal.App.Layouts;

/// <summary>A letter that was brought along, looked through.</summary>
/// <param name="Layout">The layout that it makes, not kept yet; null where it has problems.</param>
/// <param name="Slots">The names of the slots that are in it.</param>
/// <param name="Problems">What has to be put right in the word processor, one sentence each.</param>
public sealed record ReadDocxTemplate(Layout? Layout, IReadOnlyList<string> Slots, IReadOnlyList<string> Problems);

/// <summary>Looks through a letter that was written in a word processor, and makes a layout of it that is not kept yet.</summary>
public sealed class ReadDocxFile(BookStores stores)
{
    /// <summary>
    /// Tells the slots of a DOCX file and what keeps it from being a layout. A file that is no DOCX has that as its problem.
    /// </summary>
    /// <param name="name">The name of its file, without folders.</param>
    /// <param name="bytes">Its file.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<ReadDocxTemplate> RunAsync(string name, byte[] bytes, CancellationToken cancel)
    {
        var intake = await stores.Intakes.CurrentAsync(cancel);
        var look = DocxInspection.At(bytes, intake is null ? null : await stores.Ledger.ExtraHeadingsAsync(intake.Id, cancel));
        var layout = new Layout
        {
            Name = Path.GetFileNameWithoutExtension(name),
            Forms = [WordProcessor.Program is null ? DocumentForm.Docx : DocumentForm.Pdf],
            Letter = new DocxTemplate
            {
                FileName = name,
                Bytes = bytes,
                Slots = look.Slots,
            },
        };
        return new ReadDocxTemplate(
            look.Problems.Count == 0 ? layout : null,
            [.. look.Slots.Select(s => s.Name).Distinct()],
            look.Problems
        );
    }
}
