using System.Text.Json.Serialization;
using Rendal.Core.Customers;
using Rendal.Core.Reminders;
using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>Who is to be written to, and about which items.</summary>
public sealed record Choice
{
    /// <summary>The date for which the statements hold. Items dated after it are left out.</summary>
    public required DateOnly AsOf { get; init; }

    /// <summary>What the statements list; null for what the customer's card says, or else the book.</summary>
    public StatementForm? Form { get; init; }

    /// <summary>
    /// The first day of a brought-forward statement, whose last is <see cref="AsOf"/>; null for the first of that month.
    /// </summary>
    public DateOnly? PeriodFrom { get; init; }

    /// <summary>The yearly interest on overdue items that the statements show, in per cent; null for none.</summary>
    public decimal? InterestPercent { get; init; }

    /// <summary>The first document date wanted; null for no limit.</summary>
    public DateOnly? DatedFrom { get; init; }

    /// <summary>The last document date wanted; null for no limit.</summary>
    public DateOnly? DatedTo { get; init; }

    /// <summary>The first due date wanted; null for no limit.</summary>
    public DateOnly? DueFrom { get; init; }

    /// <summary>The last due date wanted; null for no limit.</summary>
    public DateOnly? DueTo { get; init; }

    /// <summary>Whether items in dispute or held back are left out.</summary>
    public bool LeaveOutHeld { get; init; }

    /// <summary>Whether credits go on the statements; without them, only what is charged does.</summary>
    public bool WithCredits { get; init; } = true;

    /// <summary>The business units wanted; null for all. Items without a unit belong to the unit named by the empty text.</summary>
    public IReadOnlySet<string>? Units { get; init; }

    /// <summary>
    /// The values wanted in columns that have no meaning for the rules, by heading; a column that is not named takes part in nothing. A
    /// row without a value has the empty text.
    /// </summary>
    public IReadOnlyDictionary<string, IReadOnlySet<string>> Columns { get; init; } = new Dictionary<string, IReadOnlySet<string>>();

    /// <summary>Who of a head office and its branches gets the statements; null for what the head office's card says.</summary>
    public GroupStatements? Groups { get; init; }

    /// <summary>The head offices wanted with all their branches, by key; null for all customers.</summary>
    public IReadOnlySet<string>? HeadOffices { get; init; }

    /// <summary>The customers wanted, by key; null for all.</summary>
    public IReadOnlySet<string>? Customers { get; init; }

    /// <summary>The least balance that is written about, in units of whatever the currency is; 0.00 leaves nothing out.</summary>
    public decimal LeastBalance { get; init; }

    /// <summary>The days that at least one item has to be past due; null where what is not due is wanted too.</summary>
    public int? OverdueDays { get; init; }

    /// <summary>
    /// The levels wanted in a round of reminders, from 1; null for a round that sends none. A level goes to those alone for whom it is
    /// due.
    /// </summary>
    public IReadOnlyList<int>? ReminderLevels { get; init; }

    /// <summary>What a round that sends no reminders is about: statements, invoices or confirmations of balance.</summary>
    public RoundKind About { get; init; }

    /// <summary>What the round is about.</summary>
    [JsonIgnore]
    public RoundKind Kind => ReminderLevels is null ? About : RoundKind.Reminders;

    /// <summary>Leaves out who was written to within so many days before the as-of date; null for nobody.</summary>
    public int? NotWithinDays { get; init; }

    /// <summary>
    /// The first day on which somebody was written to who is left out because of <see cref="NotWithinDays"/>: within 7 days before 31
    /// October is from the 25th on. Null where nobody is.
    /// </summary>
    [JsonIgnore]
    public DateOnly? WrittenSince => NotWithinDays is { } within ? AsOf.AddDays(1 - within) : null;

    /// <summary>
    /// The heading of the column of the ledger in which the address of a colleague stands who gets a blind copy of the customer's message:
    /// the one who looks after the account. Empty for nobody.
    /// </summary>
    public string ColleagueColumn { get; init; } = "";

    /// <summary>
    /// The heading of the column of the ledger whose rows name the wording of their customer; where it is empty, the others that could go
    /// do. Empty for no column.
    /// </summary>
    public string WordingColumn { get; init; } = "";

    /// <summary>
    /// Whether a customer without an address is left out. On the command line, where documents are written and nothing is sent, it is not.
    /// </summary>
    public bool NeedsAddress { get; init; } = true;

    /// <summary>
    /// The same without what is chosen among customers: choices that are alike in this want the same items. Whether reminders are sent
    /// stays, as the items say which is next.
    /// </summary>
    public Choice OfItems() =>
        this with
        {
            About = RoundKind.Statements,
            Groups = null,
            HeadOffices = null,
            Customers = null,
            LeastBalance = 0,
            OverdueDays = null,
            ReminderLevels = ReminderLevels is null ? null : [],
            NotWithinDays = null,
            ColleagueColumn = "",
            WordingColumn = "",
            NeedsAddress = true,
        };

    /// <summary>
    /// The same choice for another date, whose other days move along with that: by whole months where the two dates are of different
    /// months, a last day of a month to the last of the other; else by days. Of 31 October with documents from 1 to 31 October, at 30
    /// November, those from 1 to 30 November are wanted.
    /// </summary>
    /// <param name="asOf">The date.</param>
    public Choice At(DateOnly asOf)
    {
        var months = ((asOf.Year - AsOf.Year) * 12) + asOf.Month - AsOf.Month;
        var days = asOf.DayNumber - AsOf.DayNumber;
        return this with
        {
            AsOf = asOf,
            PeriodFrom = Moved(PeriodFrom),
            DatedFrom = Moved(DatedFrom),
            DatedTo = Moved(DatedTo),
            DueFrom = Moved(DueFrom),
            DueTo = Moved(DueTo),
        };

        DateOnly? Moved(DateOnly? day)
        {
            if (day is not { } at)
            {
                return null;
            }

            var moved = months == 0 ? at.AddDays(days) : at.AddMonths(months);
            return months != 0 && at == Period.MonthOf(at).To ? Period.MonthOf(moved).To : moved;
        }
    }

    /// <summary>The same for reminders of every level. Nobody is reminded of what is in dispute unless it is said so.</summary>
    /// <param name="rules">The levels.</param>
    public Choice OfReminders(ReminderRules rules) => this with { ReminderLevels = rules.Numbers, LeaveOutHeld = true };
}
