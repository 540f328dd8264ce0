namespace Rendal.Core.Intake;

/// <summary>How a file was opened before any of its rows was understood, each decision with its reason.</summary>
public sealed record FileTraits
{
    /// <summary>A table that was not opened from a file.</summary>
    public static FileTraits None { get; } = new();

    /// <summary>The sheets of a workbook in its order; empty for a text file.</summary>
    public IReadOnlyList<SheetSeen> Sheets { get; init; } = [];

    /// <summary>Why this sheet was taken, in plain words; empty for a text file.</summary>
    public string SheetReason { get; init; } = "";

    /// <summary>What parts the cells of a text file; null for a workbook.</summary>
    public char? Delimiter { get; init; }

    /// <summary>Why it is this delimiter, in plain words.</summary>
    public string DelimiterReason { get; init; } = "";

    /// <summary>The encoding of a text file by its IANA name, for example <c>windows-1252</c>; null for a workbook.</summary>
    public string? Encoding { get; init; }

    /// <summary>Why it is this encoding, in plain words.</summary>
    public string EncodingReason { get; init; } = "";

    /// <summary>The columns that the workbook hides, from 0.</summary>
    public IReadOnlyList<int> HiddenColumns { get; init; } = [];

    /// <summary>Whether day 0 of the workbook's serial dates is 1 January 1904 rather than 30 December 1899.</summary>
    public bool Dates1904 { get; init; }
}

/// <summary>A sheet of a workbook.</summary>
/// <param name="Name">Its name.</param>
/// <param name="IsHidden">Whether the workbook hides it.</param>
public sealed record SheetSeen(string Name, bool IsHidden);

/// <summary>What a person has decided about how a file is opened; null is worked out.</summary>
/// <param name="Sheet">The sheet of a workbook.</param>
/// <param name="Delimiter">What parts the cells of a text file: comma, semicolon, tab or bar.</param>
/// <param name="Encoding">The encoding of a text file by its IANA name.</param>
public sealed record FileOpening(string? Sheet = null, char? Delimiter = null, string? Encoding = null)
{
    /// <summary>Nothing decided.</summary>
    public static FileOpening Unsaid { get; } = new();
}
