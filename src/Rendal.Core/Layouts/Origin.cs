using System.Globalization;

namespace Rendal.Core.Layouts;

/// <summary>Where a word or figure that stands in a parcel was taken from, so that it can be put right there.</summary>
/// <param name="Kind">What it was taken from.</param>
/// <param name="Row">The row of the ledger file as a spreadsheet numbers it; 0 where it is from none.</param>
/// <param name="Field">
/// Of a row the field by its name in <see cref="ItemFields"/>; of a card <c>name</c>, <c>contact</c>, <c>address</c> or <c>country</c>;
/// else the name of the slot.
/// </param>
public sealed record Origin(OriginKind Kind, int Row, string Field)
{
    /// <summary>The attribute of an HTML element that says where its text was taken from.</summary>
    public const string Attribute = "data-from";

    private static readonly Dictionary<string, Origin> OfCards = new(StringComparer.Ordinal)
    {
        ["customer.name"] = OfCard("name"),
        ["customer.contact"] = OfCard("contact"),
        ["customer.salutation"] = OfCard("contact"),
    };

    /// <summary>The total of a statement.</summary>
    public static Origin OfTotal { get; } = OfSlot("statement.total");

    /// <summary>A field of an item.</summary>
    public static Origin OfRow(int row, string field) => new(OriginKind.Row, row, field);

    /// <summary>A field of the card.</summary>
    public static Origin OfCard(string field) => new(OriginKind.Card, 0, field);

    /// <summary>What fills a slot: the card, where it says all of it.</summary>
    public static Origin OfSlot(string slot) => OfCards.GetValueOrDefault(slot) ?? new(OriginKind.Slot, 0, slot);

    /// <summary>Reads what <see cref="ToString"/> wrote; null where it is nothing of that kind.</summary>
    public static Origin? Parse(string text) =>
        text.Split(' ', 3) switch
        {
            ["row", var row, var field]
                when int.TryParse(row, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number > 0 => OfRow(
                number,
                field
            ),
            ["card", var field] => OfCard(field),
            ["slot", .. var words] when words.Length > 0 => new(OriginKind.Slot, 0, string.Join(' ', words)),
            _ => null,
        };

    /// <summary>As <c>row 12 due</c>, <c>card name</c>, <c>slot statement.total</c>.</summary>
    public override string ToString() =>
        Kind switch
        {
            OriginKind.Row => string.Create(CultureInfo.InvariantCulture, $"row {Row} {Field}"),
            OriginKind.Card => $"card {Field}",
            _ => $"slot {Field}",
        };
}
