using System.Collections.Frozen;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>Chooses who is written to about what, and accounts for everything else.</summary>
public static class Choosing
{
    private static readonly FrozenDictionary<string, Reminded> NoneReminded = FrozenDictionary<string, Reminded>.Empty;

    /// <summary>
    /// Chooses from a whole ledger. Every row ends in exactly one place: on a statement, or left out for one reason.
    /// </summary>
    /// <param name="rows">The ledger rows.</param>
    /// <param name="setAside">The rows that could not be used; each blocks its customer in its currency, or in all where that is
    /// unknown.</param>
    /// <param name="choice">Who and what is wanted.</param>
    /// <param name="settlement">How payments are set against invoices first: <see cref="StatementRules.SettlementOf"/>.</param>
    /// <param name="rules">What the book has settled.</param>
    /// <param name="reachability">What is known of a customer beside the ledger.</param>
    /// <param name="byHand">What people have decided about single customers and items.</param>
    /// <param name="reminded">How far the reminders about single items have come, by <see cref="ItemKey"/> as text; of no meaning for a
    /// round of statements.</param>
    public static ChosenRound Choose(
        IEnumerable<LedgerRow> rows,
        IReadOnlyCollection<RowSetAside> setAside,
        Choice choice,
        SettlementRule settlement,
        StatementRules rules,
        Func<string, Reachability> reachability,
        ByHand? byHand = null,
        IReadOnlyDictionary<string, Reminded>? reminded = null
    )
    {
        var hand = new HandIndex(byHand ?? ByHand.Nothing, choice.AsOf);
        var leftOut = new LeftOutSums();
        var itemsLeftOut = new LeftOutSums();
        var sent = new List<GroupedAccounts>();
        var gathering = new AccountGrouping(choice, hand, reachability, setAside, leftOut, sent.Add);
        var ledger = new SortedDictionary<Currency, decimal>();
        foreach (var row in setAside)
        {
            if (row.Currency is { } currency)
            {
                ledger[currency] = ledger.GetValueOrDefault(currency) + row.Amount;
            }
        }

        var drawn = new Dictionary<(string Customer, Currency Currency), Statement>();
        var sums = new List<AccountSum>();
        foreach (var account in CustomerAccount.Group(rows))
        {
            ledger[account.Currency] = ledger.GetValueOrDefault(account.Currency) + account.Rows.Sum(r => r.Open);
            var form = choice.Form
                ?? reachability(gathering.GroupOf(account.Customer, reachability(account.Customer))?.HeadOffice ?? account.Customer).Form
                ?? rules.Form;
            if (Draw(account, choice, form, settlement, rules.Ageing, hand, itemsLeftOut) is { } statement)
            {
                var sum = AccountSum.Of(
                    statement,
                    choice.ReminderLevels is null ? null : rules.Reminders.StepOf(statement, reminded ?? NoneReminded)
                );
                drawn.Add((sum.Customer, sum.Currency), statement);
                sums.Add(sum);
                gathering.Take(sum);
            }
        }

        gathering.Close();
        sent.Sort(
            (a, b) => string.CompareOrdinal(a.Receiver, b.Receiver) is var order and not 0 ? order : a.Currency.CompareTo(b.Currency)
        );
        leftOut.Add(itemsLeftOut);
        var statements = sent.Select(s =>
                Statement.Gather(s.Receiver, [.. s.Accounts.Select(a => drawn[(a.Customer, a.Currency)])]) with
                {
                    AlsoOn = s.AlsoOn,
                    ReminderLevel = s.ReminderLevel,
                }
            )
            .ToList();
        return new ChosenRound(statements, leftOut.Listed(), Proofs(ledger, sent, leftOut))
        {
            Accounts = sums,
            ItemsLeftOut = itemsLeftOut.Shares(),
        };
    }

    /// <summary>
    /// Counts what choosing comes to, from what the items of each account came to before. It holds for every choice that wants the same
    /// items (<see cref="Choice.OfItems"/>), and decides in the same way as <see cref="Choose"/>.
    /// </summary>
    /// <param name="accounts">The accounts.</param>
    /// <param name="itemsLeftOut">What of their items is not wanted.</param>
    /// <param name="setAside">The rows that could not be used.</param>
    /// <param name="choice">Who is wanted.</param>
    /// <param name="reachability">What is known of a customer beside the ledger.</param>
    /// <param name="byHand">What people have decided about customers.</param>
    public static ChosenCount Count(
        IEnumerable<AccountSum> accounts,
        IReadOnlyList<LeftOutShare> itemsLeftOut,
        IReadOnlyCollection<RowSetAside> setAside,
        Choice choice,
        Func<string, Reachability> reachability,
        ByHand byHand
    )
    {
        var leftOut = new LeftOutTally();
        var receivers = new HashSet<string>(StringComparer.Ordinal);
        var sums = new Dictionary<Currency, decimal>();
        var gathering = new AccountGrouping(choice, new HandIndex(byHand, choice.AsOf), reachability, setAside, leftOut, Send);
        foreach (var account in accounts)
        {
            gathering.Take(account);
        }

        gathering.Close();
        return new ChosenCount(receivers.Count, sums, [.. leftOut.Shares(), .. itemsLeftOut]);

        void Send(GroupedAccounts statement)
        {
            receivers.Add(statement.Receiver);
            if (statement.AlsoOn is null)
            {
                sums[statement.Currency] = sums.GetValueOrDefault(statement.Currency) + statement.Total;
            }
        }
    }

