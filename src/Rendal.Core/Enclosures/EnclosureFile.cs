namespace Rendal.Core.Enclosures;

/// <summary>What a file was given in for.</summary>
public enum EnclosureUse
{
    /// <summary>It is a copy of a document of the ledger.</summary>
    Copy,

    /// <summary>It goes with every message to one customer.</summary>
    Customer,

    /// <summary>It can be picked for all messages of a round, or for one parcel.</summary>
    Picked,
}

/// <summary>A file that was given in to be enclosed.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Name">Its name as the recipient sees it, safe for every file system.</param>
/// <param name="Sha256">The hash of its content, as 64 lower-case hexadecimal digits.</param>
/// <param name="Size">Its size in bytes.</param>
/// <param name="ContentType">Its media type (RFC 6838).</param>
/// <param name="Use">What it was given in for.</param>
public sealed record EnclosureFile(long Id, string Name, string Sha256, long Size, string ContentType, EnclosureUse Use)
{
    /// <summary>The customer whose messages it goes with; empty for another use.</summary>
    public string Customer { get; init; } = "";

    /// <summary>Which document it is a copy of, as its name and text say.</summary>
    public Recognised Recognised { get; init; } = Recognised.Nothing("");

    /// <summary>Which documents it is a copy of, as a person says; null where nobody said.</summary>
    public CopyOf? ByHand { get; init; }
}

/// <summary>Which documents a file is a copy of, as a person says.</summary>
/// <param name="Customer">Whose they are; empty where it is a copy of nothing.</param>
/// <param name="Numbers">Their keys, as <see cref="DocumentNumber.Key"/>; none for a copy of nothing.</param>
public sealed record CopyOf(string Customer, IReadOnlyList<string> Numbers)
{
    /// <summary>It is a copy of nothing.</summary>
    public static CopyOf Nothing { get; } = new("", []);
}
