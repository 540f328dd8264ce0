using Rendal.Core.Customers;
using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>What choosing has to know of a customer beside the ledger.</summary>
/// <param name="OnHold">Whether nothing is to be sent.</param>
/// <param name="HasAddress">Whether there is at least one good address.</param>
/// <param name="LastWritten">The last day on which something was sent; null for never.</param>
/// <param name="MinimumBalance">The least balance for this customer; null for the round's.</param>
/// <param name="HeadOffice">The key of the head office at the top; the customer itself where it has none; null where that is not known, or
/// runs in a loop.</param>
/// <param name="Groups">Of a head office: who of it and its branches gets the statements.</param>
/// <param name="Form">What the customer's statements list; null for what the book says.</param>
public readonly record struct Reachability(
    bool OnHold,
    bool HasAddress,
    DateOnly? LastWritten,
    decimal? MinimumBalance = null,
    string? HeadOffice = null,
    GroupStatements Groups = GroupStatements.Branches,
    StatementForm? Form = null
);
