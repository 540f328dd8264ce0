using Rendal.Core.Reminders;

namespace Rendal.Core.Statements;

/// <summary>What a book has settled for all its statements.</summary>
/// <param name="Ageing">The bands, and from which date an age counts.</param>
/// <param name="Form">What a statement lists where neither the round nor the customer's card says.</param>
/// <param name="Settlement">How payments are set against invoices; null to go by the file: not at all where it gives what is outstanding,
/// else by reference, then oldest first.</param>
public sealed record StatementRules(AgeingRule Ageing, StatementForm Form = StatementForm.OpenItems, SettlementRule? Settlement = null)
{
    /// <summary>When which reminder is to be sent.</summary>
    public ReminderRules Reminders { get; init; } = ReminderRules.Default;

    /// <summary>The rules of a book in which nothing was set.</summary>
    public static StatementRules Default { get; } = new(AgeingRule.Default);

    /// <summary>How payments of a file are set against invoices.</summary>
    /// <param name="hasOutstanding">Whether the file gives what is outstanding.</param>
    public SettlementRule SettlementOf(bool hasOutstanding) =>
        Settlement ?? (hasOutstanding ? SettlementRule.None : SettlementRule.Oldest);
}
