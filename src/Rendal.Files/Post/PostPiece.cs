using Rendal.Core.Customers;

namespace Rendal.Files.Post;

/// <summary>One letter for the post.</summary>
/// <param name="Customer">The customer's code.</param>
/// <param name="Name">Who gets it.</param>
/// <param name="Lines">The lines of the address, without name and country.</param>
/// <param name="Country">The country; empty for the firm's own.</param>
/// <param name="Pdf">The document.</param>
public sealed record PostPiece(string Customer, string Name, IReadOnlyList<string> Lines, string Country, byte[] Pdf)
{
    /// <summary>
    /// The pieces as the post takes them: the firm's own country first, then the others, each one country however it is written; within
    /// each by postcode, then by address and name.
    /// </summary>
    /// <param name="pieces">The pieces.</param>
    /// <param name="ownCountry">The firm's own country; empty where it is not known, and only those count as its own that name
    /// none.</param>
    public static IReadOnlyList<PostPiece> InOrder(IEnumerable<PostPiece> pieces, string ownCountry = "") =>
        [
            .. pieces
                .OrderBy(
                    p => Core.Customers.Country.Key(p.Country) is var key && key == Core.Customers.Country.Key(ownCountry) ? "" : key,
                    StringComparer.Ordinal
                )
                .ThenBy(p => PostalCode.Of(p.Lines), StringComparer.Ordinal)
                .ThenBy(p => string.Join('\n', p.Lines.Reverse()), StringComparer.Ordinal)
                .ThenBy(p => p.Name, StringComparer.Ordinal)
                .ThenBy(p => p.Customer, StringComparer.Ordinal),
        ];
}
