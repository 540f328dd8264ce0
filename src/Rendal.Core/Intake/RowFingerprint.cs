using System.Buffers.Binary;
using System.IO.Hashing;
using System.Runtime.InteropServices;
using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>
/// Makes 16 bytes out of what makes two rows the same: customer, kind, number, date and amounts. That two different rows of one file have
/// the same bytes is so unlikely that it is left out of account.
/// </summary>
internal sealed class RowFingerprint
{
    private const int Figures = 5 + 32;

    private byte[] bytes = new byte[512];

    /// <summary>The bytes of a row. 1.50 and 1.5 are the same amount.</summary>
    public UInt128 Of(LedgerRow row)
    {
        var most = Figures + (2 * sizeof(int)) + ((row.Customer.Length + row.Number.Length) * sizeof(char));
        if (most > bytes.Length)
        {
            bytes = new byte[2 * most];
        }

        bytes[0] = (byte)row.Kind;
        BinaryPrimitives.WriteInt32LittleEndian(bytes.AsSpan(1), row.Date?.DayNumber ?? -1);
        Write(row.Open, bytes.AsSpan(5));
        Write(row.Original, bytes.AsSpan(21));
        var length = Append(row.Number, Append(row.Customer, Figures));

        // All at once: in pieces it takes several times as long, and a file has a million rows.
        return XxHash128.HashToUInt128(bytes.AsSpan(0, length));
    }

    /// <returns>Where the next text goes.</returns>
    private int Append(string text, int at)
    {
        BinaryPrimitives.WriteInt32LittleEndian(bytes.AsSpan(at), text.Length);
        var written = MemoryMarshal.AsBytes(text.AsSpan());
        written.CopyTo(bytes.AsSpan(at + sizeof(int)));
        return at + sizeof(int) + written.Length;
    }

    /// <summary>
    /// 1.50 and 1.5 are the same amount, so trailing zeros go first; dividing a decimal takes long, and most amounts are small enough to
    /// do without.
    /// </summary>
    private static void Write(decimal amount, Span<byte> to)
    {
        var bits = MemoryMarshal.Cast<byte, int>(to[..16]);
        decimal.GetBits(amount, bits);
        if ((bits[1] | bits[2]) != 0)
        {
            decimal.GetBits(amount / 1.0000000000000000000000000000m, bits);
            return;
        }

        var (figures, scale) = ((uint)bits[0], (bits[3] >> 16) & 0xFF);
        for (; scale > 0 && figures % 10 == 0; scale--)
        {
            figures /= 10;
        }

        bits[0] = (int)figures;
        bits[3] = (figures == 0 ? 0 : bits[3] & int.MinValue) | (scale << 16);
    }
}
