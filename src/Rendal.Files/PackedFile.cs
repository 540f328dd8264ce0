using System.IO.Compression;
using System.IO.Hashing;

namespace Rendal.Files;

/// <summary>A ZIP file in which a workbook is packed. Whatever is wrong with the packing is a refusal in words.</summary>
internal sealed class PackedFile : IDisposable
{
    private readonly string name;
    private readonly Stream stream;
    private readonly ZipArchive zip;

    /// <summary>Opens a ZIP file.</summary>
    /// <param name="name">Its name, for messages.</param>
    /// <param name="open">Opens it; it has to be seekable.</param>
    /// <exception cref="FileRefused">It is damaged.</exception>
    public PackedFile(string name, Func<Stream> open)
    {
        this.name = name;
        stream = open();
        try
        {
            zip = new ZipArchive(stream, ZipArchiveMode.Read, leaveOpen: true);

            // The directory is only read when it is asked for.
            Entries = zip.Entries;
        }
        catch (Exception e) when (IsDamage(e))
        {
            stream.Dispose();
            throw FileSignature.Damaged(name, e);
        }
    }

    /// <summary>All parts.</summary>
    public IReadOnlyList<ZipArchiveEntry> Entries { get; }

    /// <summary>Whether a part is there.</summary>
    public bool Has(string part) => zip.GetEntry(part) is not null;

    /// <summary>Opens a part; null where it is not there or larger than <paramref name="most"/> bytes.</summary>
    public Stream? Open(string part, long most = long.MaxValue)
    {
        try
        {
            return zip.GetEntry(part) is { } entry && entry.Length <= most ? entry.Open() : null;
        }
        catch (Exception e) when (IsDamage(e))
        {
            throw FileSignature.Damaged(name, e);
        }
    }

    /// <summary>The text of a small part; null where it is not there or larger than a megabyte.</summary>
    public string? Text(string part)
    {
        if (Open(part, 1 << 20) is not { } content)
        {
            return null;
        }

        try
        {
            using var reader = new StreamReader(content);
            return reader.ReadToEnd();
        }
        catch (Exception e) when (IsDamage(e))
        {
            throw FileSignature.Damaged(name, e);
        }
    }

    /// <summary>Refuses the file where a part is not what it was when it was packed: a changed bit would be a changed figure.</summary>
    public void CheckSums()
    {
        foreach (var entry in Entries.Where(e => Path.GetExtension(e.FullName) is ".xml" or ".bin" or ".rels"))
        {
            try
            {
                var sum = new Crc32();
                using var content = entry.Open();
                sum.Append(content);
                if (sum.GetCurrentHashAsUInt32() != entry.Crc32)
                {
                    throw new InvalidDataException($"The checksum of {entry.FullName} is wrong.");
                }
            }
            catch (Exception e) when (IsDamage(e))
            {
                throw FileSignature.Damaged(name, e);
            }
        }
    }

    public void Dispose()
    {
        zip.Dispose();
        stream.Dispose();
    }

    /// <summary>Whether an exception is one of those that reading a damaged ZIP file ends in.</summary>
    public static bool IsDamage(Exception e) =>
        e is InvalidDataException or IOException or NotSupportedException or ArgumentException or OverflowException;
}
