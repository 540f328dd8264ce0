using System.Collections;
using System.Runtime.InteropServices;
using System.Text;
using Microsoft.Win32.SafeHandles;
using Rendal.Core.Intake;

namespace Rendal.Files;

/// <summary>
/// The rows of a table in a temporary file, from which they can be gone through again quickly, from the start or from the middle, with a
/// bounded part of them in memory. The file has no name any more once it is made, so that nothing is left behind however the program ends.
/// </summary>
public sealed class RowSpool : IEnumerable<FileRow>, IDisposable
{
    private const int RowsBetweenMarks = 256;
    private const int BufferSize = 256 * 1024;

    private readonly SafeFileHandle file;
    private readonly List<(int Row, long Position)> marks = [];

    // How numbers are displayed; cells name them by their place here.
    private readonly List<CellFormat> formats = [];
    private long length;

    private RowSpool(SafeFileHandle file) => this.file = file;

    /// <summary>How many rows there are.</summary>
    public int Count { get; private set; }

    /// <summary>The number of the last row; 0 where there is none.</summary>
    public int LastRow { get; private set; }

    /// <summary>Goes through rows once and keeps them.</summary>
    /// <param name="rows">The rows.</param>
    /// <param name="at">Is told the row that was come to; may throw to stop, and nothing is left.</param>
    public static RowSpool Of(IEnumerable<FileRow> rows, Action<int> at)
    {
        var path = Path.Combine(Path.GetTempPath(), $"rendal-rows-{Guid.NewGuid():N}");
        var file = File.OpenHandle(path, FileMode.CreateNew, FileAccess.ReadWrite, FileShare.None, FileOptions.None);
        File.Delete(path);
        var spool = new RowSpool(file);
        try
        {
            spool.Write(rows, at);
            return spool;
        }
        catch
        {
            spool.Dispose();
            throw;
        }
    }

    /// <inheritdoc/>
    public IEnumerator<FileRow> GetEnumerator() => ReadAhead.Of(From(1)).GetEnumerator();

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    /// <summary>The rows from one number on.</summary>
    public IEnumerable<FileRow> From(int row)
    {
        var mark = marks.FindLastIndex(m => m.Row <= row);
        return mark < 0 && marks.Count == 0 ? [] : Read(marks[Math.Max(mark, 0)].Position).SkipWhile(r => r.Number < row);
    }

    /// <inheritdoc/>
    public void Dispose() => file.Dispose();

    private void Write(IEnumerable<FileRow> rows, Action<int> at)
    {
        using var buffer = new MemoryStream(2 * BufferSize);
        using var writer = new BinaryWriter(buffer, Encoding.UTF8);
        var known = new Dictionary<CellFormat, int>(ReferenceEqualityComparer.Instance);
        foreach (var row in rows)
        {
            at(row.Number);
            if (Count++ % RowsBetweenMarks == 0)
            {
                marks.Add((row.Number, length + buffer.Length));
            }

            LastRow = row.Number;
            writer.Write7BitEncodedInt(row.Number);
            writer.Write7BitEncodedInt((row.Cells.Length << 2) | (row.IsMoved ? 2 : 0) | (row.IsHidden ? 1 : 0));
            foreach (var cell in row.Cells)
            {
                CellForm.Write(writer, cell, cell.Format is { } format ? Place(format) : 0);
            }

            if (buffer.Length >= BufferSize)
            {
                Flush(buffer);
            }
        }

        Flush(buffer);

        int Place(CellFormat format)
        {
            if (!known.TryGetValue(format, out var place))
            {
                known.Add(format, place = formats.Count);
                formats.Add(format);
            }

            return place;
        }
    }

    private void Flush(MemoryStream buffer)
    {
        RandomAccess.Write(file, buffer.GetBuffer().AsSpan(0, (int)buffer.Length), length);
        length += buffer.Length;
        buffer.SetLength(0);
    }

