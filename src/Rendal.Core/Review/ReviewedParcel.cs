using Rendal.Core.Statements;

namespace Rendal.Core.Review;

/// <summary>What a review knows of the parcel whose message it reads.</summary>
/// <param name="Statements">Its statements.</param>
/// <param name="OwnNames">The names that may stand in it: of the customer, its accounts and their head office, and of the firm.</param>
/// <param name="HasFiles">Whether a document or a file goes with the message.</param>
/// <param name="HasCopies">Whether copies of invoices go with it.</param>
/// <param name="Language">The code of the language of the wording.</param>
/// <param name="Wanted">The code of the language that the customer is written to in.</param>
public sealed record ReviewedParcel(
    IReadOnlyList<Statement> Statements,
    IReadOnlyList<string> OwnNames,
    bool HasFiles,
    bool HasCopies,
    string Language,
    string Wanted
)
{
    private HashSet<decimal>? amounts;
    private HashSet<DateOnly>? days;

    /// <summary>Whether an amount is one of the parcel's: of an item, a sum, a band.</summary>
    internal bool Has(decimal amount) =>
        (
            amounts ??= [
                .. Statements
                    .SelectMany(s =>
                        s.Items.SelectMany(i => new[] { i.Open, i.Row.Original })
                            .Concat(s.Ageing.Bands)
                            .Concat(s.Interest.Select(i => i.Amount))
                            .Concat(s.Accounts.Select(a => a.Total))
                            .Append(s.Total)
                            .Append(s.Overdue)
                            .Append(s.ToPay)
                            .Append(s.Ageing.Credits)
                            .Append(s.Interest.Sum(i => i.Amount))
                    )
                    .Select(Math.Abs),
            ]
        ).Contains(Math.Abs(amount));

    /// <summary>Whether a day is one of the parcel's: of the statement, of an item, of its period.</summary>
    internal bool Has(DateOnly day) =>
        (
            days ??= [
                .. Statements.SelectMany(s =>
                    s.Items.SelectMany(i => new[] { i.Row.Due, i.Row.Date ?? i.Row.Due })
                        .Concat(s.Accounts.SelectMany(a => a.Forward is { } f ? new[] { f.Period.From, f.Period.To } : []))
                        .Append(s.AsOf)
                ),
            ]
        ).Contains(day);

    /// <summary>Whether a month is that of the statement.</summary>
    internal bool IsMonth(int year, int month) => Statements.Any(s => s.AsOf.Year == year && s.AsOf.Month == month);
}
