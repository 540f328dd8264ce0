using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using Rendal.App.Books;
using Rendal.App.Ledger;
using Rendal.App.Progress;
using Rendal.Core.Dispatch;
using Rendal.Core.Enclosures;
using Rendal.Files;
using Rendal.Files.Enclosures;
using Rendal.Store.Enclosures;

namespace Rendal.App.Enclosures;

/// <summary>A file that was not kept.</summary>
/// <param name="Name">Its name, with its place in what was given in.</param>
/// <param name="Reason">Why, as what is said of it: <c>is a program</c>.</param>
public sealed record RefusedFile(string Name, string Reason);

/// <summary>What came of files that were given in.</summary>
/// <param name="Added">How many files were kept; parts of one count each.</param>
/// <param name="Known">How many were there already.</param>
/// <param name="Refused">Those that were not kept, in their order.</param>
public sealed record AddedEnclosures(int Added, int Known, IReadOnlyList<RefusedFile> Refused);

/// <summary>
/// Keeps what was uploaded so that it can be enclosed: a file, or all that are in a ZIP. A PDF of several invoices is parted by the
/// numbers on its pages.
/// </summary>
public sealed class AddEnclosures(BookStores stores)
{
    private const int MostInZip = 50_000;
    private const long LargestToPart = 200_000_000;
    private const int Batch = 200;
    private const long BatchBytes = 48_000_000;
    private const int MostText = 20_000;

    // What file managers leave in folders.
    private static readonly string[] NoFiles = [".DS_Store", "Thumbs.db", "desktop.ini"];

    /// <summary>Keeps it. What is there already under the same name is passed over.</summary>
    /// <param name="upload">What was uploaded.</param>
    /// <param name="use">What it is for.</param>
    /// <param name="customer">The customer whose messages it goes with; empty for another use.</param>
    /// <param name="meter">Is told how far it has come.</param>
    /// <param name="cancel">Stops it. What was kept until then stays, and the rest can be gone on with.</param>
    /// <exception cref="ProblemException">It is not there or not whole; it is for a customer who has no card; or copies are given in
    /// before there is a ledger, by whose numbers they are found.</exception>
    /// <exception cref="FileRefused">It is a ZIP file that cannot be unpacked.</exception>
    public async Task<AddedEnclosures> RunAsync(
        long upload,
        EnclosureUse use,
        string customer,
        ProgressMeter meter,
        CancellationToken cancel
    )
    {
        var came = await stores.Uploads.FindAsync(upload, stores.Person, cancel) ?? throw ProblemException.NotFound("This upload");
        if (!came.IsWhole)
        {
            throw ProblemException.Conflict("The file is not all here yet. Upload the rest of it.");
        }

        if (use == EnclosureUse.Customer && await stores.Customers.FindAsync(customer, cancel) is null)
        {
            throw ProblemException.NotFound("The card of this customer");
        }

        var intake = use == EnclosureUse.Copy ? (await TheLedger.OfAsync(stores, cancel)).Id : (long?)null;
        var purpose = new EnclosurePurpose(use, use == EnclosureUse.Customer ? customer : "", intake);
        await using var file = new FileStream(
            Path.Combine(Path.GetTempPath(), $"rendal-{Guid.NewGuid():N}"),
            new FileStreamOptions
            {
                Mode = FileMode.CreateNew,
                Access = FileAccess.ReadWrite,
                Options = FileOptions.DeleteOnClose | FileOptions.Asynchronous,
            }
        );
        await stores.Uploads.WriteAsync(upload, file, cancel);
        var (kinds, count) = ((await stores.Enclosures.SettingsAsync(cancel)).Kinds, new Tally());
        if (Path.GetExtension(came.Name).Equals(".zip", StringComparison.OrdinalIgnoreCase))
        {
            await ZipAsync(came.Name, file, purpose, kinds, count, meter, cancel);
        }
        else
        {
            meter.Begin("reading the file", 1, "files");
            await AddAsync(
                [(came.Name, await BytesAsync(file, came.Size, cancel))],
                await RecognitionAsync(purpose, [came.Name], cancel),
                purpose,
                kinds,
                count,
                meter,
                cancel
            );
        }

        await stores.Uploads.DeleteAsync(upload, cancel);
        return new AddedEnclosures(count.Added, count.Known, count.Refused);
    }

    private async Task<CopyRecognition?> RecognitionAsync(EnclosurePurpose purpose, IEnumerable<string> paths, CancellationToken cancel) =>
        purpose.Intake is { } intake
            ? new CopyRecognition(
                await LedgerNumbers.OfAsync(stores, intake, cancel),
                await FilePattern.OfAsync(stores, intake, [.. paths.Select(p => Path.GetFileNameWithoutExtension(NameOf(p)))], cancel)
            )
            : null;

