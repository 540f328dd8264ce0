using Rendal.Core.Parcels;

namespace Rendal.Core.Rounds;

/// <summary>What the picking of parcels for a rehearsal has to know of one.</summary>
/// <param name="Parcel">Its number.</param>
/// <param name="Items">How many items are on its statements.</param>
/// <param name="Sums">What its statements come to, one for each currency.</param>
/// <param name="Name">The customer's name.</param>
/// <param name="Accounts">How many accounts are on it.</param>
/// <param name="IsAltered">Whether a person changed it alone.</param>
/// <param name="OnPaper">Whether it goes on paper, too.</param>
public sealed record RehearsalCandidate(
    long Parcel,
    int Items,
    IReadOnlyList<ParcelSum> Sums,
    string Name,
    int Accounts,
    bool IsAltered,
    bool OnPaper
);

/// <summary>A parcel that was picked for a rehearsal.</summary>
/// <param name="Parcel">Its number.</param>
/// <param name="Why">What it was picked for, as a person reads it: <c>the longest, 41 items</c>.</param>
public sealed record PickedParcel(long Parcel, string Why);

/// <summary>Picks three parcels in which what can go wrong is likely to show.</summary>
public static class RehearsalPick
{
    private const int LongName = 30;

    /// <summary>
    /// The longest, the shortest, and the one with the most unusual features, each another; fewer where there are fewer. Of several that
    /// are alike the first is taken.
    /// </summary>
    /// <param name="candidates">The parcels, in the order of the list.</param>
    public static IReadOnlyList<PickedParcel> Of(IReadOnlyList<RehearsalCandidate> candidates)
    {
        var left = candidates.ToList();
        var picked = new List<PickedParcel>();

        // What is unusual is looked for first: it is rarer than to be long.
        var unusual = left.MaxBy(c => Features(c).Count);
        if (unusual is not null && Features(unusual) is { Count: > 0 } features)
        {
            Take(unusual, string.Join(", ", features));
        }

        if (left.MaxBy(c => c.Items) is { } longest)
        {
            Take(longest, $"the longest, {Items(longest)}");
        }

        if (left.MinBy(c => c.Items) is { } shortest)
        {
            Take(shortest, $"the shortest, {Items(shortest)}");
        }

        if (picked.Count < 3 && left.Count > 0)
        {
            Take(left[0], "the first of the list");
        }

        return picked;

        void Take(RehearsalCandidate candidate, string why)
        {
            left.Remove(candidate);
            picked.Add(new PickedParcel(candidate.Parcel, why));
        }
    }

    private static List<string> Features(RehearsalCandidate of)
    {
        var features = new List<string>();
        void If(bool holds, string words)
        {
            if (holds)
            {
                features.Add(words);
            }
        }

        If(of.Sums.Count > 1, "two currencies");
        If(of.Sums.Any(s => s.Total < 0), "a credit balance");
        If(of.Sums.Any(s => s.Total >= 0 && s.Credits != 0), "credits");
        If(of.Accounts > 1, "several accounts");
        If(of.IsAltered, "changed alone");
        If(of.OnPaper, "by post too");
        If(of.Name.Length > LongName, "a long name");
        If(of.Name.Any(c => c > 127), "letters beyond the English ones");
        return features;
    }

    private static string Items(RehearsalCandidate of) => of.Items == 1 ? "one item" : FormattableString.Invariant($"{of.Items} items");
}