    private IEnumerable<FileRow> Read(long position)
    {
        using var stream = new BufferedStream(new Window(file, position, length), BufferSize);
        using var reader = new BinaryReader(stream, Encoding.UTF8);
        while (stream.Position < length - position)
        {
            var number = reader.Read7BitEncodedInt();
            var length = reader.Read7BitEncodedInt();
            var cells = new Cell[length >> 2];
            for (var i = 0; i < cells.Length; i++)
            {
                cells[i] = CellForm.Read(reader, formats);
            }

            yield return new FileRow(number, ImmutableCollectionsMarshal.AsImmutableArray(cells), (length & 1) != 0, (length & 2) != 0);
        }
    }

    /// <summary>How one cell stands in the file: a byte that says what it is, then its value.</summary>
    private static class CellForm
    {
        private const byte Empty = 0;
        private const byte Text = 1;
        private const byte Number = 2;
        private const byte Date = 3;
        private const byte Code = 4;
        private const byte Error = 5;
        private const byte Formatted = 6;
        private const byte Displayed = 7;

        // Beside one of the others: the rest of a cell that spans rows.
        private const byte Merged = 0x10;

        /// <summary>Writes a cell with the number of its format.</summary>
        public static void Write(BinaryWriter writer, Cell cell, int format)
        {
            var merged = cell.IsMerged ? Merged : (byte)0;
            if (cell.Number is { } number)
            {
                var shown = cell.ShownAs ?? cell.DisplayedAs;
                var form =
                    cell.ShownAs is not null ? Code
                    : shown is not null ? Displayed
                    : cell.Format is not null ? Formatted
                    : Number;
                writer.Write((byte)(form | merged));
                writer.Write(number);
                if (shown is not null)
                {
                    writer.Write(shown);
                }
                else if (form == Formatted)
                {
                    writer.Write7BitEncodedInt(format);
                }
            }
            else if (cell.Date is { } date)
            {
                writer.Write((byte)(Date | merged));
                writer.Write7BitEncodedInt(date.DayNumber);
            }
            else if (cell.IsEmpty)
            {
                writer.Write(Empty);
            }
            else
            {
                writer.Write((byte)((cell.IsError ? Error : Text) | merged));
                writer.Write(cell.Text);
            }
        }

        /// <summary>Reads a cell back, with its format by number.</summary>
        public static Cell Read(BinaryReader reader, List<CellFormat> formats)
        {
            var form = reader.ReadByte();
            var cell = Read(reader, (byte)(form & ~Merged), formats);
            return (form & Merged) == 0 ? cell : cell.Below();
        }

        private static Cell Read(BinaryReader reader, byte form, List<CellFormat> formats) =>
            form switch
            {
                Empty => Cell.Empty,
                Text => Cell.Of(reader.ReadString()),
                Number => Cell.Of(reader.ReadDecimal()),
                Code => Cell.Of(reader.ReadDecimal(), reader.ReadString()),
                Error => Cell.OfError(reader.ReadString()),
                Formatted => Cell.Of(reader.ReadDecimal(), formats[reader.Read7BitEncodedInt()]),
                Displayed => Cell.OfDisplayed(reader.ReadDecimal(), reader.ReadString()),
                Date => Cell.Of(DateOnly.FromDayNumber(reader.Read7BitEncodedInt())),
                var unknown => throw new InvalidDataException($"A spooled cell of form {unknown}."),
            };
    }

    /// <summary>A part of the file, from one position on; several can be read at once.</summary>
    private sealed class Window(SafeFileHandle file, long start, long end) : Stream
    {
        private long read;

        public override bool CanRead => true;

        public override bool CanSeek => true;

        public override bool CanWrite => false;

        public override long Length => end - start;

        public override long Position
        {
            get => read;
            set => read = value;
        }

        public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

        public override int Read(Span<byte> buffer)
        {
            var count = RandomAccess.Read(file, buffer, start + read);
            read += count;
            return count;
        }

        public override long Seek(long offset, SeekOrigin origin) =>
            read = origin switch
            {
                SeekOrigin.Begin => offset,
                SeekOrigin.Current => read + offset,
                _ => Length + offset,
            };

        public override void SetLength(long value) => throw new InvalidOperationException("Spooled rows do not change.");

        public override void Write(byte[] buffer, int offset, int count) =>
            throw new InvalidOperationException("Spooled rows do not change.");

        public override void Flush() { }
    }
}
