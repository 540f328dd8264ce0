using System.Buffers.Binary;
using System.Text;
using Npgsql;

namespace Rendal.Store;

/// <summary>
/// Writes rows in the form of PostgreSQL's binary COPY (documentation, “COPY”, “Binary Format”) into a buffer of its own. It is for what
/// an intake brings, a million rows and tens of thousands of customers: value for value, what the driver does for each of them takes
/// longer than the server needs to store it.
/// </summary>
internal sealed class BinaryCopy : IAsyncDisposable
{
    private const int BufferSize = 256 * 1024;
    private const int Null = -1;
    private const int DaysTo2000 = 730_119;
    private const int FiguresInAGroup = 4;
    private const uint GroupSize = 10_000;

    private static readonly byte[] Signature = [.. "PGCOPY\n"u8, 0xFF, .. "\r\n\0"u8, 0, 0, 0, 0, 0, 0, 0, 0];

    private readonly NpgsqlRawCopyStream stream;
    private byte[] buffer = new byte[BufferSize];
    private int length;
    private bool isComplete;

    private BinaryCopy(NpgsqlRawCopyStream stream) => this.stream = stream;

    /// <summary>Begins a COPY.</summary>
    /// <param name="connection">An open connection.</param>
    /// <param name="command"><c>copy … from stdin (format binary)</c>.</param>
    public static async Task<BinaryCopy> BeginAsync(NpgsqlConnection connection, string command, CancellationToken cancel)
    {
        var copy = new BinaryCopy(await connection.BeginRawBinaryCopyAsync(command, cancel));
        Signature.CopyTo(copy.Take(Signature.Length));
        return copy;
    }

    /// <summary>Begins a row of so many values.</summary>
    public void Row(short values)
    {
        if (length > BufferSize / 2)
        {
            Flush();
        }

        BinaryPrimitives.WriteInt16BigEndian(Take(sizeof(short)), values);
    }

    /// <summary>A <c>bigint</c>.</summary>
    public void Write(long value) => BinaryPrimitives.WriteInt64BigEndian(Value(sizeof(long)), value);

    /// <summary>An <c>int</c>.</summary>
    public void Write(int value) => BinaryPrimitives.WriteInt32BigEndian(Value(sizeof(int)), value);

    /// <summary>A <c>smallint</c>.</summary>
    public void Write(short value) => BinaryPrimitives.WriteInt16BigEndian(Value(sizeof(short)), value);

    /// <summary>A <c>boolean</c>.</summary>
    public void Write(bool value) => Value(1)[0] = value ? (byte)1 : (byte)0;

    /// <summary>A <c>bytea</c>.</summary>
    public void Write(ReadOnlySpan<byte> value) => value.CopyTo(Value(value.Length));

    /// <summary>A value that is not there.</summary>
    public void WriteNull() => Put(Null);

    /// <summary>A <c>date</c>: days from 1 January 2000.</summary>
    public void Write(DateOnly? value)
    {
        if (value is { } day)
        {
            Write(day.DayNumber - DaysTo2000);
        }
        else
        {
            WriteNull();
        }
    }

    /// <summary>A <c>text</c> or <c>char(n)</c>.</summary>
    public void Write(string value)
    {
        var at = length;
        Take(sizeof(int));
        PutText(value);
        Close(at);
    }

    /// <summary>A <c>text</c> or <c>char(n)</c> that may not be there.</summary>
    public void WriteOrNull(string? value)
    {
        if (value is null)
        {
            WriteNull();
        }
        else
        {
            Write(value);
        }
    }

    /// <summary>A <c>bytea</c> that may not be there.</summary>
    public void WriteOrNull(byte[]? value)
    {
        if (value is null)
        {
            WriteNull();
        }
        else
        {
            Write(value.AsSpan());
        }
    }

    /// <summary>A <c>smallint</c> that may not be there.</summary>
    public void WriteOrNull(short? value) => WriteOrNull(value, Write);

    /// <summary>An <c>int</c> that may not be there.</summary>
    public void WriteOrNull(int? value) => WriteOrNull(value, Write);

    /// <summary>A <c>bigint</c> that may not be there.</summary>
    public void WriteOrNull(long? value) => WriteOrNull(value, Write);

    /// <summary>A <c>boolean</c> that may not be there.</summary>
    public void WriteOrNull(bool? value) => WriteOrNull(value, Write);

    /// <summary>A <c>numeric</c> that may not be there.</summary>
    public void WriteOrNull(decimal? value) => WriteOrNull(value, Write);

    /// <summary>A <c>jsonb</c>: its form, which is the first there is, and the text.</summary>
    public void WriteJson(string value)
    {
        var at = length;
        Take(sizeof(int));
        Take(1)[0] = 1;
        PutText(value);
        Close(at);
    }

