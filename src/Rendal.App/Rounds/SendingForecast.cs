using Rendal.App.Books;
using Rendal.Core.Dispatch;
using Rendal.Store.Senders;

namespace Rendal.App.Rounds;

/// <summary>When messages go, as far as the allowance of their sender tells.</summary>
public static class SendingForecast
{
    /// <summary>Reckons it from what was begun today.</summary>
    /// <param name="sender">The sender.</param>
    /// <param name="left">How many messages are to go.</param>
    /// <param name="stores">The book.</param>
    /// <param name="clock">The time.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task<Forecast> OfAsync(Sender sender, int left, BookStores stores, TimeProvider clock, CancellationToken cancel)
    {
        var today = stores.Book.Today(clock);
        return Forecast.Of(
            left,
            sender.AMinute,
            sender.ADay,
            (await stores.Senders.BegunAsync(today, cancel)).GetValueOrDefault(sender.Id),
            today
        );
    }
}
