using System.Text.Json;

namespace Rendal.Postroom;

/// <summary>
/// The drills that go on. Those of an account are met by whoever signed in under it; those of the empty account by everybody, also before
/// anybody has signed in. Safe to be used by many connections at once, and by several processes on one folder. They are forgotten when the
/// postroom begins to serve.
/// </summary>
/// <param name="folder">The folder of the postroom, in which they stand.</param>
/// <param name="clock">Tells the sixty seconds of a limit.</param>
public sealed class Drills(string folder, TimeProvider clock)
{
    private static readonly TimeSpan Minute = TimeSpan.FromMinutes(1);
    private static readonly TimeSpan LongestWait = TimeSpan.FromSeconds(5);

    private readonly Lock gate = new();
    private readonly Dictionary<string, Queue<DateTimeOffset>> lately = new(StringComparer.Ordinal);
    private readonly HashSet<(string Account, string Address)> metOnce = [];
    private State state = State.None;
    private DateTime readAt;

    /// <summary>Which certificate the line is secured with.</summary>
    public PracticeCertificate Certificate { get; set; }

    /// <summary>The pause between two bytes of an answer that drips.</summary>
    public TimeSpan DripEvery { get; set; } = TimeSpan.FromSeconds(1);

    private string StateFile => Path.Combine(folder, "drills");

    /// <summary>The drills of an account, in the order in which they were begun.</summary>
    public IReadOnlyList<Drill> Of(string account)
    {
        lock (gate)
        {
            Read();
            return state.Going.GetValueOrDefault(account, []);
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

        Change(s => s with { Going = With(s.Going, account, [.. s.Going.GetValueOrDefault(account, []), drill]) });
    }

    /// <summary>Ends all drills of an account; its limits are the usual ones again.</summary>
    public void End(string account) =>
        Change(s => new State(
            s.Going.Where(g => g.Key != account).ToDictionary(),
            s.Limits.Where(l => l.Key != account).ToDictionary(),
            With(s.Ended, account, s.Ended.GetValueOrDefault(account) + 1)
        ));

    /// <summary>Ends all drills of all accounts.</summary>
    public void EndAll() => Change(_ => State.None);

    /// <summary>The limits of an account.</summary>
    public PracticeLimits LimitsOf(string account)
    {
        lock (gate)
        {
            Read();
            return state.Limits.GetValueOrDefault(account, PracticeLimits.Usual);
        }
    }

    /// <summary>Sets the limits of an account.</summary>
    public void Limit(string account, PracticeLimits to) => Change(s => s with { Limits = With(s.Limits, account, to) });

    /// <summary>The drill to be done now, counted as met; null for none.</summary>
    internal Drill? Meet(DrillStep step, string account, IReadOnlyList<string> recipients)
    {
        lock (gate)
        {
            Read();
            return Going(step, account, recipients) ?? Going(step, "", recipients) ?? Asked(step, account, recipients);
        }
    }

    /// <summary>Whether one more message may come now, which is counted if so.</summary>
    internal bool MayCome(string account)
    {
        lock (gate)
        {
            Read();
            if (!state.Limits.TryGetValue(account, out var limit) || limit.MessagesAMinute is not { } most)
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

    private static Dictionary<string, T> With<T>(Dictionary<string, T> among, string account, T value) =>
        new(among, StringComparer.Ordinal) { [account] = value };

    private Drill? Going(DrillStep step, string account, IReadOnlyList<string> recipients)
    {
        if (!Meets(state))
        {
            return null;
        }

        // Another process may have met it a moment ago.
        Drill? met = null;
        Change(s =>
        {
            if (!Meets(s))
            {
                return s;
            }

            var list = s.Going[account];
            met = list.First(d => d.Step == step && d.Meets(recipients));
            var left =
                met.Left is not { } times ? list
                : times == 1 ? [.. list.Where(d => d != met)]
                : [.. list.Select(d => d == met ? d with { Left = times - 1 } : d)];
            return s with { Going = With(s.Going, account, left) };
        });
        return met;

        bool Meets(State s) => s.Going.GetValueOrDefault(account, []).Any(d => d.Step == step && d.Meets(recipients));
    }

    private Drill? Asked(DrillStep step, string account, IReadOnlyList<string> recipients) =>
        recipients.Select(DrillAddress.Read).FirstOrDefault(d => d?.Step == step && (d.Left is null || metOnce.Add((account, d.To))));

    /// <summary>Takes over what another process wrote.</summary>
    private void Read()
    {
        var written = File.GetLastWriteTimeUtc(StateFile);
        if (written == readAt)
        {
            return;
        }

        Take(File.Exists(StateFile) ? JsonSerializer.Deserialize<State>(File.ReadAllBytes(StateFile))! : State.None);
        readAt = written;
    }

    private void Change(Func<State, State> change)
    {
        lock (gate)
        {
            Directory.CreateDirectory(folder);
            using var alone = Alone();
            Read();
            var changed = change(state);
            if (ReferenceEquals(changed, state))
            {
                return;
            }

            Take(changed);
            var made = $"{StateFile}.{Guid.NewGuid():N}";
            File.WriteAllBytes(made, JsonSerializer.SerializeToUtf8Bytes(changed));
            File.Move(made, StateFile, overwrite: true);
            readAt = File.GetLastWriteTimeUtc(StateFile);
        }
    }

    private void Take(State next)
    {
        metOnce.RemoveWhere(m => next.Ended.GetValueOrDefault(m.Account) != state.Ended.GetValueOrDefault(m.Account));
        state = next;
    }

    /// <summary>Keeps other processes from changing anything.</summary>
    private FileStream Alone()
    {
        for (var until = DateTime.UtcNow + LongestWait; ; Thread.Sleep(2))
        {
            try
            {
                return new FileStream($"{StateFile}-lock", FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            }
            catch (IOException) when (DateTime.UtcNow < until)
            {
                // Another process changes something in this moment.
            }
        }
    }

    /// <summary>What all processes on the folder share.</summary>
    /// <param name="Going">The drills by account.</param>
    /// <param name="Limits">The limits by account.</param>
    /// <param name="Ended">How often those of an account were ended.</param>
    private sealed record State(
        Dictionary<string, List<Drill>> Going,
        Dictionary<string, PracticeLimits> Limits,
        Dictionary<string, int> Ended
    )
    {
        /// <summary>No drill at all.</summary>
        public static State None { get; } = new([], [], []);
    }
}
