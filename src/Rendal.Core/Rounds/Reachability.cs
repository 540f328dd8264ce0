namespace Rendal.Core.Rounds;

/// <summary>What choosing has to know of a customer beside the ledger.</summary>
/// <param name="OnHold">Whether nothing is to be sent.</param>
/// <param name="HasAddress">Whether there is at least one good address.</param>
/// <param name="LastWritten">The last day on which something was sent; null for never.</param>
/// <param name="MinimumBalance">The least balance for this customer; null for the round's.</param>
/// <param name="HeadOffice">The key of the head office at the top; null for a customer that has none.</param>
public readonly record struct Reachability(bool OnHold, bool HasAddress, DateOnly? LastWritten, decimal? MinimumBalance = null, string? HeadOffice = null);
