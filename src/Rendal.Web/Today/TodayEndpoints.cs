using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App.Ledger;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Web.Books;

namespace Rendal.Web.Today;

/// <summary>What one customer owes, on the first page.</summary>
internal sealed record OwedLine(string Customer, string Name, string Total, string Overdue, int OldestDays, IReadOnlyList<string> Bands);

/// <summary>An item that is held back.</summary>
/// <param name="IsUp">Whether its day has come, so that it is in rounds again.</param>
internal sealed record HeldLine(
    string Customer,
    string Name,
    string Item,
    string ItemName,
    string Note,
    DateOnly? Until,
    bool IsUp,
    string By,
    DateTimeOffset At
);

/// <summary>To how many a level of reminders is due.</summary>
internal sealed record ReminderLine(int Level, int Customers, string Overdue);

/// <summary>What is worth a look today, in one currency.</summary>
/// <param name="Since">The first day of the month, since which a customer should have been written to.</param>
/// <param name="NotWritten">Who was not, the most owed first, and no more than <see cref="TodayEndpoints.MostListed"/> of them.</param>
internal sealed record TodayView(
    string Currency,
    IReadOnlyList<string> Currencies,
    IReadOnlyList<OwedLine> Largest,
    IReadOnlyList<ReminderLine> Reminders,
    DateOnly Since,
    int NotWrittenCount,
    string NotWrittenSum,
    IReadOnlyList<OwedLine> NotWritten,
    IReadOnlyList<HeldLine> Held
);

/// <summary>The first page of a book.</summary>
internal static class TodayEndpoints
{
    /// <summary>The most lines of one list on Today; what is beyond them is counted.</summary>
    public const int MostListed = 100;
    private const int Largest = 10;

    /// <summary>The endpoints of a book that stand under <c>/today</c>.</summary>
    public static void Map(RouteGroupBuilder book) => book.MapGet("/today", ViewAsync).WithTags("Today");

    private static async Task<Results<Ok<TodayView>, NoContent>> ViewAsync(
        string? currency,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await LedgerNow.OfAsync(scope, clock, cancel) is not { } now)
        {
            return TypedResults.NoContent();
        }

        var today = now.AsOf;
        var currencies = now
            .Everybody.Select(s => s.Currency)
            .Distinct()
            .OrderByDescending(c => c == scope.Book.Currency)
            .ThenBy(c => c)
            .ToList();
        var shown = Currency.TryParse(currency, out var wanted) ? wanted : currencies.FirstOrDefault(scope.Book.Currency);
        var month = Period.MonthOf(today);
        var written = await scope.Rounds.LastWrittenAsync(scope.Book.StartOf(month.From), cancel);
        var overview = Overview.Of(now.Everybody, shown, month, key => written.TryGetValue(key, out var day) ? day : null, Largest);
        var due = (await now.RemindersAsync(cancel))[shown];
        var held = await scope.Holds.ListAsync(cancel);
        var names = await scope.Customers.NamesAsync(
            [
                .. overview
                    .Largest.Concat(overview.NotWritten.Take(MostListed))
                    .Select(s => s.Customer)
                    .Concat(held.Select(h => h.Customer))
                    .Distinct(),
            ],
            cancel
        );
        return TypedResults.Ok(
            new TodayView(
                shown.Code,
                [.. currencies.Select(c => c.Code)],
                [.. overview.Largest.Select(s => Line(s, names))],
                [.. due.Select(d => new ReminderLine(d.Level, d.Customers, shown.Plain(d.Overdue)))],
                month.From,
                overview.NotWritten.Count,
                shown.Plain(overview.NotWritten.Sum(s => s.Total)),
                [.. overview.NotWritten.Take(MostListed).Select(s => Line(s, names))],
                [
                    .. held.Select(h => new HeldLine(
                        h.Customer,
                        names.GetValueOrDefault(h.Customer, h.Customer),
                        h.Hold.Item,
                        ItemKey.NumberIn(h.Hold.Item),
                        h.Hold.Note,
                        h.Hold.Until,
                        !h.Hold.HoldsOn(today),
                        h.By,
                        h.At
                    )),
                ]
            )
        );
    }

    private static OwedLine Line(Owed s, Dictionary<string, string> names) =>
        new(
            s.Customer,
            names.GetValueOrDefault(s.Customer, s.Customer),
            s.Currency.Plain(s.Total),
            s.Currency.Plain(s.Overdue),
            s.OldestDaysPastDue,
            [.. s.Ageing.Bands.Select(s.Currency.Plain)]
        );
}
