using System.Globalization;
using System.Net;
using Npgsql;
using Rendal.App.Senders;
using Rendal.Core.Dispatch;
using Rendal.Mail;
using Rendal.Store.Dispatch;
using Rendal.Store.Senders;

namespace Rendal.App.Delivery;

/// <summary>
/// Tells the person who released a round that it has ended by a message, where an address is known; the interface tells in any case.
/// </summary>
public sealed class RoundEndNotice(RoundEnds ends, NpgsqlDataSource source, SenderSecrets secrets, MailNetwork network, TimeProvider clock)
{
    private const int MostNamed = 50;

    private static readonly TimeSpan Silence = TimeSpan.FromSeconds(30);

    /// <summary>
    /// Tells of the rounds that have ended, as far as their senders may send now. A message is tried once: the interface tells in any
    /// case.
    /// </summary>
    public async Task TellAsync(CancellationToken cancel)
    {
        while (await ends.ClaimToTellAsync(clock.GetUtcNow(), cancel) is var (end, senderId, address, timeZone))
        {
            if (await new SenderStore(source, end.Book).FindAsync(senderId, cancel) is { } sender)
            {
                if (secrets.AccountOf(end.Book, timeZone, sender) is not { } account)
                {
                    await ends.ToldAsync(end, $"not sent to {address}: {SenderSecrets.CannotBeRead}", CancellationToken.None);
                    continue;
                }

                await using var deliverer = new Deliverer(account, Silence, network);
                var (_, bytes) = MessageBuilder.Make(
                    new Draft(
                        sender.Name,
                        sender.Address,
                        [address],
                        [],
                        $"{end.Name}: {Sum(end)}",
                        Body(end, await ends.AmissAsync(end, MostNamed, cancel)),
                        "en",
                        [],
                        clock.GetUtcNow()
                    )
                );
                var outcome = await deliverer.CarryAsync(
                    bytes,
                    sender.Address,
                    [address],
                    () => Task.CompletedTask,
                    CancellationToken.None
                );
                await ends.ToldAsync(
                    end,
                    outcome.Kind == OutcomeKind.Accepted ? $"sent to {address}" : $"not sent to {address}: {outcome.Answer}",
                    CancellationToken.None
                );
            }
        }
    }

    /// <summary>“58 sent, 1 refused”.</summary>
    private static string Sum(RoundEnd end) =>
        string.Join(
            ", ",
            Enum.GetValues<ParcelState>()
                .OrderBy(s => s is ParcelState.Prepared or ParcelState.Held)
                .Where(s => end.Counts.GetValueOrDefault(s.Code()) > 0)
                .Select(s =>
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{end.Counts[s.Code()]} {(s == ParcelState.Prepared ? "stopped" : s.Code())}"
                    )
                )
        );

    private static string Body(RoundEnd end, List<WentAmiss> amiss)
    {
        var rows = string.Concat(
            amiss.Select(a => $"<li>{WebUtility.HtmlEncode($"{a.Name}: {a.State}{(a.Words.Length > 0 ? $" – {a.Words}" : "")}")}</li>")
        );
        var more = end.Counts.Where(c => c.Key is "refused" or "returned" or "unsure" or "held").Sum(c => c.Value) - amiss.Count;
        return $"<p>{WebUtility.HtmlEncode($"The round “{end.Name}” has ended: {Sum(end)}.")}</p>"
            + (rows.Length > 0 ? $"<p>These want to be looked at:</p><ul>{rows}</ul>" : "")
            + (more > 0 ? string.Create(CultureInfo.InvariantCulture, $"<p>and {more} more.</p>") : "")
            + "<p>Each try stands in the dispatch log with the server’s words.</p>";
    }
}
