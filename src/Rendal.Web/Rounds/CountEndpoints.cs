using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App.Rounds;
using Rendal.Core.Money;
using Rendal.Core.Rounds;
using Rendal.Web.Books;
using Rendal.Web.Intake;

namespace Rendal.Web.Rounds;

/// <summary>What is left out for one reason.</summary>
internal sealed record LeftOutCount(string Reason, int Customers, IReadOnlyList<SumView> Sums);

/// <summary>What a choice would come to.</summary>
/// <param name="Parcels">How many parcels.</param>
/// <param name="Sums">Their sum in each currency, the book's own first.</param>
/// <param name="LeftOut">What is left out, the most customers first.</param>
internal sealed record CountView(int Parcels, IReadOnlyList<SumView> Sums, IReadOnlyList<LeftOutCount> LeftOut);

/// <summary>Says what a choice would come to, before parcels are made up for it.</summary>
internal static class CountEndpoints
{
    /// <summary>The endpoints of a book that stand under <c>/rounds/{id}</c>.</summary>
    public static void Map(RouteGroupBuilder book) => book.MapGroup("/rounds/{id:long}").WithTags("Rounds").MapPost("/count", AnswerAsync);

    private static async Task<Results<Ok<CountView>, NoContent>> AnswerAsync(
        long id,
        RoundRequest request,
        BookScope scope,
        CancellationToken cancel
    ) =>
        await new CountChoice(scope).RunAsync(id, request.Checked(), cancel) is { } count
            ? TypedResults.Ok(View(count, scope.Book.Currency))
            : TypedResults.NoContent();

    private static CountView View(ChosenCount count, Currency first) =>
        new(
            count.Parcels,
            SumsOf(count.Sums.Select(s => (s.Key, s.Value)), first),
            [
                .. count
                    .LeftOut.GroupBy(l => l.Reason)
                    .Select(g => new LeftOutCount(
                        g.Key.Code(),
                        g.Sum(l => l.Customers),
                        SumsOf(g.Where(l => l.Currency is not null).Select(l => (l.Currency!.Value, l.Amount)), first)
                    ))
                    .OrderByDescending(l => l.Customers)
                    .ThenBy(l => l.Reason, StringComparer.Ordinal),
            ]
        );

    private static IReadOnlyList<SumView> SumsOf(IEnumerable<(Currency Currency, decimal Amount)> sums, Currency first) =>
        [.. sums.OrderByDescending(s => s.Currency == first).ThenBy(s => s.Currency).Select(s => SumView.Of(s.Currency, s.Amount))];
}
