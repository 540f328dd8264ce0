using System.Text;
using CsvHelper;
using Rendal.Core.Intake;

namespace Rendal.Files.Csv;

/// <summary>Reads text files with separated cells (RFC 4180 and what programs make of it) as tables.</summary>
public static class CsvLedger
{
    /// <summary>The most bytes in one row; beyond it the file is taken for one with a quote that never ends.</summary>
    public const int LongestRow = 1_000_000;

    /// <summary>The most columns that are read.</summary>
    public const int MostColumns = 5_000;

    private const int SampleSize = 64 * 1024;

    /// <summary>Opens a file as a table. Encoding and delimiter are found out here; rows are read when they are gone through.</summary>
    /// <param name="name">The file's name, for findings.</param>
    /// <param name="open">Opens the file from its start; called once for each time the rows are gone through.</param>
    /// <exception cref="FileRefused">The file is empty, or is no text.</exception>
    public static LedgerTable Open(string name, Func<Stream> open)
    {
        Encoding encoding;
        using (var stream = open())
        {
            var start = new byte[512];
            var length = stream.ReadAtLeast(start, start.Length, throwOnEndOfStream: false);
            if (length == 0)
            {
                throw new FileRefused($"{name} is empty.");
            }

            if (FileSignature.NotText(start.AsSpan(0, length)) is { } what)
            {
                throw new FileRefused($"{name} is {what}.");
            }
        }

        using (var stream = open())
        {
            encoding = TextEncoding.Of(stream);
        }

        using (var reader = new StreamReader(open(), encoding))
        {
            var sample = new char[SampleSize];
            var length = reader.ReadBlock(sample);
            var text = new string(sample, 0, length);
            if (string.IsNullOrWhiteSpace(text))
            {
                throw new FileRefused($"{name} holds nothing but white space.");
            }

            if (text.Contains('\0', StringComparison.Ordinal))
            {
                throw new FileRefused($"{name} is not a text file; ask the accounting program for a CSV file.");
            }

            var delimiter = Delimiter.Of(text);
            return new LedgerTable(name, null, Rows(name, open, encoding, delimiter));
        }
    }

    private static IEnumerable<FileRow> Rows(string name, Func<Stream> open, Encoding encoding, char delimiter)
    {
        var number = 0;
        var options = new CsvReaderOptions
        {
            Separator = delimiter,
            HasHeader = false,
            SkipEmptyLines = false,
            MaxRecordSize = LongestRow,
            OnMalformedRecord = malformed =>
            {
                // A quote in the middle of a cell is how some programs write inches; one that never ends swallows rows.
                if (malformed.Reason == CsvMalformedReason.UnterminatedQuote)
                {
                    throw new FileRefused($"{name}, row {number + 1}: a quotation mark lacks its second one, so that the rest of the file would be one cell.");
                }
            },
        };
        using var reader = CsvReader.Create(new StreamReader(open(), encoding), options, leaveOpen: false);
        while (Next(name, reader, number))
        {
            number++;
            var count = reader.FieldCount;
            if (count > MostColumns)
            {
                throw new FileRefused($"{name}, row {number} has {count} columns; the most that are read is {MostColumns}.");
            }

            var cells = new Cell[count];
            for (var i = 0; i < count; i++)
            {
                cells[i] = Cell.Of(reader.GetString(i));
            }

            yield return new FileRow(number, cells);
        }
    }

    private static bool Next(string name, CsvReader reader, int number)
    {
        try
        {
            return reader.Read();
        }
        catch (CsvFormatException e)
        {
            throw new FileRefused($"{name}, row {number + 1} is longer than {LongestRow} bytes; a quotation mark may lack its second one.", e);
        }
    }
}
