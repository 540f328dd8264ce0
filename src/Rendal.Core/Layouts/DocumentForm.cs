namespace Rendal.Core.Layouts;

/// <summary>A form in which a document is enclosed.</summary>
public enum DocumentForm
{
    /// <summary>PDF/A-2b, to read and to keep.</summary>
    Pdf,

    /// <summary>A letter that was brought along, filled, as DOCX (ISO/IEC 29500).</summary>
    Docx,

    /// <summary>A workbook (ISO/IEC 29500) with real numbers and dates.</summary>
    Xlsx,

    /// <summary>Text with commas (RFC 4180) in UTF-8: days as 2026-10-31, amounts as 1234.56.</summary>
    Csv,
}
