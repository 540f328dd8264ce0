using System.Runtime.InteropServices;
using System.Text;
using CsvHelper;
using Rendal.Core.Budgets;
using Rendal.Core.Intake;

namespace Rendal.Files.Csv;

/// <summary>Reads text files with separated cells (RFC 4180 and what programs make of it) as tables.</summary>
public static class CsvLedger
{
    /// <summary>The most bytes in one row; beyond it the file is taken for one with a quote that never ends.</summary>
    public const int LongestRow = 1_000_000;

    private const int SampleSize = 64 * 1024;

    /// <summary>Opens a file as a table. Encoding and delimiter are found out here; rows are read when they are gone through.</summary>
    /// <param name="name">The file's name, for findings.</param>
    /// <param name="open">Opens the file from its start; called once for each time the rows are gone through.</param>
    /// <param name="opening">What a person has decided.</param>
    /// <exception cref="FileRefused">The file is empty, or is no text.</exception>
    public static LedgerTable Open(string name, Func<Stream> open, FileOpening opening)
    {
        var (encoding, encodingReason) = opening.Encoding is { } said
            ? (
                TextEncoding.Named(said)
                    ?? throw new FileRefused(
                        $"“{said}” is not an encoding that is known; there are {string.Join(", ", TextEncoding.Names)}."
                    ),
                "set by you"
            )
            : EncodingOf(open);
        using var reader = new StreamReader(open(), encoding);
        var sample = new char[SampleSize];
        var text = new string(sample, 0, reader.ReadBlock(sample));
        if (string.IsNullOrWhiteSpace(text))
        {
            throw new FileRefused($"{name} holds nothing but white space.");
        }

        if (text.Contains('\0', StringComparison.Ordinal))
        {
            throw new FileRefused($"{name} is not a text file; ask the accounting program for a CSV file or a workbook.");
        }

        var (delimiter, delimiterReason) = opening.Delimiter is { } by
            ? (Delimiter.All.Contains(by) ? by : throw new FileRefused($"“{by}” is not a delimiter that is known."), "set by you")
            : Delimiter.Of(text);
        return new LedgerTable(name, null, ReadAhead.Of(MovedColumns.Aligned(Rows(name, open, encoding, delimiter))))
        {
            Traits = new FileTraits
            {
                Delimiter = delimiter,
                DelimiterReason = delimiterReason,
                Encoding = encoding.WebName,
                EncodingReason = encodingReason,
            },
        };
    }

    private static (Encoding Encoding, string Reason) EncodingOf(Func<Stream> open)
    {
        using var stream = open();
        return TextEncoding.Of(stream);
    }

    private static IEnumerable<FileRow> Rows(string name, Func<Stream> open, Encoding encoding, char delimiter)
    {
        var number = 0;
        var budget = new Budget(name, Limits.Text);
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
                    throw new FileRefused(
                        $"{name}, row {number + 1}: a quotation mark lacks its second one, so that the rest of the file would be one cell."
                    );
                }
            },
        };
        using var reader = CsvReader.Create(new StreamReader(open(), encoding), options, leaveOpen: false);
        var pools = new List<CellPool>();
        while (Next(name, reader, number))
        {
            number++;
            var count = reader.FieldCount;
            budget.Spend(Cost.Rows);
            budget.Spend(Cost.Cells, count);
            if (count > TableFile.MostColumns)
            {
                throw new FileRefused($"{name}, row {number} has {count} columns; the most that are read is {TableFile.MostColumns}.");
            }

            var cells = new Cell[count];
            for (var i = 0; i < count; i++)
            {
                while (pools.Count <= i)
                {
                    pools.Add(new CellPool());
                }

                cells[i] = pools[i].Of(reader.GetSpan(i));
            }

            yield return new FileRow(number, ImmutableCollectionsMarshal.AsImmutableArray(cells));
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
            throw new FileRefused(
                $"{name}, row {number + 1} is longer than {LongestRow} bytes; a quotation mark may lack its second one.",
                e
            );
        }
    }
}
