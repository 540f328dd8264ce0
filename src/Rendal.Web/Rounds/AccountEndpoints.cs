using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App.Accounts;
using Rendal.App.Rounds;
using Rendal.Core.Ledger;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Web.Books;

namespace Rendal.Web.Rounds;

/// <summary>
/// The account of one customer in a round: where every item ends and why, what settled it, and what people may decide about
/// it. What is said about holds and settlements holds for the book; what is taken out or put in, for the round.
/// </summary>
internal static class AccountEndpoints
{
    /// <summary>The endpoints of a book about the account of a customer in a round, and about its items.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var rounds = book.MapGroup("/rounds/{id:long}").WithTags("Accounts");
        rounds.MapGet("/accounts/{customer}", ViewAsync);
        rounds.MapPost("/items", DecideItemAsync);
        var items = book.MapGroup("/items").WithTags("Accounts");
        items.MapPost("/holds", HoldAsync);
        items.MapPost("/holds/end", EndHoldAsync);
        items.MapPost("/settlements", SettleAsync);
        items.MapPost("/settlements/{settlement:long}/take-back", TakeBackAsync);
    }

    private static async Task<AccountView> ViewAsync(long id, string customer, BookScope scope, CancellationToken cancel)
    {
        var round = await RoundContent.LoadAsync(scope, id, customer, cancel);
        var rows = await scope.Ledger.RowsAsync(round.Intake.Id, [customer], cancel);
        var holds = (await scope.Holds.ListAsync(cancel))
            .Where(h => h.Customer == customer)
            .ToDictionary(h => h.Hold.Item, StringComparer.Ordinal);
        var decisions = round.Hand.Items.ToDictionary(i => i.Item, StringComparer.Ordinal);
        var corrections = await scope.Corrections.OfRowsAsync(round.Intake.Id, rows.Select(r => r.Source.Row), cancel);
        var known = rows.GroupBy(r => ItemKey.Of(r).Text, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.First(), StringComparer.Ordinal);
        string NameOf(string key) => known.TryGetValue(key, out var row) ? ItemName.Of(row) : "";

        var items = round
            .Composer.Items(rows)
            .Select(chosen =>
            {
                var row = chosen.Item.Row;
                var key = ItemKey.Of(row).Text;
                var hold = holds.GetValueOrDefault(key);
                Reminded? reminded = round.Reminded.TryGetValue(key, out var last) ? last : null;
                return new AccountItem(
                    key,
                    ItemName.Of(row),
                    row.Kind.Code(),
                    row.Date,
                    row.Due,
                    row.Currency.Code,
                    row.Currency.Plain(row.Original),
                    row.Currency.Plain(chosen.Item.Open),
                    chosen.Item.Open < 0,
                    chosen.Reason?.Code() ?? (chosen.Item.Open == 0 ? "settled" : ""),
                    decisions.TryGetValue(key, out var decided) ? decided.Reason : hold?.Hold.Note ?? row.Held,
                    hold?.Hold.Until,
                    hold is not null,
                    decided is not null,
                    row.Source.Row,
                    [
                        .. corrections[row.Source.Row]
                            .Select(c => new ItemCorrection(
                                c.Correction.Column,
                                c.Correction.Was,
                                c.Correction.Becomes,
                                c.MadeBy,
                                c.MadeAt
                            )),
                    ],
                    reminded?.Level,
                    reminded?.On
                );
            });
        var settlings = round
            .Composer.Settlings(rows)
            .Select(s => new SettlingView(
                ItemName.Of(s.Credit),
                s.Credit.Source.Row,
                ItemName.Of(s.Charge),
                s.Charge.Source.Row,
                s.Credit.Currency.Plain(s.Amount),
                s.Credit.Currency.Code,
                s.By.ToString().ToLowerInvariant()
            ));
        var said = (await scope.Settlements.ListAsync(customer, cancel)).Select(s => new SaidView(
            s.Id,
            NameOf(s.Settlement.Said.Credit),
            s.Settlement.Said.Charge is { } charge ? NameOf(charge) : null,
            s.Settlement.Said.Amount is { } amount
                ? (known.GetValueOrDefault(s.Settlement.Said.Credit)?.Currency ?? scope.Book.Currency).Plain(amount)
                : null,
            s.By,
            s.At
        ));
        return new AccountView(
            customer,
            round.Card(customer).Name,
            round.Round.ReleasedAt is not null,
            [.. items],
            [.. settlings],
            [.. said]
        );
    }

    /// <summary>Decides about one item. What of the round is another then is fetched, as much as is in sight.</summary>
    private static async Task<NoContent> DecideItemAsync(
        long id,
        long revision,
        ItemDecisionRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new DecideItem(scope, clock).RunAsync(
            id,
            revision,
            request.Customer,
            request.Item,
            request.Decision,
            request.Reason,
            cancel
        );
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> HoldAsync(HoldRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        await new HoldItem(scope, clock).RunAsync(request.Customer, request.Item, request.Note, request.Until, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> EndHoldAsync(ItemRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        await new HoldItem(scope, clock).EndAsync(request.Item, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> SettleAsync(SettleRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        await new SettleByHand(scope, clock).RunAsync(request.Customer, request.Credit, request.Charge, request.Amount, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> TakeBackAsync(long settlement, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        await new SettleByHand(scope, clock).TakeBackAsync(settlement, cancel);
        return TypedResults.NoContent();
    }
}
