using System.Security.Cryptography;
using System.Text;

namespace Rendal.Core.Sealing;

/// <summary>
/// What a parcel is made from, as hashes: two parcels with one seal are one message. A part whose hash differs is one that changed, so
/// that a person can be told what.
/// </summary>
public sealed class ParcelSeal
{
    private static readonly SealPart[] All = Enum.GetValues<SealPart>();

    // Those of all parts one after the other, as it is stored: a round has tens of thousands of them.
    private readonly byte[] hashes;

    private ParcelSeal(byte[] hashes) => this.hashes = hashes;

    /// <summary>The SHA-256 over all parts, in lower-case hexadecimal digits.</summary>
    public string Value => Convert.ToHexStringLower(SHA256.HashData(hashes));

    /// <summary>The seal whose parts have these hashes.</summary>
    /// <param name="hashOf">The SHA-256 of each part; it is asked once for each.</param>
    public static ParcelSeal Of(Func<SealPart, byte[]> hashOf)
    {
        var hashes = new byte[All.Length * SHA256.HashSizeInBytes];
        foreach (var part in All)
        {
            hashOf(part).CopyTo(At(hashes, part));
        }

        return new ParcelSeal(hashes);
    }

    /// <summary>The seal that was written by <see cref="ToBytes"/>.</summary>
    /// <exception cref="ArgumentException">These are not as many hashes as a seal has parts.</exception>
    public static ParcelSeal Of(ReadOnlySpan<byte> bytes) =>
        bytes.Length == All.Length * SHA256.HashSizeInBytes
            ? new(bytes.ToArray())
            : throw new ArgumentException($"A seal has {All.Length} hashes of {SHA256.HashSizeInBytes} bytes.", nameof(bytes));

    /// <summary>The hashes of all parts one after the other, in the order of <see cref="SealPart"/>: 32 bytes each.</summary>
    public byte[] ToBytes() => [.. hashes];

    /// <summary>The SHA-256 of a part.</summary>
    public ReadOnlySpan<byte> this[SealPart part] => At(hashes, part);

    /// <summary>
    /// The parts that are not the same in another seal, in the order of <see cref="SealPart"/>; all of them where there is none.
    /// </summary>
    public IReadOnlyList<SealPart> Differing(ParcelSeal? other) =>
        other is not null && hashes.AsSpan().SequenceEqual(other.hashes)
            ? []
            : [.. All.Where(p => other is null || !this[p].SequenceEqual(other[p]))];

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

    private static Span<byte> At(byte[] hashes, SealPart part) =>
        hashes.AsSpan((int)part * SHA256.HashSizeInBytes, SHA256.HashSizeInBytes);
}
