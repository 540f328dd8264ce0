namespace Rendal.Core.Wordings;

/// <summary>Tells what of a wording is another than before.</summary>
public static class WordingChanges
{
    /// <summary>What differs between two states of a wording; nothing where there was none before.</summary>
    /// <param name="before">It as it was; null where it was added.</param>
    /// <param name="after">It as it is.</param>
    public static IReadOnlyList<WordingChange> Of(Wording? before, Wording after) =>
        before is null
            ? []
            :
            [
                .. new[]
                {
                    (Is: before.Name != after.Name, What: WordingChange.Name),
                    (Is: before.Language != after.Language, What: WordingChange.Language),
                    (Is: before.Subject != after.Subject, What: WordingChange.Subject),
                    (Is: before.Body != after.Body, What: WordingChange.Body),
                }
                    .Where(c => c.Is)
                    .Select(c => c.What),
            ];
}
