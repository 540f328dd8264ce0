using System.Security.Cryptography;
using System.Text;
using Rendal.Core.Budgets;
using Rendal.Core.Dispatch;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Exceptions;
using UglyToad.PdfPig.Writer;

namespace Rendal.Files.Enclosures;

/// <summary>The pages of a PDF that somebody gave in: their text, and parts of them as files of their own.</summary>
public sealed class PdfPages : IDisposable
{
    /// <summary>The most pages that a file is parted by.</summary>
    public const int Most = 5_000;

    // Enough for an invoice; what follows is terms.
    private const int MostCharacters = 20_000;
    private const double SameLine = 3;

    private readonly PdfDocument document;
    private readonly BoundedFilters filters;
    private readonly FormDrawing forms;

    private PdfPages(PdfDocument document, BoundedFilters filters) =>
        (this.document, this.filters, forms) = (document, filters, new FormDrawing(document.Structure, filters, document.NumberOfPages));

    /// <summary>How many there are.</summary>
    public int Count => document.NumberOfPages;

    /// <summary>Opens a PDF, to be gone through by the thread that opens it: its time is bounded.</summary>
    /// <param name="name">Its name, for the refusal.</param>
    /// <param name="bytes">Its content.</param>
    /// <exception cref="FileRefused">It is under a password, damaged, has more than <see cref="Most"/> pages, or takes more than
    /// <see cref="Limits.Pdf"/>; the message says so.</exception>
    public static PdfPages Open(string name, byte[] bytes)
    {
        if (PageNodes.In(bytes) > PageNodes.Most)
        {
            throw Damaged(name, null);
        }

        var filters = new BoundedFilters(TimedBudget.Begin(name, Limits.Pdf, CancellationToken.None));
        PdfDocument document;
        try
        {
            document = PdfDocument.Open(bytes, new ParsingOptions { UseLenientParsing = true, FilterProvider = filters });
        }
        catch (PdfDocumentEncryptedException e)
        {
            throw new FileRefused($"{name} is under a password; save it without one and give it in again.", e);
        }
        catch (Exception e) when (IsDamage(e))
        {
            filters.Demand();
            throw Damaged(name, e);
        }

        if (filters.IsTooDeep)
        {
            document.Dispose();
            throw Damaged(name, null);
        }

        if (document.NumberOfPages is 0 or > Most)
        {
            var pages = document.NumberOfPages;
            document.Dispose();
            throw new FileRefused(
                pages == 0
                    ? $"{name} has no page."
                    : FormattableString.Invariant($"{name} has {pages:#,0} pages; {Most:#,0} are the most. Give it in in several files.")
            );
        }

        return new PdfPages(document, filters);
    }

    /// <summary>
    /// The text of a page, line by line from the top as it is seen. Empty where the page is a picture, or its text cannot be read.
    /// </summary>
    /// <param name="number">The page, from 1.</param>
    /// <exception cref="FileRefused">It takes more than <see cref="Limits.Pdf"/>.</exception>
    public string Text(int number)
    {
        var text = "";
        try
        {
            text = forms.On(number) > FormDrawing.Most ? "" : Lines(document.GetPage(number).GetWords());
        }
        catch (Exception e) when (IsDamage(e))
        {
            // It goes by its name then.
        }

        filters.Demand();
        return text;
    }

    /// <summary>Some pages as a PDF.</summary>
    /// <param name="name">The name of the file, for the refusal.</param>
    /// <param name="from">The first page.</param>
    /// <param name="to">The last page.</param>
    /// <exception cref="FileRefused">One of the pages is damaged.</exception>
    public byte[] Part(string name, int from, int to)
    {
        try
        {
            using var builder = new PdfDocumentBuilder { IncludeDocumentInformation = false };
            for (var page = from; page <= to; page++)
            {
                builder.AddPage(document, page);
            }

            return Settled(builder.Build());
        }
        catch (Exception e) when (IsDamage(e))
        {
            throw Damaged(name, e);
        }
    }

    /// <summary>All pages of several PDFs, in their order, as one. The same files give the same bytes.</summary>
    /// <param name="files">The files with their names.</param>
    /// <exception cref="FileRefused">One is damaged; the message names it.</exception>
    public static byte[] Join(IReadOnlyList<(string Name, byte[] Bytes)> files)
    {
        using var builder = new PdfDocumentBuilder { IncludeDocumentInformation = false };
        foreach (var (name, bytes) in files)
        {
            using var pages = Open(name, bytes);
            try
            {
                for (var page = 1; page <= pages.Count; page++)
                {
                    builder.AddPage(pages.document, page);
                }
            }
            catch (Exception e) when (IsDamage(e))
            {
                throw Damaged(name, e);
            }
        }

        return Settled(builder.Build());
    }

    /// <inheritdoc/>
    public void Dispose() => document.Dispose();

    /// <summary>
    /// Gives a document an identifier (ISO 32000-1, 14.4) that follows from its content, in place of one that is drawn each time it is
    /// written.
    /// </summary>
    private static byte[] Settled(byte[] pdf)
    {
        var trailer = pdf.AsSpan().LastIndexOf("trailer"u8);
        foreach (var (start, length) in HexIn(pdf, trailer + pdf.AsSpan(trailer).IndexOf("/ID"u8)))
        {
            pdf.AsSpan(start, length).Fill((byte)'0');
        }

        var identifier = Encoding.ASCII.GetBytes(Convert.ToHexString(SHA256.HashData(pdf)));
        foreach (var (start, length) in HexIn(pdf, trailer + pdf.AsSpan(trailer).IndexOf("/ID"u8)))
        {
            identifier.AsSpan(0, length).CopyTo(pdf.AsSpan(start, length));
        }

        return pdf;
    }

    /// <summary>Where the digits of the two parts of an identifier are.</summary>
    private static IEnumerable<(int Start, int Length)> HexIn(byte[] pdf, int at)
    {
        for (var part = 0; part < 2; part++)
        {
            var start = Array.IndexOf(pdf, (byte)'<', at) + 1;
            var end = Array.IndexOf(pdf, (byte)'>', start);
            yield return (start, Math.Min(end - start, 2 * SHA256.HashSizeInBytes));
            at = end;
        }
    }

    private static string Lines(IEnumerable<Word> words)
    {
        var text = new StringBuilder();
        var line = double.NaN;
        foreach (var word in words.OrderByDescending(w => Math.Round(w.BoundingBox.Bottom / SameLine)).ThenBy(w => w.BoundingBox.Left))
        {
            var at = Math.Round(word.BoundingBox.Bottom / SameLine);
            text.Append(
                    text.Length == 0 ? ""
                    : at.Equals(line) ? " "
                    : "\n"
                )
                .Append(ForeignWords.Printable(word.Text));
            line = at;
            if (text.Length > MostCharacters)
            {
                break;
            }
        }

        return text.ToString();
    }

    private static FileRefused Damaged(string name, Exception? e) =>
        new($"{name} is damaged or cut short; print it to PDF anew and give that in.", e);

    // The reader throws whatever it comes upon in bytes that are no PDF.
    private static bool IsDamage(Exception e) => e is not (OutOfMemoryException or OperationCanceledException);
}
