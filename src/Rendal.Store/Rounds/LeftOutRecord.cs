namespace Rendal.Store.Rounds;

/// <summary>What of a customer is left out, with the customer's name.</summary>
public sealed record LeftOutRecord(string? Customer, string Name, string? Currency, string Reason, decimal Amount, int Items);
