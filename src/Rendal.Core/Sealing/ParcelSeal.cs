using System.Security.Cryptography;
using System.Text;

namespace Rendal.Core.Sealing;

/// <summary>
/// What a parcel is made from, as hashes: two parcels with one seal are one message. A part whose hash differs is one that
/// changed, so that a person can be told what.
/// </summary>
/// <param name="Parts">The SHA-256 of each part, in lower-case hexadecimal digits; all of <see cref="SealPart"/>.</param>
public sealed record ParcelSeal(IReadOnlyDictionary<SealPart, string> Parts)
{
    private static readonly SealPart[] All = Enum.GetValues<SealPart>();

    /// <summary>The SHA-256 over all parts, in lower-case hexadecimal digits.</summary>
    public string Value => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\n', All.Select(p => $"{p}:{Parts[p]}")))));

    /// <summary>The parts that are not the same in another seal, in the order of <see cref="SealPart"/>; all of them where there is none.</summary>
    public IReadOnlyList<SealPart> Differing(ParcelSeal? other) => [.. All.Where(p => other is null || Parts[p] != other.Parts[p])];

    /// <summary>
    /// What stands for the parcels that a person was shown before the release, each by its number and seal: the same parcels
    /// in any order give the same, and one parcel more, less or changed gives another.
    /// </summary>
    public static string Digest(IEnumerable<(long Parcel, ParcelSeal? Seal)> parcels) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\n', parcels.OrderBy(p => p.Parcel).Select(p => $"{p.Parcel} {p.Seal?.Value ?? "none"}")))));
}
