using System.Security.Cryptography;
using System.Text;

namespace Rendal.Core.Sealing;

/// <summary>
/// What a parcel is made from, as hashes: two parcels with one seal are one message. A part whose hash differs is one that changed, so
/// that a person can be told what.
/// </summary>
/// <param name="Parts">The SHA-256 of each part, in lower-case hexadecimal digits; all of <see cref="SealPart"/>.</param>
public sealed record ParcelSeal(IReadOnlyDictionary<SealPart, string> Parts)
{
    private static readonly SealPart[] All = Enum.GetValues<SealPart>();

    /// <summary>The seal that was written by <see cref="ToBytes"/>.</summary>
    /// <exception cref="ArgumentException">These are not as many hashes as a seal has parts.</exception>
    public static ParcelSeal Of(ReadOnlySpan<byte> bytes)
    {
        if (bytes.Length != All.Length * SHA256.HashSizeInBytes)
        {
            throw new ArgumentException($"A seal has {All.Length} hashes of {SHA256.HashSizeInBytes} bytes.", nameof(bytes));
        }

        var parts = new Dictionary<SealPart, string>(All.Length);
        foreach (var part in All)
        {
            parts[part] = Convert.ToHexStringLower(bytes.Slice((int)part * SHA256.HashSizeInBytes, SHA256.HashSizeInBytes));
        }

        return new ParcelSeal(parts);
    }

    /// <summary>The hashes of all parts one after the other, in the order of <see cref="SealPart"/>: 32 bytes each.</summary>
    public byte[] ToBytes() => [.. All.SelectMany(p => Convert.FromHexString(Parts[p]))];

    /// <summary>The SHA-256 over all parts, in lower-case hexadecimal digits.</summary>
    public string Value =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\n', All.Select(p => $"{p}:{Parts[p]}")))));

    /// <summary>
    /// The parts that are not the same in another seal, in the order of <see cref="SealPart"/>; all of them where there is none.
    /// </summary>
    public IReadOnlyList<SealPart> Differing(ParcelSeal? other) => [.. All.Where(p => other is null || Parts[p] != other.Parts[p])];

    /// <summary>
    /// What stands for the parcels that a person was shown before the release, each by its number and seal: the same parcels in any order
    /// give the same, and one parcel more, less or changed gives another.
    /// </summary>
    public static string Digest(IEnumerable<(long Parcel, ParcelSeal? Seal)> parcels) =>
        Convert.ToHexStringLower(
            SHA256.HashData(
                Encoding.UTF8.GetBytes(
                    string.Join('\n', parcels.OrderBy(p => p.Parcel).Select(p => $"{p.Parcel} {p.Seal?.Value ?? "none"}"))
                )
            )
        );
}
