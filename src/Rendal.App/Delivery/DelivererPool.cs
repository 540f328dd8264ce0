using System.Collections.Concurrent;
using Rendal.Core.Dispatch;
using Rendal.Mail;

namespace Rendal.App.Delivery;

/// <summary>
/// The connections of a worker to the mail servers, a few to each, which are used again and again while there is something to send.
/// </summary>
internal sealed class DelivererPool(MailNetwork network) : IAsyncDisposable
{
    /// <summary>How many connections there are to a server at most: mail providers allow few at a time.</summary>
    public const int ToAServer = 4;

    private static readonly TimeSpan ServerAnswersWithin = TimeSpan.FromMinutes(2);

    private readonly ConcurrentDictionary<MailAccount, BoundedPool<Deliverer>> turns = [];

    /// <summary>
    /// Hands a message to the server of its sender, as <see cref="Deliverer.CarryAsync"/> does, as soon as a connection is free.
    /// </summary>
    public Task<Outcome> CarryAsync(
        MailAccount account,
        string from,
        byte[] bytes,
        IReadOnlyList<string> recipients,
        Func<Task> beforeEnd
    ) =>
        turns
            .GetOrAdd(account, _ => new BoundedPool<Deliverer>(ToAServer, () => new Deliverer(account, ServerAnswersWithin, network)))
            .UseAsync(deliverer => deliverer.CarryAsync(bytes, from, recipients, beforeEnd, CancellationToken.None));

    /// <summary>Closes all connections, when none is in use. They can be used again.</summary>
    public async ValueTask DisposeAsync()
    {
        foreach (var deliverer in turns.Values.SelectMany(t => t.Idle))
        {
            await deliverer.DisposeAsync();
        }

        turns.Clear();
    }
}
