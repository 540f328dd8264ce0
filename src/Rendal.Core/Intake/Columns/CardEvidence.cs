namespace Rendal.Core.Intake.Columns;

/// <summary>How much the headings of a customer list say for each field of a card. 3 and more is as good as said.</summary>
/// <param name="headings">The headings of the list.</param>
/// <param name="taught">What people said of headings before.</param>
internal sealed class CardEvidence(IReadOnlyList<string> headings, TaughtHeadings taught)
{
    /// <summary>What says so much is as good as said.</summary>
    public const double Said = 3;

    private readonly HeadingEvidence evidence = new(headings, TaughtHeadings.None);

    /// <summary>Whether a heading stands whole in the lists, or was said before.</summary>
    public bool IsPhrase(int column) => IsTaught(column) || CardWords.Of(headings[column]) is not null;

    /// <summary>Whether a person said of a heading what it is, in another file.</summary>
    public bool IsTaught(int column) => taught.FieldOf(headings[column]) is not null;

    /// <summary>Whether a heading speaks of something that customers are not known by.</summary>
    public bool IsForeign(int column) => evidence.IsForeign(column);

    /// <summary>The fields that are as good as said by a heading, each once.</summary>
    public IReadOnlySet<CardField> Fields()
    {
        var found = new HashSet<CardField>();
        for (var i = 0; i < Math.Min(headings.Count, Recognition.ColumnsToldApart); i++)
        {
            var (field, score) = Enum.GetValues<CardField>().Select(f => (f, Score: For(i, f))).MaxBy(f => f.Score);
            if (score >= Said)
            {
                found.Add(field);
            }
        }

        return found;
    }

    /// <summary>How much a heading says for a field; below 0 what it says against it.</summary>
    public double For(int column, CardField field)
    {
        if (taught.FieldOf(headings[column]) is { } said)
        {
            return said == field ? HeadingEvidence.Taught : -HeadingEvidence.Taught;
        }

        if (CardWords.Of(headings[column]) is { } phrase)
        {
            // “Customer” stands over names, and over codes where there is another column of names.
            var isEither = HeadingWords.IsCodeOrName(headings[column]);
            return phrase == field ? HeadingEvidence.Phrase - (isEither ? 1 : 0)
                : field == CardField.Code && isEither ? 4
                : Words(column, field) - 2;
        }

        return Words(column, field);
    }

    private double Words(int column, CardField field)
    {
        double W(HeadingConcept concept) => evidence.Weight(column, concept);
        var contact = W(HeadingConcept.Contact);
        var email = W(HeadingConcept.Email);
        var copy = W(HeadingConcept.Copy);
        var blind = W(HeadingConcept.Blind);
        var office = W(HeadingConcept.Office);
        var score = field switch
        {
            CardField.Code => evidence.For(column, ColumnMeaning.CustomerCode),
            CardField.Name => evidence.For(column, ColumnMeaning.CustomerName),
            CardField.Unit => evidence.For(column, ColumnMeaning.Unit),
            CardField.Hold => evidence.For(column, ColumnMeaning.Held),
            CardField.Email => (5 * email) - (5 * Math.Max(copy, blind)),
            CardField.CopyEmail => (4 * copy) - (5 * blind),
            CardField.BlindCopyEmail => 4.5 * blind,
            CardField.Contact => (4 * contact) - (4 * Math.Max(email, W(HeadingConcept.Phone))),
            CardField.Title => 4 * W(HeadingConcept.Title),
            CardField.Salutation => 4 * W(HeadingConcept.Salutation),
            CardField.Address => (4 * W(HeadingConcept.Street)) - (4 * Math.Max(email, W(HeadingConcept.Postcode))),
            CardField.Town => 4 * W(HeadingConcept.Town),
            CardField.Postcode => 4.2 * W(HeadingConcept.Postcode),
            CardField.Country => 4 * W(HeadingConcept.Country),
            CardField.Delivery => 4 * W(HeadingConcept.Delivery),
            CardField.Language => 4 * W(HeadingConcept.Language),
            CardField.Terms => (4 * Math.Max(W(HeadingConcept.Terms), 0.8 * W(HeadingConcept.Days))) - (4 * W(HeadingConcept.Discount)),
            CardField.HeadOffice => 4.5 * office,
            CardField.MinimumBalance => 4 * W(HeadingConcept.Minimum),
            CardField.Notes => 3.5 * W(HeadingConcept.Text),
            _ => 0,
        };
        return field is CardField.Code or CardField.Name ? score - (4 * Math.Max(office, contact)) : score;
    }
}
