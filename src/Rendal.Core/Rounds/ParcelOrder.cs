namespace Rendal.Core.Rounds;

/// <summary>
/// The order of the parcels of a round: by name, case ignored, then by the customer’s code; letter by letter and not by a language.
/// </summary>
public sealed class ParcelOrder : IComparer<(string Name, string Customer)>
{
    /// <summary>The one there is: the list, the release and the letters go by it.</summary>
    public static ParcelOrder Is { get; } = new();

    /// <inheritdoc/>
    public int Compare((string Name, string Customer) x, (string Name, string Customer) y) =>
        string.Compare(x.Name, y.Name, StringComparison.OrdinalIgnoreCase) is not 0 and var byName
            ? byName
            : string.CompareOrdinal(x.Customer, y.Customer);
}
