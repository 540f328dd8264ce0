using System.ComponentModel.DataAnnotations;
using Rendal.App;
using Rendal.Core.Customers;
using Rendal.Core.Enclosures;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;

namespace Rendal.Web.Rounds;

/// <summary>What a round encloses beside the document.</summary>
/// <param name="Copies">How copies of invoices are enclosed.</param>
/// <param name="WithoutMissing">Whether a parcel goes without the copies that are missing.</param>
/// <param name="Split">Whether what is too large for one message goes as several.</param>
/// <param name="WithoutOwn">Whether the files that are kept with a customer stay away.</param>
/// <param name="ForAll">The files that go with every message, by number.</param>
/// <param name="Column">The heading of the column that names a file; empty for none.</param>
internal sealed record EnclosingRequest(
    CopyForm Copies,
    bool WithoutMissing,
    bool Split,
    bool WithoutOwn,
    [property: MaxLength(Rendal.Core.Enclosures.Enclosing.MostForAll)] IReadOnlyList<long> ForAll,
    [property: StringLength(400)] string Column
)
{
    /// <summary>What is enclosed, to be sent back.</summary>
    public static EnclosingRequest Of(Enclosing e) => new(e.Copies, e.WithoutMissing, e.Split, e.WithoutOwn, e.ForAll, e.Column);

    /// <summary>What is enclosed, for the use case.</summary>
    public Enclosing Enclosing() =>
        new()
        {
            Copies = Copies,
            WithoutMissing = WithoutMissing,
            Split = Split,
            WithoutOwn = WithoutOwn,
            ForAll = [.. ForAll.Distinct()],
            Column = Column,
        };
}

/// <summary>What the person chooses in a round.</summary>
internal sealed record RoundRequest(
    [property: StringLength(200)] string Name,
    DateOnly AsOf,
    StatementForm? Form,
    DateOnly? PeriodFrom,
    decimal? InterestPercent,
    RoundKind About,
    decimal LeastBalance,
    [property: Range(-36_500, 36_500)] int? OverdueDays,
    IReadOnlyList<int>? ReminderLevels,
    [property: Range(0, 36_500)] int? NotWithinDays,
    bool WithCredits,
    bool LeaveOutHeld,
    IReadOnlyList<string>? Units,
    DateOnly? DatedFrom,
    DateOnly? DatedTo,
    DateOnly? DueFrom,
    DateOnly? DueTo,
    GroupStatements? Groups,
    IReadOnlyList<string>? HeadOffices,
    IReadOnlyDictionary<string, IReadOnlyList<string>> Columns,
    long? WordingId,
    long SenderId,
    long? LayoutId,
    EnclosingRequest? Enclosing = null,
    [property: StringLength(400)] string ColleagueColumn = "",
    [property: StringLength(400)] string WordingColumn = ""
)
{
    /// <summary>The settings that are asked for; refused in words where they make no sense.</summary>
    public RoundSettings Settings() => new(Name, Checked(), WordingId, SenderId, LayoutId) { Enclosing = Enclosing?.Enclosing() ?? new() };

    /// <summary>The choice that is asked for; refused in words where it makes no sense.</summary>
    public Choice Checked()
    {
        if (InterestPercent is <= 0 or > 100)
        {
            throw ProblemException.Invalid("Interest is a yearly rate above 0 and up to 100 per cent; leave it empty for none.");
        }

        if (PeriodFrom > AsOf)
        {
            throw ProblemException.Invalid("The period of the statement begins after it ends.");
        }

        if (DatedFrom > DatedTo || DueFrom > DueTo)
        {
            throw ProblemException.Invalid("The first day of a span lies after its last; nothing can be between them.");
        }

        if (ReminderLevels is { Count: 0 })
        {
            throw ProblemException.Invalid("Choose at least one level of reminders, or send statements.");
        }

        return new Choice
        {
            AsOf = AsOf,
            Form = Form,
            PeriodFrom = PeriodFrom,
            InterestPercent = InterestPercent,
            About = About is RoundKind.Statements or RoundKind.Invoices or RoundKind.Confirmations
                ? About
                : throw ProblemException.Invalid(
                    "A round is about statements, invoices, confirmations of balance, or reminders of chosen levels."
                ),
            LeastBalance = Math.Max(0, LeastBalance),
            OverdueDays = OverdueDays,
            ReminderLevels = ReminderLevels is { } levels ? [.. levels.Distinct().Order()] : null,
            NotWithinDays = NotWithinDays,
            ColleagueColumn = ColleagueColumn,
            WordingColumn = WordingColumn,
            WithCredits = WithCredits,
            LeaveOutHeld = LeaveOutHeld,
            Units = Units?.ToHashSet(StringComparer.Ordinal),
            DatedFrom = DatedFrom,
            DatedTo = DatedTo,
            DueFrom = DueFrom,
            DueTo = DueTo,
            Groups = Groups,
            HeadOffices = HeadOffices?.ToHashSet(StringComparer.Ordinal),
            Columns = Columns.ToDictionary(c => c.Key, c => (IReadOnlySet<string>)c.Value.ToHashSet(StringComparer.Ordinal)),
        };
    }
}
