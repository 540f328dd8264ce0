using Rendal.Core.Intake;

namespace Rendal.Files.Workbooks;

/// <summary>A workbook whose sheets are gone through one after another.</summary>
internal abstract class Workbook : IDisposable
{
    /// <summary>The most that a packed workbook may unpack to.</summary>
    public const long LargestUnpacked = 1L << 30;

    /// <summary>The most that the texts of a packed workbook, which are held in memory, may unpack to.</summary>
    public const long LargestTexts = 1L << 28;

    /// <summary>Whether day 0 of serial dates is 1 January 1904.</summary>
    public virtual bool Dates1904 => false;

    /// <summary>Whether it is known from the start that there is one sheet and no other.</summary>
    public virtual bool HasOneSheet => false;

    /// <summary>The sheets, in the workbook's order, from the first on each time.</summary>
    public abstract IEnumerable<Sheet> Sheets();

    public abstract void Dispose();

    /// <summary>Opens a workbook by what its content says that it is.</summary>
    /// <param name="name">Its name, for messages.</param>
    /// <param name="format">What its content says.</param>
    /// <param name="open">Opens it anew; it is read more than once.</param>
    /// <exception cref="FileRefused">It is damaged or under a password.</exception>
    public static Workbook Open(string name, FileFormat format, Func<Stream> open) =>
        format == FileFormat.Ods ? new OdsWorkbook(name, open) : new ExcelWorkbook(name, format, open);

    /// <summary>
    /// Refuses a packed workbook that would unpack to more than can be meant, or that lacks a part. What it says of its sizes is held to
    /// when it is unpacked.
    /// </summary>
    public static void CheckSizes(string name, FileFormat format, Func<Stream> open)
    {
        if (format == FileFormat.Xls)
        {
            return;
        }

        using var packed = new PackedFile(name, open);
        long all = 0;
        foreach (var entry in packed.Entries)
        {
            all += entry.Length;
            if (all > LargestUnpacked || (entry.Length > LargestTexts && entry.FullName is "xl/sharedStrings.xml" or "xl/styles.xml"))
            {
                throw new FileRefused(
                    $"{name} would unpack to more than {(all > LargestUnpacked ? LargestUnpacked : LargestTexts) >> 20} MB; "
                        + "save the sheet alone, or as CSV, and take that in."
                );
            }
        }

        if (format == FileFormat.Xlsx && XlsxParts.FirstMissing(packed) is { } missing)
        {
            throw FileSignature.Damaged(name, new InvalidDataException($"The part {missing} is missing."));
        }
    }

    /// <summary>Refuses a packed workbook that is not what it was when it was packed.</summary>
    public static void CheckSums(string name, FileFormat format, Func<Stream> open)
    {
        if (format == FileFormat.Xls)
        {
            return;
        }

        using var packed = new PackedFile(name, open);
        packed.CheckSums();
    }
}

/// <summary>One sheet, whose rows are gone through at most once.</summary>
/// <param name="Seen">Its name.</param>
/// <param name="Rows">Its rows, blank ones left out, with their numbers as a spreadsheet shows them.</param>
/// <param name="HiddenColumns">The columns that it hides, from 0; known when its rows were gone through.</param>
internal sealed record Sheet(SheetSeen Seen, IEnumerable<FileRow> Rows, IReadOnlyCollection<int> HiddenColumns);
