using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Rounds;
using Rendal.Core.Money;
using Rendal.Core.Rounds;
using Rendal.Store.Rounds;
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
    public static void Map(RouteGroupBuilder book) => book.MapGroup("/rounds/{id:long}").WithTags("Rounds").MapPost("/count", AnswerAsync);

    private static async Task<Results<Ok<CountView>, NoContent>> AnswerAsync(long id, RoundRequest request, BookScope scope, CancellationToken cancel) =>
        await CountAsync(id, request, scope, cancel) is { } count ? TypedResults.Ok(count) : TypedResults.NoContent();

    /// <summary>What a choice would come to; nothing where it wants other items than the round was made up with.</summary>
    internal static async Task<CountView?> CountAsync(long id, RoundRequest request, BookScope scope, CancellationToken cancel)
    {
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        var choice = request.Checked();
        var hand = await RoundContent.ByHandAsync(scope, id, await scope.Decisions.OfCustomersAsync(id, cancel), cancel);
        var basis = new RoundBasis(choice, hand, scope.Book.Rules);
        var reading = Reach.OfLedgerAsync(scope, round.IntakeId, choice.Kind, choice.WrittenSince is { } since ? await scope.Rounds.LastWrittenAsync(scope.Book.StartOf(since), cancel) : [], cancel);
        var found = await scope.AccountSums.FindAsync(id, basis, cancel);
        var reach = await reading;
        if (found is not { } sums)
        {
            // Other items are wanted than before. Making up the parcels goes through the ledger; it is not done here as well.
            return null;
        }

        var count = Choosing.Count(sums.Accounts, sums.ItemsLeftOut, await scope.Ledger.SetAsideAsync(round.IntakeId, null, cancel), choice, reach.Of, hand);
        return new CountView(
            count.Parcels,
            SumsOf(count.Sums.Select(s => (s.Key, s.Value)), scope.Book.Currency),
            [
                .. count.LeftOut.GroupBy(l => l.Reason)
                    .Select(g => new LeftOutCount(g.Key.Code(), g.Sum(l => l.Customers), SumsOf(g.Where(l => l.Currency is not null).Select(l => (l.Currency!.Value, l.Amount)), scope.Book.Currency)))
                    .OrderByDescending(l => l.Customers).ThenBy(l => l.Reason, StringComparer.Ordinal),
            ]);
    }

    private static IReadOnlyList<SumView> SumsOf(IEnumerable<(Currency Currency, decimal Amount)> sums, Currency first) =>
        [.. sums.OrderByDescending(s => s.Currency == first).ThenBy(s => s.Currency).Select(s => SumView.Of(s.Currency, s.Amount))];
}
