using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Postroom;
using Rendal.Store.Dispatch;
using Rendal.Web.Hosting;
using Rendal.Web.Postroom;

namespace Rendal.Trials;

/// <summary>What came of killing workers while they sent.</summary>
/// <param name="Parcels">How many parcels were released.</param>
/// <param name="Kills">How often a worker was killed while there was something to send.</param>
/// <param name="Sent">How many count as sent.</param>
/// <param name="Unsure">How many wait for a person to decide.</param>
/// <param name="SetAside">How many wait for a person because a kill fell twice into the making of their message; they did not
/// arrive.</param>
/// <param name="Elsewhere">How many are none of these. None may be.</param>
/// <param name="Twice">How many arrived more than once. None may.</param>
/// <param name="Missing">How many count as sent and did not arrive. None may.</param>
/// <param name="UnsureNeverThere">
/// How many are unsure of which the server never had the end: killed in the microseconds between the note that the end is given and its
/// going out. None should be.
/// </param>
internal sealed record KillResult(
    int Parcels,
    int Kills,
    int Sent,
    int Unsure,
    int SetAside,
    int Elsewhere,
    int Twice,
    int Missing,
    int UnsureNeverThere
)
{
    public static KillResult operator +(KillResult a, KillResult b) =>
        new(
            a.Parcels + b.Parcels,
            a.Kills + b.Kills,
            a.Sent + b.Sent,
            a.Unsure + b.Unsure,
            a.SetAside + b.SetAside,
            a.Elsewhere + b.Elsewhere,
            a.Twice + b.Twice,
            a.Missing + b.Missing,
            a.UnsureNeverThere + b.UnsureNeverThere
        );

    public static KillResult Nothing { get; } = new(0, 0, 0, 0, 0, 0, 0, 0, 0);
}

/// <summary>Kills workers at random moments while they send to the postroom, starts them again, and counts what arrived.</summary>
/// <param name="services">Those of a host that does not send itself.</param>
/// <param name="parts">What that host was made from.</param>
/// <param name="random">Tells the moments.</param>
internal sealed class KillTrial(IServiceProvider services, HostParts parts, Random random)
{
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(5);

    /// <summary>Sends one round, killing until it is through or there were enough kills.</summary>
    /// <param name="parcels">How many parcels it has.</param>
    /// <param name="workers">How many workers send at once.</param>
    /// <param name="kills">After how many kills it is sent to its end undisturbed.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<KillResult> RunAsync(int parcels, int workers, int kills, CancellationToken cancel)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(Patience);
        var round = await PreparedRound.MakeAsync(services, parcels, limit.Token);
        await round.ReleaseAsync(limit.Token);
        var sending = Enumerable.Range(0, workers).Select(_ => WorkerProcess.Start(parts)).ToList();
        var killed = 0;
        try
        {
            while (await round.IsUnderWayAsync(limit.Token))
            {
                if (killed == kills)
                {
                    await Task.Delay(100, limit.Token);
                    continue;
                }

                // Something is on its way before each kill, so that one does not fall into nothing but the start of a program.
                var before = await StandingAsync(round, limit.Token);
                while (before == await StandingAsync(round, limit.Token) && await round.IsUnderWayAsync(limit.Token))
                {
                    await Task.Delay(5, limit.Token);
                }

                await Task.Delay(random.Next(0, 300), limit.Token);
                if (await round.IsUnderWayAsync(limit.Token))
                {
                    var at = random.Next(workers);
                    sending[at].Dispose();
                    sending[at] = WorkerProcess.Start(parts);
                    killed++;
                }
            }
        }
        finally
        {
            sending.ForEach(w => w.Dispose());
        }

        return await CountAsync(round, parcels, killed, limit.Token);
    }

    private static async Task<string> StandingAsync(PreparedRound round, CancellationToken cancel) =>
        string.Join(' ', (await round.Dispatch.CountsAsync(round.Id, cancel)).OrderBy(c => c.Key, StringComparer.Ordinal));

    private async Task<KillResult> CountAsync(PreparedRound round, int parcels, int killed, CancellationToken cancel)
    {
        var deliveries = services.GetRequiredService<Mailbox>().Deliveries(BookAccounts.Name(round.Book));
        await using var command = services
            .GetRequiredService<NpgsqlDataSource>()
            .CreateCommand(
                "select p.state, m.message_id, p.problem from parcel p left join message m on m.book_id = p.book_id and "
                    + "m.parcel_id = p.id where p.book_id = $1 and p.round_id = $2"
            );
        command.Parameters.Add(new() { Value = round.Book });
        command.Parameters.Add(new() { Value = round.Id });
        await using var reader = await command.ExecuteReaderAsync(cancel);
        var result = KillResult.Nothing with { Parcels = parcels, Kills = killed };
        while (await reader.ReadAsync(cancel))
        {
            var state = ParcelStates.Parse(reader.GetString(0));
            var arrived = reader.IsDBNull(1) ? 0 : deliveries.GetValueOrDefault(reader.GetString(1));
            var isSetAside = state == ParcelState.Held && arrived == 0 && reader.GetString(2) == DispatchQueue.MakingCutOff;
            result += KillResult.Nothing with
            {
                Sent = state == ParcelState.Sent ? 1 : 0,
                Unsure = state == ParcelState.Unsure ? 1 : 0,
                SetAside = isSetAside ? 1 : 0,
                Elsewhere = state is ParcelState.Sent or ParcelState.Unsure || isSetAside ? 0 : 1,
                Twice = arrived > 1 ? 1 : 0,
                Missing = state == ParcelState.Sent && arrived == 0 ? 1 : 0,
                UnsureNeverThere = state == ParcelState.Unsure && arrived == 0 ? 1 : 0,
            };
        }

        return result;
    }
}
