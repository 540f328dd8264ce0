using System.ComponentModel.DataAnnotations;
using Rendal.App.Enclosures;
using Rendal.Core.Enclosures;
using Rendal.Store.Enclosures;

namespace Rendal.Web.Enclosures;

/// <summary>A file that is about to be uploaded.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Size">How many bytes it has.</param>
/// <param name="Mark">What tells it from another file of that name and size, such as when it was changed last.</param>
internal sealed record UploadRequest(
    [property: StringLength(400, MinimumLength = 1)] string Name,
    [property: Range(1, EnclosureEndpoints.LargestUpload)] long Size,
    [property: StringLength(200)] string Mark
);

/// <summary>A file on its way.</summary>
/// <param name="Received">How many of its bytes are here: where the next piece begins.</param>
/// <param name="PieceSize">How many bytes a piece has, but the last.</param>
internal sealed record UploadView(long Id, long Received, int PieceSize);

/// <summary>A file that can be enclosed.</summary>
/// <param name="Origin">What it came in; empty where that is not asked for.</param>
internal sealed record EnclosureView(
    long Id,
    string Name,
    long Size,
    string ContentType,
    string Origin,
    DateTimeOffset? GivenAt,
    string GivenBy
)
{
    /// <summary>A kept file with what is known of it.</summary>
    public static EnclosureView Of(EnclosureRecord r) =>
        new(r.File.Id, r.File.Name, r.File.Size, r.File.ContentType, r.Origin, r.GivenAt, r.GivenBy);

    /// <summary>A file as a parcel names it.</summary>
    public static EnclosureView Of(EnclosureFile f) => new(f.Id, f.Name, f.Size, f.ContentType, "", null, "");
}

/// <summary>Files by number.</summary>
internal sealed record EnclosuresRequest([property: MinLength(1), MaxLength(50_000)] IReadOnlyList<long> Files);

/// <summary>What files are said to be.</summary>
/// <param name="Files">The files by number.</param>
/// <param name="Customer">Whose document the one file is a copy of; empty where they are copies of nothing.</param>
/// <param name="Numbers">The numbers of its documents; none for copies of nothing. Null takes back what was said.</param>
internal sealed record CopyOfRequest(
    [property: MinLength(1), MaxLength(50_000)] IReadOnlyList<long> Files,
    [property: StringLength(400)] string Customer,
    [property: MaxLength(100)] IReadOnlyList<string>? Numbers
);

/// <summary>How files are looked at.</summary>
/// <param name="Pattern">Where the number stands in names; empty where that is found out by the names.</param>
/// <param name="Proposed">What the names speak for; empty where they speak for nothing.</param>
/// <param name="Kinds">Endings that are allowed beside the usual ones: <c>.p7m</c>.</param>
/// <param name="Usual">The usual ones.</param>
internal sealed record EnclosureSettings(string Pattern, string Proposed, IReadOnlyList<string> Kinds, IReadOnlyList<string> Usual);

/// <summary>How files are to be looked at.</summary>
internal sealed record EnclosureSettingsRequest(
    [property: StringLength(NamePattern.Longest)] string Pattern,
    [property: MaxLength(50)] IReadOnlyList<string> Kinds
);

/// <summary>A line of the list of copies.</summary>
/// <param name="Amount">What is open of the document, written for a file; empty for a file without one.</param>
internal sealed record CopyLineView(
    CopyLineState State,
    string Customer,
    string Name,
    string Number,
    string Amount,
    string Currency,
    IReadOnlyList<EnclosureView> Files,
    string Reason
)
{
    /// <summary>A line of the list of copies.</summary>
    public static CopyLineView Of(CopyLine l) =>
        new(
            l.State,
            l.Customer,
            l.Name,
            l.Number,
            l is { Amount: { } amount, Currency: { } currency } ? currency.Plain(amount) : "",
            l.Currency?.Code ?? "",
            [.. l.Files.Select(EnclosureView.Of)],
            l.Reason
        );
}

/// <summary>How many lines there are of a state.</summary>
internal sealed record CopyCount(CopyLineState State, int Count);

/// <summary>A part of the list of copies.</summary>
/// <param name="Counts">How many lines there are of each state, whatever is sought.</param>
/// <param name="Found">How many lines there are of the state that is asked for in which the text is found.</param>
/// <param name="Lines">Some of them.</param>
internal sealed record CopyPage(IReadOnlyList<CopyCount> Counts, int Found, IReadOnlyList<CopyLineView> Lines);
