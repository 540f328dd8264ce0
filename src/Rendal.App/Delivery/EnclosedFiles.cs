using System.IO.Compression;
using System.Security.Cryptography;
using Rendal.Core.Enclosures;
using Rendal.Core.Statements;
using Rendal.Files;
using Rendal.Files.Enclosures;
using Rendal.Mail;
using Rendal.Store.Enclosures;

namespace Rendal.App.Delivery;

/// <summary>
/// The files of a parcel, as they go with its message. The same parcel gives the same bytes. Before a file goes with anything it is asked
/// once more whether it belongs there, by what is on record about it now.
/// </summary>
internal static class EnclosedFiles
{
    /// <summary>Why one of the files may not go with the parcel, in words; empty where all may.</summary>
    /// <param name="files">The files.</param>
    /// <param name="statements">The statements of the parcel.</param>
    /// <param name="store">The book’s files.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task<string> ProblemAsync(
        IReadOnlyList<ParcelEnclosure> files,
        IReadOnlyList<Statement> statements,
        EnclosureStore store,
        CancellationToken cancel
    )
    {
        if (files.Count == 0)
        {
            return "";
        }

        var known = (await store.FindAsync([.. files.Select(f => f.File)], cancel)).ToDictionary(f => f.Id);
        foreach (var file in files)
        {
            if (!known.TryGetValue(file.File, out var record))
            {
                return $"“{file.Name}” was deleted since it was released";
            }

            if (
                record.Sha256 != file.Sha256
                || !file.BelongsTo(statements)
                || (record.Use == EnclosureUse.Copy && !file.IsNamed && !IsCopy(record, file))
            )
            {
                return $"“{file.Name}” is no copy of what is on its statement";
            }
        }

        return "";
    }

    /// <summary>The content of files by their hash.</summary>
    /// <exception cref="InvalidDataException">One is not there, or not what it was.</exception>
    public static async Task<Dictionary<string, byte[]>> ContentAsync(
        IReadOnlyList<ParcelEnclosure> files,
        EnclosureStore store,
        CancellationToken cancel
    )
    {
        var content = new Dictionary<string, byte[]>(StringComparer.Ordinal);
        foreach (var sha256 in files.Select(f => f.Sha256).Distinct(StringComparer.Ordinal))
        {
            var bytes = await store.ContentAsync(sha256, cancel);
            content[sha256] =
                bytes is not null && Convert.ToHexStringLower(SHA256.HashData(bytes)) == sha256
                    ? bytes
                    : throw new InvalidDataException($"The content {sha256} of an enclosure is not what it was.");
        }

        return content;
    }

    /// <summary>The files as they are enclosed, after the document.</summary>
    /// <param name="files">The files of the parcel.</param>
    /// <param name="content">Their content by hash.</param>
    /// <param name="form">In what form copies are enclosed.</param>
    /// <param name="taken">The names of what is enclosed already; the new ones are added.</param>
    /// <exception cref="FileRefused">A copy that is to be joined with others is damaged; the message names it.</exception>
    public static IReadOnlyList<Enclosure> Make(
        IReadOnlyList<ParcelEnclosure> files,
        IReadOnlyDictionary<string, byte[]> content,
        CopyForm form,
        ISet<string> taken
    )
    {
        var made = new List<Enclosure>();
        var copies = files.Where(f => f.IsCopy).ToList();
        var together = form switch
        {
            CopyForm.Joined => copies.FindAll(f => f.ContentType == "application/pdf"),
            CopyForm.Zipped => copies,
            _ => [],
        };
        if (together.Count > 1)
        {
            var name = string.Join(", ", together.SelectMany(f => f.Numbers).Distinct(StringComparer.Ordinal));
            made.Add(
                form == CopyForm.Joined
                    ? new Enclosure(
                        FileName.Unique(FileName.Safe(name, ".pdf"), taken),
                        "application/pdf",
                        PdfPages.Join([.. together.Select(f => (f.Name, content[f.Sha256]))])
                    )
                    : new Enclosure(FileName.Unique(FileName.Safe(name, ".zip"), taken), "application/zip", Zip(together, content))
            );
        }
        else
        {
            together = [];
        }

        made.AddRange(files.Except(together).Select(f => new Enclosure(FileName.Unique(f.Name, taken), f.ContentType, content[f.Sha256])));
        return made;
    }

    private static bool IsCopy(EnclosureFile record, ParcelEnclosure file)
    {
        var numbers = record.ByHand is { } said ? (said.Customer == file.Customer ? said.Numbers : []) : [record.Recognised.Number];
        return !file.IsCopy || file.Numbers.All(number => numbers.Contains(DocumentNumber.Key(number)));
    }

    private static byte[] Zip(IReadOnlyList<ParcelEnclosure> files, IReadOnlyDictionary<string, byte[]> content)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
            foreach (var file in files)
            {
                var entry = zip.CreateEntry(FileName.Unique(file.Name, taken), CompressionLevel.Optimal);

                // The first moment that the format knows, so that the same files come out the same.
                entry.LastWriteTime = new DateTimeOffset(1980, 1, 1, 0, 0, 0, TimeSpan.Zero);
                using var to = entry.Open();
                to.Write(content[file.Sha256]);
            }
        }

        return bytes.ToArray();
    }
}
