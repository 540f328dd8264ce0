using Rendal.Core.Statements;
using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>Makes the pieces of a page that stand in a message: tables, strips of ages, buttons.</summary>
/// <param name="document">The document that goes with it, which all of them are taken from.</param>
/// <param name="statements">Its statements.</param>
/// <param name="signature">The signature as HTML.</param>
/// <param name="hasAges">Whether the strip of ages has a place of its own, so that no table has it.</param>
/// <param name="traced">Whether each value has beside it where it was taken from, for a page that is looked at.</param>
internal sealed class MessageBlocks(
    StatementDocument document,
    IReadOnlyList<Statement> statements,
    string signature,
    bool hasAges,
    bool traced
)
{
    /// <summary>A piece as HTML; empty where nothing is to stand there, null where it lacks what it needs.</summary>
    /// <param name="place">Where it stands.</param>
    /// <param name="withColumns">Makes the document with other columns in its tables.</param>
    public string? Html(WordingSlot place, Func<IReadOnlyList<LayoutColumn>, StatementDocument> withColumns) =>
        place.Slot.Name switch
        {
            SlotCatalogue.Table => StatementTable.Html(
                TableColumns.Read(place.Format) is { } columns ? withColumns(columns) : document,
                !hasAges,
                traced
            ),
            SlotCatalogue.Ages => StatementTable.Ages(document),
            SlotCatalogue.Signature => signature,
            SlotCatalogue.PaymentButton => statements.All(s => s.ToPay <= 0) ? ""
            : document.PayLink is { } link
                ? PaymentButton.Html(link, place.Format.Length > 0 ? place.Format : document.PayWords.Button, document.Accent)
            : null,
            SlotCatalogue.PaymentCode => statements.All(s => s.ToPay <= 0) ? ""
            : PaymentCode.Html(document) is { Length: > 0 } codes ? codes
            : null,
            _ => throw new InvalidOperationException($"“{place.Slot.Name}” is no piece of a page."),
        };
}
