using Rendal.Core.Budgets;
using Rendal.Core.Intake;
using Rendal.Files.Csv;
using Rendal.Files.Workbooks;

namespace Rendal.Files;

/// <summary>Opens files of every format that ledgers and lists come in.</summary>
public static class TableFile
{
    /// <summary>The most columns that are read.</summary>
    public const int MostColumns = 5_000;

    /// <summary>The most characters in one cell: what a cell of a spreadsheet can hold.</summary>
    public const int LongestCell = 32_767;

    /// <summary>
    /// Opens a file as a table by what it is, whatever its name says. The cells of a workbook are read once, here, into a temporary file
    /// that goes away with the table; those of a text file are read when they are gone through.
    /// </summary>
    /// <param name="name">The file's name, for findings.</param>
    /// <param name="open">Opens the file from its start; the stream of a workbook has to be able to seek.</param>
    /// <param name="opening">What a person has decided.</param>
    /// <param name="at">Is told the row that was come to; may throw to stop.</param>
    /// <exception cref="FileRefused">The file cannot be read; the message says what it is and what to do.</exception>
    /// <exception cref="OverBudget">A sheet has more than <see cref="Limits.Sheet"/> says.</exception>
    public static LedgerTable Open(string name, Func<Stream> open, FileOpening opening, Action<int>? at = null)
    {
        var format = FileSignature.Of(name, open);
        if (format == FileFormat.Text)
        {
            return opening.Sheet is { } sheet
                ? throw new FileRefused($"{name} is a text file and has no sheet “{sheet}”.")
                : CsvLedger.Open(name, open, opening);
        }

        Workbook.CheckSizes(name, format, open);

        // Both unpack the whole file, so they do it side by side. What the checksums say goes before whatever reading says.
        var sums = Task.Run(() => Workbook.CheckSums(name, format, open));
        try
        {
            using var book = Workbook.Open(name, format, open);
            var table = SheetChoice.Take(name, book, opening, at ?? (_ => { }));
            sums.GetAwaiter().GetResult();
            return table;
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            sums.GetAwaiter().GetResult();
            throw;
        }
        finally
        {
            // The file is closed when this returns, however it ended.
            Task.WhenAny(sums).Wait();
        }
    }
}
