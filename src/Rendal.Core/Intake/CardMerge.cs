using Rendal.Core.Customers;

namespace Rendal.Core.Intake;

/// <summary>Lays what a customer list says over the cards that are there.</summary>
public static class CardMerge
{
    /// <summary>
    /// The card after the list. A filled field counts over what the card says, unless a person has put right just this value on the card;
    /// an empty one leaves the card as it is, or clears it where that was asked for.
    /// </summary>
    /// <param name="card">The card as it is; null where there is none.</param>
    /// <param name="listed">What the list says.</param>
    /// <param name="reading">How the list was read: fields that it has no column for are left alone in any case.</param>
    /// <param name="emptyClears">Whether empty fields clear filled ones.</param>
    /// <param name="corrections">The corrections of this card.</param>
    public static Customer Merge(
        Customer? card,
        ListedCustomer listed,
        CardReading reading,
        bool emptyClears,
        IEnumerable<Correction> corrections
    )
    {
        var merged = card ?? new Customer { Key = listed.Key, Name = listed.Fields.GetValueOrDefault(CardField.Name, listed.Key) };
        var put = corrections
            .Where(c => c.Kind == CorrectionKind.Card && c.Of == listed.Key)
            .ToLookup(c => c.Column, StringComparer.Ordinal);
        foreach (var (field, text) in listed.Fields)
        {
            var right = put[field.ToString()].FirstOrDefault(c => c.Was == Canonical(field, text));
            merged = CardText.With(merged, field, right?.Becomes ?? text);
        }

        if (emptyClears)
        {
            foreach (
                var field in reading
                    .Columns.Select(c => c.Field)
                    .Distinct()
                    .Where(f => f is not (CardField.Town or CardField.Postcode) && !listed.Fields.ContainsKey(f))
            )
            {
                merged = CardText.With(merged, field, "");
            }
        }

        var extra = new Dictionary<string, string>(merged.Extra, StringComparer.Ordinal);
        foreach (var column in reading.Columns.Where(c => c.Field == CardField.Extra))
        {
            if (listed.Extra.TryGetValue(column.Heading, out var value))
            {
                extra[column.Heading] = value;
            }
            else if (emptyClears)
            {
                extra.Remove(column.Heading);
            }
        }

        return merged with
        {
            Extra = extra,
            FromLedger = merged.FromLedger && !reading.Has(CardField.Name),
        };
    }

    /// <summary>The card with what people have put right on it, wherever it says again what it said before.</summary>
    public static Customer PutRight(Customer card, IEnumerable<Correction> corrections) =>
        corrections
            .Where(c => c.Kind == CorrectionKind.Card && c.Of == card.Key && Enum.TryParse<CardField>(c.Column, out _))
            .Aggregate(card, (now, c) =>
                CardText.Of(now, Enum.Parse<CardField>(c.Column)) == c.Was
                    ? CardText.With(now, Enum.Parse<CardField>(c.Column), c.Becomes)
                    : now
            );

    /// <summary>
    /// The text of a field as the card would give it back, so that <c>a@b.example;c@d.example</c> and the same with a space are one.
    /// </summary>
    private static string Canonical(CardField field, string text) =>
        CardText.Of(CardText.With(new Customer { Key = "\u0000", Name = text }, field, text), field);
}
