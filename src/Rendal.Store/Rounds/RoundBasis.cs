using System.Security.Cryptography;
using System.Text;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;

namespace Rendal.Store.Rounds;

/// <summary>What a round is made up from beside the ledger.</summary>
/// <param name="Choice">Who and what is wanted.</param>
/// <param name="Hand">What was decided by hand.</param>
/// <param name="Rules">What the book has settled for its statements.</param>
public sealed record RoundBasis(Choice Choice, ByHand Hand, StatementRules Rules)
{
    /// <summary>A text that is the same for all that want the same items, whichever customers they want.</summary>
    public string OfItems() =>
        Convert.ToHexStringLower(
            SHA256.HashData(
                Encoding.UTF8.GetBytes(StoreJson.Write(this with { Choice = Choice.OfItems(), Hand = Hand with { Customers = [] } }))
            )
        );
}
