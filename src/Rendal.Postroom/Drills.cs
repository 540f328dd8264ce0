namespace Rendal.Postroom;

/// <summary>
/// The drills that go on. Those of an account are met by whoever signed in under it; those of the empty account by
/// everybody, also before anybody has signed in. Safe to be used by many connections at once. They are forgotten when
/// the postroom stops.
/// </summary>
/// <param name="clock">Tells the sixty seconds of a limit.</param>
public sealed class Drills(TimeProvider clock)
{
    private static readonly TimeSpan Minute = TimeSpan.FromMinutes(1);

    private readonly Lock gate = new();
    private readonly Dictionary<string, List<Drill>> going = new(StringComparer.Ordinal);
    private readonly Dictionary<string, PracticeLimits> limits = new(StringComparer.Ordinal);
    private readonly Dictionary<string, Queue<DateTimeOffset>> lately = new(StringComparer.Ordinal);
    private readonly HashSet<(string Account, string Address)> metOnce = [];

    /// <summary>Which certificate the line is secured with.</summary>
    public PracticeCertificate Certificate { get; set; }

    /// <summary>The pause between two bytes of an answer that drips.</summary>
    public TimeSpan DripEvery { get; set; } = TimeSpan.FromSeconds(1);

    /// <summary>The drills of an account, in the order in which they were begun.</summary>
    public IReadOnlyList<Drill> Of(string account)
    {
        lock (gate)
        {
            return [.. going.GetValueOrDefault(account, [])];
        }
    }

    /// <summary>Begins a drill.</summary>
    /// <exception cref="ArgumentException">It cannot be done; the message is <see cref="Drill.Problem"/>.</exception>
    public void Begin(string account, Drill drill)
    {
        if (drill.Problem is { } problem)
        {
            throw new ArgumentException(problem, nameof(drill));
        }

        lock (gate)
        {
            (going.TryGetValue(account, out var list) ? list : going[account] = []).Add(drill);
        }
    }

    /// <summary>Ends all drills of an account; its limits are the usual ones again.</summary>
    public void End(string account)
    {
        lock (gate)
        {
            going.Remove(account);
            limits.Remove(account);
            metOnce.RemoveWhere(m => m.Account == account);
        }
    }

    /// <summary>The limits of an account.</summary>
    public PracticeLimits LimitsOf(string account)
    {
        lock (gate)
        {
            return limits.GetValueOrDefault(account, PracticeLimits.Usual);
        }
    }

    /// <summary>Sets the limits of an account.</summary>
    public void Limit(string account, PracticeLimits to)
    {
        lock (gate)
        {
            limits[account] = to;
        }
    }

    /// <summary>The drill to be done now, counted as met; null for none.</summary>
    internal Drill? Meet(DrillStep step, string account, IReadOnlyList<string> recipients)
    {
        lock (gate)
        {
            return Going(step, account, recipients) ?? Going(step, "", recipients) ?? Asked(step, account, recipients);
        }
    }

    /// <summary>Whether one more message may come now, which is counted if so.</summary>
    internal bool MayCome(string account)
    {
        lock (gate)
        {
            if (!limits.TryGetValue(account, out var limit) || limit.MessagesAMinute is not { } most)
            {
                return true;
            }

            var now = clock.GetUtcNow();
            var came = lately.TryGetValue(account, out var known) ? known : lately[account] = new Queue<DateTimeOffset>();
            while (came.TryPeek(out var first) && now - first >= Minute)
            {
                came.Dequeue();
            }

            if (came.Count >= most)
            {
                return false;
            }

            came.Enqueue(now);
            return true;
        }
    }

    private Drill? Going(DrillStep step, string account, IReadOnlyList<string> recipients)
    {
        if (!going.TryGetValue(account, out var list) || list.FindIndex(d => d.Step == step && d.Meets(recipients)) is not (>= 0 and var at))
        {
            return null;
        }

        var drill = list[at];
        if (drill.Left is 1)
        {
            list.RemoveAt(at);
        }
        else if (drill.Left is { } left)
        {
            list[at] = drill with { Left = left - 1 };
        }

        return drill;
    }

    private Drill? Asked(DrillStep step, string account, IReadOnlyList<string> recipients) =>
        recipients.Select(DrillAddress.Read).FirstOrDefault(d => d?.Step == step && (d.Left is null || metOnce.Add((account, d.To))));
}
