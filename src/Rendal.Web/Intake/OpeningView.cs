using Rendal.Core.Intake;

namespace Rendal.Web.Intake;

/// <summary>How a file was opened.</summary>
internal sealed record OpeningView(
    IReadOnlyList<SheetSeen> Sheets,
    string? Sheet,
    string SheetReason,
    string? Delimiter,
    string DelimiterReason,
    string? Encoding,
    string EncodingReason
)
{
    /// <summary>The first rows of a file, as they stand in it.</summary>
    public static OpeningView Of(LedgerTable table) =>
        new(
            table.Traits.Sheets,
            table.Sheet,
            table.Traits.SheetReason,
            table.Traits.Delimiter?.ToString(),
            table.Traits.DelimiterReason,
            table.Traits.Encoding,
            table.Traits.EncodingReason
        );
}
