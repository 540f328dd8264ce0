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
    /// <summary>The pieces as the post takes them: the firm's own country first, then the others by name; within each by postcode, then by address and name.</summary>
    public static IReadOnlyList<PostPiece> InOrder(IEnumerable<PostPiece> pieces) =>
    [
        .. pieces.OrderBy(p => p.Country.Trim(), StringComparer.OrdinalIgnoreCase).ThenBy(p => PostalCode.Of(p.Lines), StringComparer.Ordinal)
            .ThenBy(p => string.Join('\n', p.Lines.Reverse()), StringComparer.Ordinal).ThenBy(p => p.Name, StringComparer.Ordinal).ThenBy(p => p.Customer, StringComparer.Ordinal),
    ];
}