    /// <summary>A <c>text[]</c> of one dimension from 1 on, none of its values null.</summary>
    public void Write(IReadOnlyList<string> values)
    {
        const int textOid = 25;
        var at = BeginArray(textOid, values.Count);
        foreach (var value in values)
        {
            Write(value);
        }

        Close(at);
    }

    /// <summary>An <c>int[]</c> of one dimension from 1 on.</summary>
    public void Write(int[] values)
    {
        const int intOid = 23;
        var at = BeginArray(intOid, values.Length);
        foreach (var value in values)
        {
            Write(value);
        }

        Close(at);
    }

    /// <summary>
    /// A <c>numeric</c>: groups of four figures from the most significant on, which stand from the decimal mark both ways.
    /// </summary>
    public void Write(decimal value)
    {
        Span<int> bits = stackalloc int[4];
        decimal.GetBits(value, bits);
        var scale = (bits[3] >> 16) & 0xFF;
        var number = new UInt128((uint)bits[2], ((ulong)(uint)bits[1] << 32) | (uint)bits[0]);

        // So many noughts behind it that its last group ends where a group ends.
        var behind = (scale + FiguresInAGroup - 1) / FiguresInAGroup;
        for (var i = scale; i < behind * FiguresInAGroup; i++)
        {
            number *= 10;
        }

        Span<short> groups = stackalloc short[16];
        var count = 0;
        while (number > ulong.MaxValue)
        {
            (number, var rest) = UInt128.DivRem(number, GroupSize);
            groups[count++] = (short)rest;
        }

        for (var left = (ulong)number; left > 0; left /= GroupSize)
        {
            groups[count++] = (short)(left % GroupSize);
        }

        var place = Value((4 + count) * sizeof(short));
        BinaryPrimitives.WriteInt16BigEndian(place, (short)count);
        BinaryPrimitives.WriteInt16BigEndian(place[2..], (short)(count == 0 ? 0 : count - behind - 1));
        BinaryPrimitives.WriteInt16BigEndian(place[4..], (short)(bits[3] < 0 && count > 0 ? 0x4000 : 0));
        BinaryPrimitives.WriteInt16BigEndian(place[6..], (short)scale);
        for (var i = 0; i < count; i++)
        {
            BinaryPrimitives.WriteInt16BigEndian(place[(8 + (2 * i))..], groups[count - 1 - i]);
        }
    }

    /// <summary>Ends the rows. Without it what was written is thrown away.</summary>
    public async Task CompleteAsync(CancellationToken cancel)
    {
        BinaryPrimitives.WriteInt16BigEndian(Take(sizeof(short)), Null);
        Flush();
        await stream.FlushAsync(cancel);
        isComplete = true;
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        if (!isComplete)
        {
            try
            {
                await stream.CancelAsync();
            }
            catch (Exception e) when (e is NpgsqlException or ObjectDisposedException)
            {
                // The connection is gone, and with it what was written; why it is gone is on its way up already.
            }
        }

        await stream.DisposeAsync();
    }

    private void WriteOrNull<T>(T? value, Action<T> write)
        where T : struct
    {
        if (value is { } known)
        {
            write(known);
        }
        else
        {
            WriteNull();
        }
    }

    private Span<byte> Value(int size)
    {
        var place = Take(sizeof(int) + size);
        BinaryPrimitives.WriteInt32BigEndian(place, size);
        return place[sizeof(int)..];
    }

    /// <summary>Begins an array and gives where it begins, for <see cref="Close"/>.</summary>
    private int BeginArray(int oid, int count)
    {
        var at = length;
        Take(sizeof(int));
        Put(count == 0 ? 0 : 1);
        Put(0);
        Put(oid);
        if (count > 0)
        {
            Put(count);
            Put(1);
        }

        return at;
    }

    /// <summary>Writes in front of a value how long it has become.</summary>
    private void Close(int at) => BinaryPrimitives.WriteInt32BigEndian(buffer.AsSpan(at), length - at - sizeof(int));

    private void PutText(string value)
    {
        var most = Encoding.UTF8.GetMaxByteCount(value.Length);
        var count = Encoding.UTF8.GetBytes(value, Take(most));
        length -= most - count;
    }

    private void Put(int value) => BinaryPrimitives.WriteInt32BigEndian(Take(sizeof(int)), value);

    private Span<byte> Take(int count)
    {
        if (length + count > buffer.Length)
        {
            Array.Resize(ref buffer, Math.Max(buffer.Length * 2, length + count));
        }

        var place = buffer.AsSpan(length, count);
        length += count;
        return place;
    }

    private void Flush()
    {
        stream.Write(buffer.AsSpan(0, length));
        length = 0;
    }
}
