namespace Rendal.Core.Sealing;

/// <summary>Tallies what changed of the parcels of a round since a moment, and says it in one sentence.</summary>
/// <param name="since">The moment, as the sentence has it: <c>Since this round was prepared</c>.</param>
public sealed class ChangedSince(string since)
{
    private readonly SortedDictionary<SealPart, int> parts = [];
    private int gone;
    private int came;
    private int needYou;

    /// <summary>Whether nothing did.</summary>
    public bool IsNothing => parts.Count == 0 && gone == 0 && came == 0 && needYou == 0;

    /// <summary>Compares a parcel as it was prepared with what it would be now.</summary>
    /// <param name="then">Its seal; null where none was noted, so that all of it may have changed.</param>
    /// <param name="now">What it would be; null where it would not be in the round any more.</param>
    /// <param name="needsYou">Whether a person would have to see to something first.</param>
    public void Compare(ParcelSeal? then, ParcelSeal? now, bool needsYou)
    {
        if (now is null)
        {
            gone++;
            return;
        }

        needYou += needsYou ? 1 : 0;
        Add(now.Differing(then), 1);
    }

    /// <summary>Counts parcels of which the same parts changed; all of them for those that came into the round.</summary>
    public void Count(IReadOnlyList<SealPart> changed, int parcels)
    {
        if (SealMark.IsNew(changed))
        {
            came += parcels;
        }
        else
        {
            Add(changed, parcels);
        }
    }

    /// <summary>Counts parcels that fell out of the round.</summary>
    public void CountGone(int parcels) => gone += parcels;

    /// <summary>
    /// What changed, for example <c>Since this round was prepared, the wording (2 parcels) and the letterhead (61 parcels) changed.</c>
    /// </summary>
    public override string ToString()
    {
        var changed = parts.Select(p => $"{p.Key.Words()} ({Parcels(p.Value)})").ToList();
        string[] clauses =
        [
            changed.Count == 0
                ? ""
                : $"{(changed.Count == 1 ? changed[0] : $"{string.Join(", ", changed[..^1])} and {changed[^1]}")} changed",
            came == 0 ? "" : $"{Parcels(came)} came into it",
            needYou == 0 ? "" : $"{Parcels(needYou)} came to need you",
            gone == 0 ? "" : $"{Parcels(gone)} fell out of it",
        ];
        return $"{since}, {string.Join("; ", clauses.Where(c => c.Length > 0))}.";
    }

    private void Add(IEnumerable<SealPart> changed, int parcels)
    {
        foreach (var part in changed)
        {
            parts[part] = parts.GetValueOrDefault(part) + parcels;
        }
    }

    private static string Parcels(int count) => count == 1 ? "one parcel" : FormattableString.Invariant($"{count:N0} parcels");
}
