namespace Rendal.Core.Sealing;

/// <summary>Tallies what changed of the parcels of a round since they were prepared, and says it in one sentence.</summary>
public sealed class ChangedSince
{
    private readonly SortedDictionary<SealPart, int> parts = [];
    private int gone;
    private int needYou;

    /// <summary>Whether nothing did.</summary>
    public bool IsNothing => parts.Count == 0 && gone == 0 && needYou == 0;

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
        foreach (var part in now.Differing(then))
        {
            parts[part] = parts.GetValueOrDefault(part) + 1;
        }
    }

    /// <summary>What changed, for example <c>Since this round was prepared, the wording (2 parcels) and the letterhead (61 parcels) changed.</c></summary>
    public override string ToString()
    {
        var changed = parts.Select(p => $"{p.Key.Words()} ({Parcels(p.Value)})").ToList();
        string[] clauses =
        [
            changed.Count == 0 ? "" : $"{(changed.Count == 1 ? changed[0] : $"{string.Join(", ", changed[..^1])} and {changed[^1]}")} changed",
            needYou == 0 ? "" : $"{Parcels(needYou)} came to need you",
            gone == 0 ? "" : $"{Parcels(gone)} fell out of it",
        ];
        return $"Since this round was prepared, {string.Join("; ", clauses.Where(c => c.Length > 0))}.";
    }

    private static string Parcels(int count) => count == 1 ? "one parcel" : FormattableString.Invariant($"{count:N0} parcels");
}
