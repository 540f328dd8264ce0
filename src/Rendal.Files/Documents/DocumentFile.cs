using Rendal.Core.Layouts;
using Rendal.Files.Docx;
using Rendal.Files.Pdf;

namespace Rendal.Files.Documents;

/// <summary>A customer's document as a file.</summary>
/// <param name="Name">Its name, safe for every file system.</param>
/// <param name="ContentType">Its media type (RFC 6838): <c>application/pdf</c>.</param>
/// <param name="Bytes">Its content.</param>
public sealed record DocumentFile(string Name, string ContentType, byte[] Bytes)
{
    /// <summary>The media type of PDF.</summary>
    public const string PdfType = "application/pdf";

    /// <summary>The names of the files that a document makes, in the order in which they are enclosed.</summary>
    public static IReadOnlyList<string> Names(StatementDocument document, Layout layout) =>
        [.. layout.Forms.Order().Select(form => NameOf(document, form))];

    /// <summary>Makes a document in each form that its layout asks for.</summary>
    /// <param name="document">What stands on it.</param>
    /// <param name="layout">The layout that the document was set by.</param>
    /// <param name="renderer">The renderer of the thread.</param>
    /// <param name="letter">The PDF of its letter, where it was made with others in one call; null to make it now.</param>
    /// <param name="cancel">Whoever asked for it has gone.</param>
    /// <exception cref="DocxConversionFailed">A PDF of a letter is asked for where LibreOffice is not installed, or it failed; the message
    /// says so.</exception>
    public static IReadOnlyList<DocumentFile> Make(
        StatementDocument document,
        Layout layout,
        DocumentRenderer renderer,
        byte[]? letter = null,
        CancellationToken cancel = default
    ) =>
        [
            .. layout
                .Forms.Order()
                .Select(form =>
                    form == DocumentForm.Pdf && letter is not null
                        ? new DocumentFile(NameOf(document, form), PdfType, letter)
                        : Make(document, layout, renderer, form, cancel)
                ),
        ];

    /// <summary>PDFs of the letters of several documents, made in one call, in their order.</summary>
    /// <param name="documents">The documents with their layouts, each of which has a letter.</param>
    /// <exception cref="DocxConversionFailed">LibreOffice is not installed, or it failed; the message says so.</exception>
    public static IReadOnlyList<byte[]> Letters(IReadOnlyList<(StatementDocument Document, Layout Layout)> documents) =>
        WordProcessor.Pdfs([.. documents.Select(p => Filled(p.Document, p.Layout))]);

    /// <summary>The document as a file of one form, with the name that it is enclosed by.</summary>
    /// <param name="document">What stands on it.</param>
    /// <param name="layout">The layout that the document was set by; it asks for the form.</param>
    /// <param name="renderer">The renderer of the thread.</param>
    /// <param name="form">The form.</param>
    /// <param name="cancel">Whoever asked for it has gone.</param>
    /// <exception cref="DocxConversionFailed">A PDF of a letter is asked for where LibreOffice is not installed, or it failed; the message
    /// says so.</exception>
    public static DocumentFile Make(
        StatementDocument document,
        Layout layout,
        DocumentRenderer renderer,
        DocumentForm form,
        CancellationToken cancel = default
    ) =>
        form switch
        {
            DocumentForm.Pdf when layout.Letter is not null => new DocumentFile(
                NameOf(document, form),
                PdfType,
                WordProcessor.Pdfs([Filled(document, layout)])[0]
            ),
            DocumentForm.Docx => new DocumentFile(
                NameOf(document, form),
                "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
                Filled(document, layout)
            ),
            DocumentForm.Pdf => new DocumentFile(NameOf(document, form), PdfType, renderer.Print(document, layout, cancel)),
            DocumentForm.Xlsx => new DocumentFile(
                NameOf(document, form),
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                StatementWorkbook.Write(document)
            ),
            DocumentForm.Csv => new DocumentFile(NameOf(document, form), "text/csv; charset=utf-8", StatementCsv.Write(document)),
            _ => throw new ArgumentOutOfRangeException(nameof(form), form, null),
        };

    private static byte[] Filled(StatementDocument document, Layout layout) => DocxFilling.Fill(layout.Letter!.Bytes, document.Letter!);

    private static string NameOf(StatementDocument document, DocumentForm form) =>
        FileName.Safe(document.FileName, "." + form.ToString().ToLowerInvariant());
}
