namespace Rendal.Core.Sealing;

/// <summary>
/// What of a prepared parcel changed since somebody looked at it: a parcel follows what it is made from by itself, and stays
/// marked until it was looked at again.
/// </summary>
/// <param name="Seen">Its seal when it was looked at last, or when it was first prepared; null where it came into a round by
/// itself.</param>
/// <param name="Now">Its seal now.</param>
public sealed record SealMark(ParcelSeal? Seen, ParcelSeal Now)
{
    /// <summary>What differs: nothing for a parcel that is as it was seen, all parts for one that came in by itself.</summary>
    public IReadOnlyList<SealPart> Changed => Now.Differing(Seen);

    /// <summary>Whether what changed of a parcel says that it came into its round by itself.</summary>
    public static bool IsNew(IReadOnlyList<SealPart> changed) => changed.Count == Enum.GetValues<SealPart>().Length;

    /// <summary>The mark of a parcel after its round was prepared anew.</summary>
    /// <param name="before">Its mark before; null where it was not in the round.</param>
    /// <param name="now">Its seal now.</param>
    /// <param name="byItself">
    /// Whether something that the round uses was changed since it was last prepared. Else it is prepared anew for what people chose and
    /// decided in it, which they see at once: that marks nothing, and what is marked stays so.
    /// </param>
    public static SealMark After(SealMark? before, ParcelSeal now, bool byItself) =>
        byItself ? new(before?.Seen, now)
        : before is null or { Changed.Count: 0 } ? new(now, now)
        : new(before.Seen, now);
}