    private async Task ZipAsync(
        string name,
        FileStream file,
        EnclosurePurpose purpose,
        string[] kinds,
        Tally count,
        ProgressMeter meter,
        CancellationToken cancel
    )
    {
        file.Position = 0;
        using var zip = Opened(name, file);
        var entries = zip.Entries.Where(IsFile).ToList();
        if (entries.Count > MostInZip)
        {
            throw new FileRefused(
                FormattableString.Invariant(
                    $"{name} holds {entries.Count:#,0} files; {MostInZip:#,0} are the most. Pack them into several."
                )
            );
        }

        var recognition = await RecognitionAsync(purpose, entries.Select(PathOf), cancel);
        meter.Begin("reading the files", entries.Count, "files");
        var batch = new List<(string Path, byte[]? Bytes)>();
        long bytes = 0;
        foreach (var entry in entries)
        {
            var content = await UnpackedAsync(entry, count, cancel);
            if (content is null)
            {
                meter.Step();
                continue;
            }

            batch.Add((PathOf(entry), content));
            bytes += content.LongLength;
            if (batch.Count == Batch || bytes > BatchBytes)
            {
                await AddAsync(batch, recognition, purpose, kinds, count, meter, cancel);
                batch.Clear();
                bytes = 0;
            }
        }

        await AddAsync(batch, recognition, purpose, kinds, count, meter, cancel);
    }

    private static ZipArchive Opened(string name, FileStream file)
    {
        try
        {
            var zip = new ZipArchive(file, ZipArchiveMode.Read, leaveOpen: true);

            // The directory is only read when it is asked for.
            _ = zip.Entries.Count;
            return zip;
        }
        catch (InvalidDataException e)
        {
            throw new FileRefused($"{name} is no ZIP file, or damaged or cut short; pack the files anew.", e);
        }
    }

    private static bool IsFile(ZipArchiveEntry entry) =>
        entry.Name.Length > 0
        && !entry.FullName.StartsWith("__MACOSX/", StringComparison.Ordinal)
        && !NoFiles.Contains(entry.Name, StringComparer.OrdinalIgnoreCase);

    /// <summary>The content of a file in a ZIP; null where it is refused. What its directory says of its size is not believed.</summary>
    private static async Task<byte[]?> UnpackedAsync(ZipArchiveEntry entry, Tally count, CancellationToken cancel)
    {
        try
        {
            await using var content = await entry.OpenAsync(cancel);
            using var bytes = new MemoryStream();
            var block = new byte[81_920];
            while (await content.ReadAsync(block, cancel) is > 0 and var length)
            {
                await bytes.WriteAsync(block.AsMemory(0, length), cancel);
                if (bytes.Length > LargestToPart)
                {
                    count.Refuse(PathOf(entry), TooLarge(bytes.Length, LargestToPart));
                    return null;
                }
            }

            return bytes.ToArray();
        }
        catch (Exception e) when (e is InvalidDataException or NotSupportedException)
        {
            count.Refuse(PathOf(entry), entry.IsEncrypted ? "is under a password; pack it without one" : "is damaged in its ZIP file");
            return null;
        }
    }

    private static async Task<byte[]?> BytesAsync(FileStream file, long size, CancellationToken cancel)
    {
        if (size > LargestToPart)
        {
            return null;
        }

        file.Position = 0;
        var bytes = new byte[size];
        await file.ReadExactlyAsync(bytes, cancel);
        return bytes;
    }

    private async Task AddAsync(
        IReadOnlyList<(string Path, byte[]? Bytes)> files,
        CopyRecognition? recognition,
        EnclosurePurpose purpose,
        string[] kinds,
        Tally count,
        ProgressMeter meter,
        CancellationToken cancel
    )
    {
        var read = files
            .AsParallel()
            .AsOrdered()
            .WithCancellation(cancel)
            .Select(f =>
            {
                var made = Read(f.Path, f.Bytes, recognition, kinds, cancel);
                meter.Step();
                return made;
            })
            .ToList();
        foreach (var (kept, refused) in read)
        {
            if (refused is not null)
            {
                count.Refused.Add(refused);
            }

            foreach (var part in kept.Chunk(Batch))
            {
                var added = await stores.Enclosures.AddAsync(part, purpose, stores.Person, cancel);
                count.Added += added;
                count.Known += part.Length - added;
            }
        }
    }

