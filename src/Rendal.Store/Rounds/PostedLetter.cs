namespace Rendal.Store.Rounds;

/// <summary>What one customer gets by post.</summary>
/// <param name="Customer">The customer.</param>
/// <param name="Name">The customer's name.</param>
/// <param name="Lines">The lines of the address, without name and country.</param>
/// <param name="Country">The country; empty for the firm's own.</param>
/// <param name="Pdf">The document.</param>
public sealed record PostedLetter(string Customer, string Name, IReadOnlyList<string> Lines, string Country, byte[] Pdf);
