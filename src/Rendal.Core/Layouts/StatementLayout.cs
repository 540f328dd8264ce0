namespace Rendal.Core.Layouts;

/// <summary>The sheet of paper.</summary>
public enum PaperSize
{
    /// <summary>210 × 297 mm, ISO 216.</summary>
    A4,

    /// <summary>8½ × 11 inches.</summary>
    Letter,
}

/// <summary>The template of a statement document.</summary>
/// <param name="Name">What the bookkeeper calls it.</param>
/// <param name="Paper">The sheet.</param>
/// <param name="Accent">The one colour beside black, as <c>#rrggbb</c>.</param>
/// <param name="ShowAgeing">Whether the strip of ages stands under the items.</param>
/// <param name="ShowOriginal">Whether the documents' full amounts stand beside the open ones.</param>
/// <param name="ClosingText">A paragraph under the total; empty for none.</param>
public sealed record StatementLayout(
    string Name,
    PaperSize Paper = PaperSize.A4,
    string Accent = "#5b2a55",
    bool ShowAgeing = true,
    bool ShowOriginal = true,
    string ClosingText = "")
{
    /// <summary>The layout that is there before any was made.</summary>
    public static StatementLayout BuiltIn { get; } = new("Open items");
}