    /// <summary>What is kept of a file, and why it is not.</summary>
    private static (IReadOnlyList<NewEnclosure> Kept, RefusedFile? Refused) Read(
        string path,
        byte[]? bytes,
        CopyRecognition? recognition,
        string[] kinds,
        CancellationToken cancel
    )
    {
        if (bytes is null)
        {
            return ([], new RefusedFile(path, TooLarge(LargestToPart, LargestToPart)));
        }

        var name = NameOf(path);
        if (EnclosureKind.Problem(name, bytes, kinds) is { Length: > 0 } problem)
        {
            return ([], new RefusedFile(path, problem));
        }

        try
        {
            var stem = Path.GetFileNameWithoutExtension(name);
            var isPdf = EnclosureKind.IsPdf(bytes);
            IReadOnlyList<NewEnclosure> kept =
                isPdf && recognition is not null
                    ? OfPdf(path, name, bytes, recognition, cancel)
                    : [New(name, bytes, path, isPdf ? "" : TextOf(name, bytes), recognition)];
            return kept.FirstOrDefault(k => k.Bytes.LongLength > EnclosureKind.Largest) is { } large
                ? ([], new RefusedFile(path, TooLarge(large.Bytes.LongLength, EnclosureKind.Largest)))
                : (kept, null);

            static NewEnclosure New(string name, byte[] bytes, string path, string text, CopyRecognition? recognition) =>
                Made(name, bytes, path, text, recognition?.Of(Path.GetFileNameWithoutExtension(name), text) ?? Recognised.Nothing(""));
        }
        catch (FileRefused e)
        {
            return ([], new RefusedFile(path, e.Message));
        }
    }

    private static IReadOnlyList<NewEnclosure> OfPdf(
        string path,
        string name,
        byte[] bytes,
        CopyRecognition recognition,
        CancellationToken cancel
    )
    {
        var stem = Path.GetFileNameWithoutExtension(name);
        using var pages = PdfPages.Open(name, bytes);
        var texts = new List<string>();
        for (var page = 1; page <= pages.Count; page++)
        {
            cancel.ThrowIfCancellationRequested();
            texts.Add(pages.Text(page));
        }

        var text = string.Join("\n\n", texts);
        var whole = recognition.Of(stem, text);
        var parts = recognition.IsNamed(stem) ? [] : PagePart.Of(texts, recognition);
        if (parts is [{ IsUnclear: true } only])
        {
            whole = only.Recognised;
        }

        return parts.Count <= 1
            ? [Made(name, bytes, path, text, whole.Reason == Recognised.NoNumber && text.Trim().Length == 0 ? Unread : whole)]
            :
            [
                .. parts.Select(part =>
                    Made(
                        $"{stem}, {NameOf(part, recognition)}.pdf",
                        pages.Part(name, part.From, part.To),
                        $"{path}, {Span(part)}",
                        string.Join("\n\n", texts.Take(part.To).Skip(part.From - 1)),
                        part.Recognised
                    )
                ),
            ];
    }

    private static Recognised Unread => Recognised.Nothing("it is a picture without text, and no number is in its name");

    // The recipient reads it, in whatever language.
    private static string NameOf(PagePart part, CopyRecognition recognition) =>
        part.Recognised.Number.Length > 0
            ? recognition.Written(part.Recognised.Number)
            : FormattableString.Invariant($"{part.From}-{part.To}");

    private static string Span(PagePart part) =>
        part.From == part.To
            ? FormattableString.Invariant($"page {part.From}")
            : FormattableString.Invariant($"pages {part.From} to {part.To}");

    private static NewEnclosure Made(string name, byte[] bytes, string origin, string text, Recognised recognised) =>
        new(
            FileName.Safe(Path.GetFileNameWithoutExtension(name), Path.GetExtension(name)),
            SHA256.HashData(bytes),
            bytes,
            EnclosureKind.TypeOf(name),
            origin,
            Cut(text),
            recognised
        );

    /// <summary>The text of a file that is nothing else; empty for any other kind.</summary>
    private static string TextOf(string name, byte[] bytes) =>
        EnclosureKind.TypeOf(name) is "text/plain" or "text/csv" or "application/xml"
            ? string.Join(
                '\n',
                Encoding.UTF8.GetString(bytes, 0, Math.Min(bytes.Length, MostText)).Split('\n').Select(ForeignWords.Printable)
            )
            : "";

    // Anything may stand in the directory of a ZIP file.
    private static string PathOf(ZipArchiveEntry entry) => ForeignWords.Printable(entry.FullName);

    private static string Cut(string text) =>
        text.Length <= MostText ? text : text[..(char.IsHighSurrogate(text[MostText - 1]) ? MostText - 1 : MostText)];

    private static string NameOf(string path) => path[(path.LastIndexOfAny(['/', '\\']) + 1)..];

    private static string TooLarge(long bytes, long most) =>
        FormattableString.Invariant($"has {bytes / 1e6:0} MB; a file can have {most / 1e6:0}");

    private sealed class Tally
    {
        /// <summary>How many files are new.</summary>
        public int Added { get; set; }

        /// <summary>How many were there already.</summary>
        public int Known { get; set; }

        /// <summary>Those that are not kept, with the reason.</summary>
        public List<RefusedFile> Refused { get; } = [];

        /// <summary>Notes one that is not kept.</summary>
        public void Refuse(string path, string reason) => Refused.Add(new RefusedFile(path, reason));
    }
}
