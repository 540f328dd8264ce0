using System.IO.Hashing;
using Rendal.Core.Intake;

namespace Rendal.Files.Csv;

/// <summary>
/// Cells of one column that came by lately. Some columns of a ledger repeat themselves (currencies, kinds, dates), and there a cell that
/// is the same as one before is that one. A column that turns out to hold another text in most rows is read without the pool. It never
/// grows.
/// </summary>
internal sealed class CellPool
{
    private const int Places = 1 << 10;
    private const int LongestKept = 40;
    private const int Tried = 2_000;

    private (byte[] Written, Cell Cell)[]? places = new (byte[], Cell)[Places];
    private int seen;
    private int found;

    /// <summary>The cell of a text in UTF-8.</summary>
    public Cell Of(ReadOnlySpan<byte> text)
    {
        if (text.Length == 0)
        {
            return Cell.Empty;
        }

        if (places is null || text.Length > LongestKept)
        {
            return Cell.Of(text);
        }

        ref var place = ref places[(int)(XxHash3.HashToUInt64(text) & (Places - 1))];
        if (place.Written is not null && text.SequenceEqual(place.Written))
        {
            found++;
        }
        else
        {
            place = (text.ToArray(), Cell.Of(text));
        }

        var cell = place.Cell;
        if (++seen == Tried && found * 4 < Tried * 3)
        {
            places = null;
        }

        return cell;
    }
}
