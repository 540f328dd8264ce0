using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App.Rounds;
using Rendal.Core.Dispatch;
using Rendal.Web.Books;

namespace Rendal.Web.Rounds;

/// <summary>How the sending of a round goes, as it goes on.</summary>
internal static class RoundProgressEndpoints
{
    private static readonly TimeSpan Every = TimeSpan.FromMilliseconds(500);

    /// <summary>The endpoints of a book that stand under <c>/rounds/{id}/progress</c>.</summary>
    public static void Map(RouteGroupBuilder book) => book.MapGet("/rounds/{id:long}/progress", Progress).WithTags("Rounds");

    /// <summary>Tells how sending goes, at once and then whenever it changed, until the page is closed.</summary>
    private static ServerSentEventsResult<ProgressView> Progress(long id, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        TypedResults.ServerSentEvents(Events(id, scope, clock, cancel));

    private static async IAsyncEnumerable<SseItem<ProgressView>> Events(
        long id,
        BookScope scope,
        TimeProvider clock,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        ProgressView? last = null;

        // A session that has ended, or a book that was taken away, ends what goes on in it as well.
        while (await scope.GoesOnAsync(cancel) && await scope.Rounds.FindAsync(id, cancel) is { } round)
        {
            var sender = await scope.Senders.FindAsync(round.SenderId, cancel);
            var now = clock.GetUtcNow();
            var counts = await scope.Dispatch.CountsAsync(id, cancel);
            var left = new[] { ParcelState.Released, ParcelState.Sending, ParcelState.ToBeRetried }.Sum(s =>
                (int)counts.GetValueOrDefault(s.Code())
            );
            var leaves = left == 0 ? null : await scope.Dispatch.NextLeavesAsync(id, cancel);
            var view = new ProgressView(
                counts,
                round.Paused,
                sender!.PausedFor(scope.Person),
                sender.UnreachableFor(scope.Person),
                left == 0 ? 0 : await scope.Dispatch.PaceAsync(id, now, cancel),
                ForecastView.Of(await SendingForecast.OfAsync(sender, left, scope, clock, cancel)),
                leaves > now ? leaves : null,
                await scope.Dispatch.LetterCountAsync(id, cancel)
            );
            if (last is null || !Same(view, last))
            {
                last = view;
                yield return new SseItem<ProgressView>(view, "progress");
            }

            await Task.Delay(Every, cancel);
        }
    }

    private static bool Same(ProgressView a, ProgressView b) =>
        a with { Counts = b.Counts } == b
        && a.Counts.OrderBy(c => c.Key, StringComparer.Ordinal).SequenceEqual(b.Counts.OrderBy(c => c.Key, StringComparer.Ordinal));
}
