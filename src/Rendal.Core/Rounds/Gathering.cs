using System.Runtime.InteropServices;
using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>Gathers the accounts of a ledger under who gets their statements, and accounts for every one.</summary>
internal sealed class Gathering
{
    private readonly Choice choice;
    private readonly StatementRules rules;
    private readonly SettlementRule settlement;
    private readonly HandIndex hand;
    private readonly Func<string, Reachability> reachability;
    private readonly HashSet<(string Customer, Currency? Currency)> unread = [];
    private readonly SortedDictionary<Currency, decimal> ledger = [];
    private readonly LeftOutSums leftOut = new();
    private readonly List<Statement> sent = [];
    private readonly Dictionary<(string HeadOffice, Currency Currency), List<Statement>> groups = [];
    private readonly HashSet<(string HeadOffice, Currency? Currency)> blockedGroups = [];

    public Gathering(Choice choice, StatementRules rules, SettlementRule settlement, HandIndex hand, Func<string, Reachability> reachability, IEnumerable<RowSetAside> setAside)
    {
        (this.choice, this.rules, this.settlement, this.hand, this.reachability) = (choice, rules, settlement, hand, reachability);
        foreach (var row in setAside)
        {
            leftOut.Add(row.Customer, row.Currency, LeftOutReason.Error, row.Amount);
            if (row.Currency is { } currency)
            {
                ledger[currency] = ledger.GetValueOrDefault(currency) + row.Amount;
            }

            if (row.Customer is { } customer && unread.Add((customer, row.Currency)) && GroupOf(customer) is { } group && AccountReason(customer, reachability(customer)) is null)
            {
                // The statement of the group would lack what the row says, which a person who reads it could not see.
                blockedGroups.Add((group.HeadOffice, row.Currency));
            }
        }
    }

    /// <summary>Takes one account in.</summary>
    public void Take(CustomerAccount account)
    {
        ledger[account.Currency] = ledger.GetValueOrDefault(account.Currency) + account.Rows.Sum(r => r.Open);
        var groupOf = GroupOf(account.Customer);
        var form = choice.Form ?? reachability(groupOf?.HeadOffice ?? account.Customer).Form ?? rules.Form;
        if (Choosing.Draw(account, choice, form, settlement, rules.Ageing, hand, leftOut) is not { } statement)
        {
            return;
        }

        if (groupOf is not { } group)
        {
            Decide(statement, ReasonAgainst(statement));
        }
        else if ((IsUnread(statement) ? LeftOutReason.Error : AccountReason(statement.Customer, reachability(statement.Customer))) is { } reason)
        {
            LeaveOut(statement, reason);
        }
        else if (statement.IsEmpty)
        {
            LeaveOut(statement, LeftOutReason.NothingOpen);
        }
        else
        {
            ref var parts = ref CollectionsMarshal.GetValueRefOrAddDefault(groups, (group.HeadOffice, account.Currency), out _);
            (parts ??= []).Add(statement);
        }
    }

    /// <summary>Decides about the groups, once all accounts were taken in, and returns what all comes to.</summary>
    public ChosenRound Chosen()
    {
        foreach (var ((headOffice, _), parts) in groups)
        {
            DecideGroup(headOffice, parts);
        }

        if (groups.Count > 0)
        {
            sent.Sort((a, b) => string.CompareOrdinal(a.Customer, b.Customer) is var order and not 0 ? order : a.Currency.CompareTo(b.Currency));
        }

        var sums = sent.Where(s => s.AlsoOn is null).GroupBy(s => s.Currency).ToDictionary(g => g.Key, g => g.Sum(s => s.Total));
        return new ChosenRound(sent, leftOut.Listed(), [.. ledger.Select(l => new Proof(l.Key, l.Value, sums.GetValueOrDefault(l.Key), leftOut.Of(l.Key)))]);
    }

