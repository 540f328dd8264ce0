using Rendal.Core.Ledger;
using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>Chooses who is written to about what, and accounts for everything else.</summary>
public static class Choosing
{
    /// <summary>
    /// Chooses from a whole ledger. Every row ends in exactly one place: on a statement, or left out for one reason.
    /// </summary>
    /// <param name="rows">The ledger rows.</param>
    /// <param name="setAside">The rows that could not be used; each blocks its customer in its currency, or in all where that is unknown.</param>
    /// <param name="choice">Who and what is wanted.</param>
    /// <param name="settlement">How payments are set against invoices first: <see cref="StatementRules.SettlementOf"/>.</param>
    /// <param name="rules">What the book has settled.</param>
    /// <param name="reachability">What is known of a customer beside the ledger.</param>
    /// <param name="byHand">What people have decided about single customers and items.</param>
    public static ChosenRound Choose(
        IEnumerable<LedgerRow> rows,
        IReadOnlyCollection<RowSetAside> setAside,
        Choice choice,
        SettlementRule settlement,
        StatementRules rules,
        Func<string, Reachability> reachability,
        ByHand? byHand = null)
    {
        var hand = new HandIndex(byHand ?? ByHand.Nothing, choice.AsOf);
        var round = new Gathering(choice, rules, settlement, hand, reachability, setAside);
        foreach (var account in CustomerAccount.Group(rows))
        {
            round.Take(account);
        }

        return round.Chosen();
    }

    /// <summary>
    /// The statements of a parcel again, one for each currency, from all rows of the accounts that are on it: nothing but
    /// the rows, the choice and what was decided by hand counts, so it comes out the same at any time. Who is chosen was
    /// decided before and is not asked again.
    /// </summary>
    /// <param name="receiver">Who gets them: the customer, or the head office of several.</param>
    /// <param name="form">What the statements of the receiver list, where the choice does not say.</param>
    /// <param name="rows">All rows of the accounts.</param>
    /// <param name="choice">Which items are wanted.</param>
    /// <param name="settlement">How payments are set against invoices first.</param>
    /// <param name="rules">What the book has settled.</param>
    /// <param name="byHand">What people have decided.</param>
    public static IReadOnlyList<Statement> Again(string receiver, StatementForm? form, IEnumerable<LedgerRow> rows, Choice choice, SettlementRule settlement, StatementRules rules, ByHand byHand)
    {
        var hand = new HandIndex(byHand, choice.AsOf);
        return
        [
            .. CustomerAccount.Group(rows)
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
            .. CustomerAccount.Group(rows).SelectMany(account => Settlement.Settle(account, choice.AsOf, settlement, hand.Settlements(account.Customer))
                .Select(item => new ItemChosen(item, ReasonAgainst(item, choice, hand)))
                .OrderBy(c => c.Item.Row, Comparer<LedgerRow>.Create(StatementItem.Compare))),
        ];
    }

    /// <summary>The statement of one account; null where no item is wanted.</summary>
    internal static Statement? Draw(CustomerAccount account, Choice choice, StatementForm form, SettlementRule settlement, AgeingRule ageing, HandIndex hand, LeftOutSums? leftOut)
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
        statement = statement with { SettledRows = wanted.Count - statement.Items.Count };
        if (form == StatementForm.BroughtForward)
        {
            var movements = settled.Where(i => !Settlement.IsAfter(i.Row, choice.AsOf) && FilteredOut(i, choice, hand) is null).Select(i => i.Row);
            statement = statement with { Forward = BroughtForward.Of(movements, new Period(choice.PeriodFrom ?? Period.MonthOf(choice.AsOf).From, choice.AsOf)) };
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
            : date < choice.DatedFrom || date > choice.DatedTo || row.Due < choice.DueFrom || row.Due > choice.DueTo ? LeftOutReason.OutsideTheDates
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