    /// <summary>
    /// The statements of a parcel again, one for each currency, from all rows of the accounts that are on it: nothing but the rows, the
    /// choice and what was decided by hand counts, so it comes out the same at any time. Who is chosen was decided before and is not asked
    /// again.
    /// </summary>
    /// <param name="receiver">Who gets them: the customer, or the head office of several.</param>
    /// <param name="form">What the statements of the receiver list, where the choice does not say.</param>
    /// <param name="rows">All rows of the accounts.</param>
    /// <param name="choice">Which items are wanted.</param>
    /// <param name="settlement">How payments are set against invoices first.</param>
    /// <param name="rules">What the book has settled.</param>
    /// <param name="byHand">What people have decided.</param>
    public static IReadOnlyList<Statement> Again(
        string receiver,
        StatementForm? form,
        IEnumerable<LedgerRow> rows,
        Choice choice,
        SettlementRule settlement,
        StatementRules rules,
        ByHand byHand
    )
    {
        var hand = new HandIndex(byHand, choice.AsOf);
        return
        [
            .. CustomerAccount
                .Group(rows)
                .Select(account => Draw(account, choice, choice.Form ?? form ?? rules.Form, settlement, rules.Ageing, hand, null))
                .Where(statement => statement is { IsEmpty: false })
                .GroupBy(statement => statement!.Currency, (_, of) => Statement.Gather(receiver, [.. of!]))
                .OrderBy(statement => statement.Currency),
        ];
    }

    /// <summary>Where each item of one customer ends, in the order of statements: by due date, date and number.</summary>
    /// <param name="rows">All rows of the customer.</param>
    /// <param name="choice">Which items are wanted.</param>
    /// <param name="settlement">How payments are set against invoices first.</param>
    /// <param name="byHand">What people have decided.</param>
    public static IReadOnlyList<ItemChosen> Items(IEnumerable<LedgerRow> rows, Choice choice, SettlementRule settlement, ByHand byHand)
    {
        var hand = new HandIndex(byHand, choice.AsOf);
        return
        [
            .. CustomerAccount
                .Group(rows)
                .SelectMany(account =>
                    Settlement
                        .Settle(account, choice.AsOf, settlement, hand.Settlements(account.Customer))
                        .Select(item => new ItemChosen(item, ReasonAgainst(item, choice, hand)))
                        .OrderBy(c => c.Item.Row, Comparer<LedgerRow>.Create(StatementItem.Compare))
                ),
        ];
    }

    private static IReadOnlyList<Proof> Proofs(
        IEnumerable<KeyValuePair<Currency, decimal>> ledger,
        IReadOnlyList<GroupedAccounts> sent,
        LeftOutSums leftOut
    )
    {
        var sums = sent.Where(s => s.AlsoOn is null).GroupBy(s => s.Currency).ToDictionary(g => g.Key, g => g.Sum(s => s.Total));
        return [.. ledger.Select(l => new Proof(l.Key, l.Value, sums.GetValueOrDefault(l.Key), leftOut.Of(l.Key)))];
    }

    /// <summary>The statement of one account; null where no item is wanted.</summary>
    private static Statement? Draw(
        CustomerAccount account,
        Choice choice,
        StatementForm form,
        SettlementRule settlement,
        AgeingRule ageing,
        HandIndex hand,
        LeftOutSums? leftOut
    )
    {
        var settled = Settlement.Settle(account, choice.AsOf, settlement, hand.Settlements(account.Customer));
        var wanted = new List<OpenItem>(settled.Count);
        foreach (var item in settled)
        {
            if (ReasonAgainst(item, choice, hand) is { } reason)
            {
                leftOut?.Add(account.Customer, account.Currency, reason, item.Open);
            }
            else
            {
                wanted.Add(item);
            }
        }

        if (wanted.Count == 0)
        {
            return null;
        }

        var statement = Statement.Of(account.Customer, account.Currency, wanted, choice.AsOf, ageing);
        if (form == StatementForm.BroughtForward)
        {
            var movements = settled
                .Where(i => !Settlement.IsAfter(i.Row, choice.AsOf) && FilteredOut(i, choice, hand) is null)
                .Select(i => i.Row);
            statement = statement with
            {
                Forward = BroughtForward.Of(movements, new Period(choice.PeriodFrom ?? Period.MonthOf(choice.AsOf).From, choice.AsOf)),
            };
        }

        return choice.InterestPercent is { } rate ? statement with { Interest = InterestLine.On(statement, rate) } : statement;
    }

    private static LeftOutReason? ReasonAgainst(OpenItem item, Choice choice, HandIndex hand) =>
        Settlement.IsAfter(item.Row, choice.AsOf) ? LeftOutReason.AfterTheDate
        : item.Open == 0 ? null
        : FilteredOut(item, choice, hand);

    private static LeftOutReason? FilteredOut(OpenItem item, Choice choice, HandIndex hand)
    {
        var row = item.Row;
        var date = row.Date ?? row.Due;
        var key = hand.KeyOf(row);
        return hand.IsItemIn(key) ? null
            : date < choice.DatedFrom || date > choice.DatedTo || row.Due < choice.DueFrom || row.Due > choice.DueTo
                ? LeftOutReason.OutsideTheDates
            : (choice.LeaveOutHeld && row.Held.Length > 0) || hand.IsHeld(key) ? LeftOutReason.HeldBack
            : (choice.Units is { } units && !units.Contains(row.Unit)) || !HasWantedValues(row, choice) ? LeftOutReason.OtherUnit
            : !choice.WithCredits && item.Open < 0 ? LeftOutReason.CreditsNotWanted
            : hand.IsItemOut(key) ? LeftOutReason.TakenOut
            : null;
    }

    private static bool HasWantedValues(LedgerRow row, Choice choice)
    {
        if (choice.Columns.Count == 0)
        {
            return true;
        }

        foreach (var (column, values) in choice.Columns)
        {
            if (!values.Contains(row.Extra.TryGetValue(column, out var value) ? value : ""))
            {
                return false;
            }
        }

        return true;
    }
}
