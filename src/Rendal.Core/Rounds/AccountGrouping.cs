using System.Runtime.InteropServices;
using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Rounds;

/// <summary>A statement that is to be sent: the accounts on it, and who gets it.</summary>
/// <param name="Receiver">The customer, or the head office.</param>
/// <param name="Currency">The currency.</param>
/// <param name="Accounts">The accounts; more than one for a head office alone.</param>
/// <param name="Total">What they come to.</param>
/// <param name="AlsoOn">The head office whose statement has the same items and counts them; null for one that counts.</param>
/// <param name="ReminderLevel">The level of the reminder that it goes with; null for one that is no reminder.</param>
internal readonly record struct GroupedAccounts(
    string Receiver,
    Currency Currency,
    IReadOnlyList<AccountSum> Accounts,
    decimal Total,
    string? AlsoOn,
    int? ReminderLevel
);

/// <summary>Gathers accounts under who gets their statements, and decides about each: sent, or left out for one reason.</summary>
internal sealed class AccountGrouping
{
    private readonly Choice choice;
    private readonly HandIndex hand;
    private readonly Func<string, Reachability> reachability;
    private readonly HashSet<(string Customer, Currency? Currency)> unread = [];
    private readonly ILeftOut leftOut;
    private readonly Action<GroupedAccounts> send;
    private readonly Dictionary<(string HeadOffice, Currency Currency), List<AccountSum>> groups = [];
    private readonly HashSet<(string HeadOffice, Currency? Currency)> blockedGroups = [];

    /// <summary>Begins with no account.</summary>
    /// <param name="choice">Whom the round is about.</param>
    /// <param name="hand">What was decided by hand.</param>
    /// <param name="reachability">How a customer can be reached.</param>
    /// <param name="setAside">The rows that count nowhere because of an error; they are left out from the beginning.</param>
    /// <param name="leftOut">Where what is left out goes.</param>
    /// <param name="send">Where accounts that are sent go, under who gets them.</param>
    public AccountGrouping(
        Choice choice,
        HandIndex hand,
        Func<string, Reachability> reachability,
        IEnumerable<RowSetAside> setAside,
        ILeftOut leftOut,
        Action<GroupedAccounts> send
    )
    {
        (this.choice, this.hand, this.reachability, this.leftOut, this.send) = (choice, hand, reachability, leftOut, send);
        foreach (var row in setAside)
        {
            leftOut.Add(row.Customer, row.Currency, LeftOutReason.Error, row.Amount);
            if (
                row.Customer is { } customer
                && unread.Add((customer, row.Currency))
                && GroupOf(customer, reachability(customer)) is { } group
                && AccountReason(customer, reachability(customer)) is null
            )
            {
                // The statement of the group would lack what the row says, which a person who reads it could not see.
                blockedGroups.Add((group.HeadOffice, row.Currency));
            }
        }
    }

    /// <summary>Takes in what one account comes to. Not after <see cref="Close"/>.</summary>
    public void Take(in AccountSum account)
    {
        var of = reachability(account.Customer);
        if (GroupOf(account.Customer, of) is not { } group)
        {
            Decide(account, null, ReasonAgainst(account, of));
        }
        else if ((IsUnread(account) ? LeftOutReason.Error : AccountReason(account.Customer, of)) is { } reason)
        {
            LeaveOut(account, null, reason);
        }
        else if (account.IsEmpty)
        {
            LeaveOut(account, null, LeftOutReason.NothingOpen);
        }
        else
        {
            ref var accounts = ref CollectionsMarshal.GetValueRefOrAddDefault(groups, (group.HeadOffice, account.Currency), out _);
            (accounts ??= []).Add(account);
        }
    }

    /// <summary>
    /// Decides who gets whose statements. To be called once, after all accounts were taken in and before anything is asked.
    /// </summary>
    public void Close()
    {
        foreach (var ((headOffice, _), accounts) in groups)
        {
            DecideGroup(headOffice, accounts);
        }
    }

    /// <summary>
    /// The head office that gets the statement of a customer, and whether the customer gets it as well; null where only the customer does.
    /// </summary>
    public (string HeadOffice, bool Both)? GroupOf(string customer, in Reachability of)
    {
        var headOffice = of.HeadOffice ?? customer;
        return (choice.Groups ?? (headOffice == customer ? of : reachability(headOffice)).Groups) switch
        {
            GroupStatements.HeadOffice => (headOffice, false),
            GroupStatements.Both => (headOffice, true),
            _ => null,
        };
    }

