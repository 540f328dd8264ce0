using Rendal.Core.Layouts;
using Rendal.Files.Pdf;

namespace Rendal.Files.Documents;

/// <summary>A customer's document as a file.</summary>
/// <param name="Name">Its name, safe for every file system.</param>
/// <param name="ContentType">Its media type (RFC 6838): <c>application/pdf</c>.</param>
/// <param name="Bytes">Its content.</param>
public sealed record DocumentFile(string Name, string ContentType, byte[] Bytes)
{
    /// <summary>The names of the files that a document makes, in the order in which they are enclosed.</summary>
    public static IReadOnlyList<string> Names(StatementPaper paper, Layout layout) => [.. layout.Forms.Order().Select(form => NameOf(paper, form))];

    /// <summary>Makes a document in each form that its layout asks for.</summary>
    /// <param name="paper">What stands on it.</param>
    /// <param name="layout">The layout that the paper was set by.</param>
    /// <param name="press">The press of the thread.</param>
    public static IReadOnlyList<DocumentFile> Make(StatementPaper paper, Layout layout, Press press) => [.. layout.Forms.Order().Select(form => Make(paper, layout, press, form))];

    /// <summary>Makes a document in one form.</summary>
    /// <param name="paper">What stands on it.</param>
    /// <param name="layout">The layout that the paper was set by; it asks for the form.</param>
    /// <param name="press">The press of the thread.</param>
    /// <param name="form">The form.</param>
    public static DocumentFile Make(StatementPaper paper, Layout layout, Press press, DocumentForm form) => form switch
    {
        DocumentForm.Pdf => new DocumentFile(NameOf(paper, form), "application/pdf", press.Print(paper, layout)),
        DocumentForm.Xlsx => new DocumentFile(NameOf(paper, form), "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", StatementWorkbook.Write(paper)),
        DocumentForm.Csv => new DocumentFile(NameOf(paper, form), "text/csv", StatementCsv.Write(paper)),
        _ => throw new ArgumentOutOfRangeException(nameof(form), form, null),
    };

    private static string NameOf(StatementPaper paper, DocumentForm form) => FileName.Safe(paper.FileName, "." + form.ToString().ToLowerInvariant());
}
