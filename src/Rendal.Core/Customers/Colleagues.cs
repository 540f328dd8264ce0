using Rendal.Core.Statements;

namespace Rendal.Core.Customers;

/// <summary>The colleagues who get a copy of a customer's message, by a column of the ledger.</summary>
public static class Colleagues
{
    /// <summary>
    /// The card with a contact for each address that stands in the column of an item on the statements, who gets a blind copy. An address
    /// that is none becomes a contact too, so that the parcel needs a person.
    /// </summary>
    /// <param name="card">The card.</param>
    /// <param name="statements">The statements.</param>
    /// <param name="column">The heading of the column; empty for none.</param>
    public static Customer OnCard(Customer card, IReadOnlyList<Statement> statements, string column)
    {
        if (column.Length == 0)
        {
            return card;
        }

        var named = StatementRows
            .ValuesIn(statements, column)
            .Select(address => new Contact { Address = address, Role = ContactRole.BlindCopy })
            .ToList();
        return named.Count == 0 ? card : card with { Contacts = [.. card.Contacts, .. named] };
    }
}
