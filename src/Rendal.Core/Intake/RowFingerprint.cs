using System.Buffers.Binary;
using System.IO.Hashing;
using System.Runtime.InteropServices;
using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>
/// Makes 16 bytes out of what makes two rows the same: customer, kind, number, date and amounts. That two different rows
/// of one file have the same bytes is so unlikely that it is left out of account.
/// </summary>
internal sealed class RowFingerprint
{
    private readonly XxHash128 hash = new();

    public UInt128 Of(LedgerRow row)
    {
        hash.Reset();
        Append(row.Customer);
        Append(row.Number);
        Span<byte> figures = stackalloc byte[5 + 32];
        figures[0] = (byte)row.Kind;
        BinaryPrimitives.WriteInt32LittleEndian(figures[1..], row.Date?.DayNumber ?? -1);
        Write(row.Open, figures[5..]);
        Write(row.Original, figures[21..]);
        hash.Append(figures);
        return hash.GetCurrentHashAsUInt128();
    }

    private void Append(string text)
    {
        Span<byte> length = stackalloc byte[4];
        BinaryPrimitives.WriteInt32LittleEndian(length, text.Length);
        hash.Append(length);
        hash.Append(MemoryMarshal.AsBytes(text.AsSpan()));
    }

    /// <summary>1.50 and 1.5 are the same amount, so trailing zeros go first; dividing a decimal takes long, and most amounts are small enough to do without.</summary>
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
