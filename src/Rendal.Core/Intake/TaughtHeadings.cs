namespace Rendal.Core.Intake;

/// <summary>
/// What people once said that headings are, in any file of a book that was kept; from then on a heading is known there. Headings stand as
/// <see cref="HeadingWords.Plain"/> writes them.
/// </summary>
/// <param name="Meanings">What columns of ledgers are, by heading.</param>
/// <param name="Fields">What columns of customer lists are, by heading.</param>
public sealed record TaughtHeadings(IReadOnlyDictionary<string, ColumnMeaning> Meanings, IReadOnlyDictionary<string, CardField> Fields)
{
    /// <summary>Nothing was said yet.</summary>
    public static TaughtHeadings None { get; } = Of([]);

    /// <summary>
    /// What the readings of a book teach; of a heading that was said to be two things the one that was said last counts.
    /// </summary>
    /// <param name="readings">The readings, those used last first.</param>
    public static TaughtHeadings Of(IEnumerable<SavedReading> readings)
    {
        var said = readings
            .SelectMany(r => r.Columns)
            .Where(c => c.IsSaid)
            .Select(c => (Heading: HeadingWords.Plain(c.Heading), c.Meaning, c.Field))
            .Where(c => c.Heading.Length > 0)
            .DistinctBy(c => c.Heading)
            .ToList();
        return new(said.ToDictionary(c => c.Heading, c => c.Meaning), said.ToDictionary(c => c.Heading, c => c.Field));
    }

    /// <summary>
    /// What a heading of a ledger is; null where nobody said so. Extra where somebody said that it is nothing to the rules.
    /// </summary>
    public ColumnMeaning? MeaningOf(string heading) =>
        Meanings.Count > 0 && Meanings.TryGetValue(HeadingWords.Plain(heading), out var meaning) ? meaning : null;

    /// <summary>What a heading of a customer list is; null where nobody said so.</summary>
    public CardField? FieldOf(string heading) =>
        Fields.Count > 0 && Fields.TryGetValue(HeadingWords.Plain(heading), out var field) ? field : null;
}
