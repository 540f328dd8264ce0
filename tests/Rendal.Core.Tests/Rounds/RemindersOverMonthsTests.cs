using System.Globalization;
using CsCheck;
using Rendal.Core.Ledger;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Rounds;

/// <summary>
/// Rounds of reminders, one after another over months, while invoices come due and are paid bit by bit, in books that age by either
/// date: each level, each day past due and each penny of interest against a second reckoning that knows nothing of the first.
/// </summary>
public sealed class RemindersOverMonthsTests
{
    private const decimal Percent = 8;

    private static readonly DateOnly Begin = new(2026, 6, 1);

    // When an invoice is dated and due, and what is paid of its 100.00, when, as days from the beginning.
    private sealed record Invoice(int Number, int Dated, int Terms, (int Day, int Percent)[] Payments)
    {
        public DateOnly Date => Begin.AddDays(Dated);

        public DateOnly Due => Date.AddDays(Terms);

        public decimal OpenOn(DateOnly day) => 100 - Payments.Where(p => Begin.AddDays(p.Day) <= day).Sum(p => p.Percent);

        public IEnumerable<LedgerRow> Rows()
        {
            yield return Row(
                "A",
                100m,
                Date.ToString("O", CultureInfo.InvariantCulture),
                Due.ToString("O", CultureInfo.InvariantCulture),
                $"T-{Number}",
                row: Number * 10
            );
            foreach (var (payment, i) in Payments.Select((p, i) => (p, i)))
            {
                yield return Row(
                    "A",
                    -payment.Percent,
                    Begin.AddDays(payment.Day).ToString("O", CultureInfo.InvariantCulture),
                    number: $"P-{Number}-{i}",
                    reference: $"T-{Number}",
                    row: Number * 10 + i + 1
                );
            }
        }
    }

    [Fact]
    public void Each_reminder_is_the_one_that_a_second_reckoning_finds()
    {
        // Up to three payments that never come to more than the invoice, each on or after its date.
        var invoice = Gen.Select(
            Gen.Int[0, 60],
            Of(0, 7, 14, 30, 60),
            Gen.Select(Gen.Int[0, 150], Of(10, 30, 33)).Array[0, 3],
            Gen.Bool,
            (dated, terms, payments, isPaid) =>
                new Invoice(
                    0,
                    dated,
                    terms,
                    [
                        .. payments.Select(p => (dated + p.Item1, p.Item2)),
                        .. isPaid ? [(dated + 160, 100 - payments.Sum(p => p.Item2))] : Array.Empty<(int, int)>(),
                    ]
                )
        );
        var rules = Gen.Select(
            Gen.Int[1, 20],
            Gen.Int[1, 20],
            Gen.Int[0, 20],
            Gen.Int[0, 20],
            Gen.Bool,
            Gen.Bool,
            (first, more, gap, last, maySkip, mayRepeat) =>
                new ReminderRules([new(first, 0), new(first + more, gap), new(first + more + 5, last)], maySkip, mayRepeat)
        );
        Gen.Select(invoice.Array[1, 6], rules, Gen.Int[1, 12], Of(AgeBy.Due, AgeBy.Document))
            .Sample(
                (invoices, reminders, everyDays, ageBy) =>
                {
                    Invoice[] all = [.. invoices.Select((i, at) => i with { Number = at + 1 })];
                    LedgerRow[] rows = [.. all.SelectMany(i => i.Rows())];
                    var book = new StatementRules(new AgeingRule([30, 60, 90], ageBy)) { Reminders = reminders };
                    var reminded = new Dictionary<string, Reminded>();
                    var sent = new Dictionary<int, (int Level, DateOnly On)>();
                    for (var day = Begin; day < Begin.AddDays(240); day = day.AddDays(everyDays))
                    {
                        var choice = new Choice
                        {
                            AsOf = day,
                            ReminderLevels = reminders.Numbers,
                            InterestPercent = Percent,
                        };
                        var statement = Choosing
                            .Choose(
                                rows,
                                [],
                                choice,
                                SettlementRule.Reference,
                                book,
                                _ => new Reachability(false, true, null),
                                null,
                                reminded
                            )
                            .Statements.SingleOrDefault();
                        var overdue = all.Where(i => i.Date <= day && i.OpenOn(day) > 0 && i.Due < day).ToList();
                        Assert.Equal(DueOn(day, overdue, sent, reminders), statement?.ReminderLevel);
                        if (statement is null)
                        {
                            continue;
                        }

                        Assert.Equal(overdue.Sum(i => i.OpenOn(day)), statement.Overdue);
                        Assert.Equal(
                            overdue.Select(i => ($"T-{i.Number}", day.DayNumber - i.Due.DayNumber)).Order(),
                            statement.Items.Where(i => i.DaysPastDue > 0 && i.Open > 0).Select(i => (i.Row.Number, i.DaysPastDue)).Order()
                        );
                        Assert.Equal(
                            overdue.Sum(i =>
                                Math.Round(
                                    i.OpenOn(day) * Percent * (day.DayNumber - i.Due.DayNumber) / 36_500,
                                    2,
                                    MidpointRounding.AwayFromZero
                                )
                            ),
                            statement.Interest.Sum(i => i.Amount)
                        );

                        foreach (var item in reminders.Counted(statement, statement.ReminderLevel!.Value, reminded))
                        {
                            reminded[item.Item] = new Reminded(item.Level, day);
                        }

                        foreach (var item in overdue)
                        {
                            var before = sent.TryGetValue(item.Number, out var last) ? last.Level : 0;
                            sent[item.Number] = (
                                reminders.MaySkip ? statement.ReminderLevel.Value : Math.Min(statement.ReminderLevel.Value, before + 1),
                                day
                            );
                        }
                    }
                },
                iter: 1_000
            );
    }

    private static Gen<T> Of<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(i => values[i]);

    /// <summary>The level that is due on a day; null for none. The gentlest among the items that are the longest past due.</summary>
    private static int? DueOn(DateOnly day, List<Invoice> overdue, Dictionary<int, (int Level, DateOnly On)> sent, ReminderRules rules)
    {
        if (overdue.Count == 0)
        {
            return null;
        }

        var oldest = overdue.Min(i => i.Due);
        var pastDue = day.DayNumber - oldest.DayNumber;
        var steps = overdue.Where(i => i.Due == oldest).Select(i => Step(sent.TryGetValue(i.Number, out var last) ? last : null)).ToList();
        var gentlest = steps.Min(s => s.Level);
        return steps.Where(s => s.Level == gentlest).All(s => s.IsDue) ? gentlest : null;

        (int Level, bool IsDue) Step((int Level, DateOnly On)? last)
        {
            var had = last?.Level ?? 0;
            if (had == rules.Levels.Count)
            {
                return (had, rules.MayRepeat && IsDue(had));
            }

            var reached = rules.Levels.Count(l => l.Days <= pastDue);
            var level = rules.MaySkip ? Math.Max(had + 1, reached) : had + 1;
            return (level, IsDue(level));

            bool IsDue(int level) =>
                pastDue >= rules.Levels[level - 1].Days && (last is null || day >= last.Value.On.AddDays(rules.Levels[level - 1].Gap));
        }
    }
}
