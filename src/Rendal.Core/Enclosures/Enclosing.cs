namespace Rendal.Core.Enclosures;

/// <summary>What a round encloses beside the document.</summary>
public sealed record Enclosing
{
    /// <summary>The most files that go with all messages of a round.</summary>
    public const int MostForAll = 20;

    /// <summary>How the copies of invoices and credit notes are enclosed.</summary>
    public CopyForm Copies { get; init; }

    /// <summary>
    /// Whether a parcel goes without the copies that are missing. Else an invoice without a copy keeps it until there is one. The copy of
    /// a credit note is enclosed where there is one, and missed by nobody.
    /// </summary>
    public bool WithoutMissing { get; init; }

    /// <summary>Whether a message that is larger than the sender's server takes goes as several; else a person has to see to it.</summary>
    public bool Split { get; init; }

    /// <summary>Whether the files that are kept with a customer stay away.</summary>
    public bool WithoutOwn { get; init; }

    /// <summary>The numbers of the files that go with every message, in their order.</summary>
    public IReadOnlyList<long> ForAll { get; init; } = [];

    /// <summary>
    /// The heading of the column of the ledger in which the name of a file stands that is enclosed; empty for none.
    /// </summary>
    public string Column { get; init; } = "";
}
