using Rendal.Core.Statements;

namespace Rendal.Core.Enclosures;

/// <summary>A file that goes with a parcel beside its document.</summary>
/// <param name="File">The number of the file as it was given in.</param>
/// <param name="Name">Its name as the recipient sees it.</param>
/// <param name="Sha256">The hash of its content, as 64 lower-case hexadecimal digits.</param>
/// <param name="Size">Its size in bytes.</param>
/// <param name="ContentType">Its media type (RFC 6838).</param>
/// <param name="Customer">
/// Whose document it is a copy of, or whose messages it goes with; empty for a file that goes with any.
/// </param>
/// <param name="Numbers">The numbers of the documents that it is a copy of, as in the ledger; none for no copy.</param>
public sealed record ParcelEnclosure(
    long File,
    string Name,
    string Sha256,
    long Size,
    string ContentType,
    string Customer,
    IReadOnlyList<string> Numbers
)
{
    /// <summary>Whether a column of the ledger names it, so that what its own name and text say does not count.</summary>
    public bool IsNamed { get; init; }

    /// <summary>Which of the messages of the parcel it goes with, from 0; more than 0 only where one message would be too large.</summary>
    public int Message { get; init; }

    /// <summary>Whether it is a copy of a document of the ledger.</summary>
    public bool IsCopy => Numbers.Count > 0;

    /// <summary>
    /// Whether it may go with statements: a copy only where each of its documents is an item of them, of the account that it is of; a
    /// file of one customer only where that is one of the accounts.
    /// </summary>
    public bool BelongsTo(IReadOnlyList<Statement> statements) =>
        Customer.Length == 0
        || (
            IsCopy
                ? Numbers.All(number =>
                    statements
                        .SelectMany(s => s.Items)
                        .Any(i => i.Row.Customer == Customer && DocumentNumber.Key(i.Row.Number) == DocumentNumber.Key(number))
                )
                : statements.SelectMany(s => s.Accounts).Any(a => a.Customer == Customer)
        );
}