    private void DecideGroup(string headOffice, List<Statement> parts)
    {
        var gathered = Statement.Gather(headOffice, parts);
        var of = reachability(headOffice);
        var isBlocked = blockedGroups.Contains((headOffice, null)) || blockedGroups.Contains((headOffice, gathered.Currency));
        var reason = isBlocked ? LeftOutReason.Error
            : hand.IsOut(headOffice) ? LeftOutReason.RemovedByHand
            : of.OnHold ? LeftOutReason.OnHold
            : ReasonAgainstBalance(gathered, of);
        if (reason is null)
        {
            sent.Add(gathered);
        }

        foreach (var part in parts)
        {
            if (GroupOf(part.Customer)?.Both == true && part.Customer != headOffice)
            {
                // A branch that gets its own as well: to know where the head office's goes, counted where that does not go.
                Decide(reason is null ? part with { AlsoOn = headOffice } : part, ReasonAgainst(part));
            }
            else if (reason is { } against)
            {
                LeaveOut(part, against);
            }
        }
    }

    private void Decide(Statement statement, LeftOutReason? reason)
    {
        if (reason is null)
        {
            sent.Add(statement);
        }
        else
        {
            LeaveOut(statement, reason.Value);
        }
    }

    private void LeaveOut(Statement statement, LeftOutReason reason)
    {
        if (statement.AlsoOn is null)
        {
            leftOut.Add(statement.Customer, statement.Currency, reason, statement.Total, statement.Items.Count + statement.SettledRows);
        }
        else
        {
            leftOut.Add(statement.Customer, statement.Currency, reason, 0, 0);
        }
    }

    private LeftOutReason? ReasonAgainst(Statement statement)
    {
        if (IsUnread(statement))
        {
            return LeftOutReason.Error;
        }

        var of = reachability(statement.Customer);
        return AccountReason(statement.Customer, of) ?? ReasonAgainstBalance(statement, of);
    }

    private bool IsUnread(Statement statement) => unread.Count > 0 && (unread.Contains((statement.Customer, null)) || unread.Contains((statement.Customer, statement.Currency)));

    /// <summary>Why an account is in nothing that is sent, whatever stands on it.</summary>
    private LeftOutReason? AccountReason(string customer, Reachability of) =>
        hand.IsOut(customer) ? LeftOutReason.RemovedByHand
        : !hand.IsIn(customer) && !IsChosen(customer, of) ? LeftOutReason.NotChosen
        : of.OnHold ? LeftOutReason.OnHold
        : null;

    /// <summary>Why nothing is sent to who would get a statement.</summary>
    private LeftOutReason? ReasonAgainstBalance(Statement statement, Reachability of)
    {
        var isPutIn = hand.IsIn(statement.Customer);
        return statement.Total == 0 ? LeftOutReason.NothingOpen
            : statement.Total < 0 ? LeftOutReason.CreditBalance
            : !isPutIn && statement.Total < (of.MinimumBalance ?? choice.LeastBalance) ? LeftOutReason.BelowTheMinimum
            : !isPutIn && choice.OverdueDays is { } days && statement.OldestDaysPastDue < days ? LeftOutReason.NotOverdueEnough
            : !isPutIn && choice.NotWithinDays is { } within && of.LastWritten is { } last && last > choice.AsOf.AddDays(-within) ? LeftOutReason.WrittenToRecently
            : choice.NeedsAddress && !of.HasAddress ? LeftOutReason.NoWayToReach
            : null;
    }

    private bool IsChosen(string customer, Reachability of) =>
        (choice.Customers is not { } chosen || chosen.Contains(customer)) && (choice.HeadOffices is not { } offices || offices.Contains(of.HeadOffice ?? customer));

    /// <summary>The head office that gets the statement of a customer, and whether the customer gets it as well; null where only the customer does.</summary>
    private (string HeadOffice, bool Both)? GroupOf(string customer)
    {
        var headOffice = reachability(customer).HeadOffice ?? customer;
        return (choice.Groups ?? reachability(headOffice).Groups) switch
        {
            GroupStatements.HeadOffice => (headOffice, false),
            GroupStatements.Both => (headOffice, true),
            _ => null,
        };
    }
}