    private void DecideGroup(string headOffice, List<AccountSum> accounts)
    {
        var whole = AccountSum.Of(headOffice, accounts);
        var of = reachability(headOffice);
        var isBlocked = blockedGroups.Contains((headOffice, null)) || blockedGroups.Contains((headOffice, whole.Currency));
        var reason =
            isBlocked ? LeftOutReason.Error
            : hand.IsOut(headOffice) ? LeftOutReason.RemovedByHand
            : of.OnHold ? LeftOutReason.OnHold
            : ReasonAgainstBalance(whole, of);
        if (reason is null)
        {
            send(new GroupedAccounts(headOffice, whole.Currency, accounts, whole.Total, null, whole.Reminder?.Level));
        }

        foreach (var account in accounts)
        {
            var branch = reachability(account.Customer);
            if (GroupOf(account.Customer, branch)?.Both == true && account.Customer != headOffice)
            {
                // A branch that gets its own as well: to know where the head office's goes, counted where that does not go.
                Decide(account, reason is null ? headOffice : null, ReasonAgainst(account, branch));
            }
            else if (reason is { } against)
            {
                LeaveOut(account, null, against);
            }
        }
    }

    private void Decide(in AccountSum account, string? alsoOn, LeftOutReason? reason)
    {
        if (reason is null)
        {
            send(new GroupedAccounts(account.Customer, account.Currency, [account], account.Total, alsoOn, account.Reminder?.Level));
        }
        else
        {
            LeaveOut(account, alsoOn, reason.Value);
        }
    }

    private void LeaveOut(in AccountSum account, string? alsoOn, LeftOutReason reason) =>
        leftOut.Add(account.Customer, account.Currency, reason, alsoOn is null ? account.Total : 0, alsoOn is null ? account.Rows : 0);

    private LeftOutReason? ReasonAgainst(in AccountSum account, in Reachability of) =>
        IsUnread(account) ? LeftOutReason.Error : AccountReason(account.Customer, of) ?? ReasonAgainstBalance(account, of);

    private bool IsUnread(in AccountSum account) =>
        unread.Count > 0 && (unread.Contains((account.Customer, null)) || unread.Contains((account.Customer, account.Currency)));

    /// <summary>Why an account is in nothing that is sent, whatever stands on it.</summary>
    private LeftOutReason? AccountReason(string customer, in Reachability of) =>
        hand.IsOut(customer) ? LeftOutReason.RemovedByHand
        : !hand.IsIn(customer) && !IsChosen(customer, of) ? LeftOutReason.NotChosen
        : of.OnHold ? LeftOutReason.OnHold
        : null;

    /// <summary>Why nothing is sent to who would get a statement.</summary>
    private LeftOutReason? ReasonAgainstBalance(in AccountSum sum, in Reachability of)
    {
        var isPutIn = hand.IsIn(sum.Customer);
        return sum.Total == 0 ? LeftOutReason.NothingOpen
            : sum.Total < 0 && choice.Kind != RoundKind.Confirmations ? LeftOutReason.CreditBalance
            : !isPutIn && Math.Abs(sum.Total) < (of.MinimumBalance ?? choice.LeastBalance) ? LeftOutReason.BelowTheMinimum
            : !isPutIn && choice.OverdueDays is { } days && sum.OldestDaysPastDue < days ? LeftOutReason.NotOverdueEnough
            : choice.ReminderLevels is { } levels
            && !(isPutIn ? sum.OldestDaysPastDue > 0 : sum.Reminder is { IsDue: true } due && levels.Contains(due.Level))
                ? LeftOutReason.NoReminderDue
            : !isPutIn && choice.WrittenSince is { } since && of.LastWritten >= since ? LeftOutReason.WrittenToRecently
            : choice.NeedsAddress && !of.HasAddress ? LeftOutReason.NoWayToReach
            : null;
    }

    private bool IsChosen(string customer, in Reachability of) =>
        (choice.Customers is not { } chosen || chosen.Contains(customer))
        && (choice.HeadOffices is not { } offices || offices.Contains(of.HeadOffice ?? customer));
}
