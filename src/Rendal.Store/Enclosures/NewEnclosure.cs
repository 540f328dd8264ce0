using Rendal.Core.Enclosures;

namespace Rendal.Store.Enclosures;

/// <summary>A file to be kept, so that it can be enclosed.</summary>
/// <param name="Name">Its name, safe for every file system.</param>
/// <param name="Sha256">The hash of its content.</param>
/// <param name="Bytes">Its content.</param>
/// <param name="ContentType">Its media type (RFC 6838).</param>
/// <param name="Origin">What it came in, for a person: <c>invoices.pdf, pages 3 to 4</c>.</param>
/// <param name="Text">Its text; empty where it has none.</param>
/// <param name="Recognised">Which document of the ledger it is a copy of.</param>
public sealed record NewEnclosure(
    string Name,
    byte[] Sha256,
    byte[] Bytes,
    string ContentType,
    string Origin,
    string Text,
    Recognised Recognised
);

/// <summary>What new files are given in for.</summary>
/// <param name="Use">What for.</param>
/// <param name="Customer">The customer whose messages they go with; empty for another use.</param>
/// <param name="Intake">The intake by whose numbers copies were recognised; null where there was none.</param>
public sealed record EnclosurePurpose(EnclosureUse Use, string Customer, long? Intake);
