namespace Rendal.Core.Intake;

/// <summary>Finds the customers that nothing could be sent to.</summary>
public static class MissingAddresses
{
    /// <summary>
    /// One finding for each customer of the ledger that has a good address neither on its rows nor, by <paramref name="listed"/>, on its
    /// card.
    /// </summary>
    public static IEnumerable<Finding> Among(IEnumerable<CustomerSeen> seen, Func<string, bool> listed) =>
        seen.Where(customer => customer.Addresses.Count == 0 && !listed(customer.Key))
            .Select(customer => new Finding(
                FindingCodes.MissingAddress,
                Severity.Warning,
                customer.First,
                customer.EmailColumn,
                customer.Key,
                $"{(customer.Name.Length > 0 ? customer.Name : customer.Key)} has no e-mail address.",
                "Fill it in on the customer’s card, or send the statement by post."
            ));
}
