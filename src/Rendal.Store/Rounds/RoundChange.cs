namespace Rendal.Store.Rounds;

/// <summary>What somebody changed in a round.</summary>
/// <param name="Revision">The revision that it made.</param>
/// <param name="By">Who.</param>
/// <param name="At">When.</param>
/// <param name="About"><c>settings</c>, <c>customer</c>, <c>parcel</c>, <c>item</c>, <c>release</c> or <c>stop</c>.</param>
/// <param name="Subject">The customer or the item that it is about; of a parcel its customer; empty for the others.</param>
public sealed record RoundChange(long Revision, string By, DateTimeOffset At, string About, string Subject);

/// <summary>What came of a change to a round that names the revision that it was made upon.</summary>
public enum RoundUpdateResult
{
    /// <summary>It was made, or was so already.</summary>
    Done,

    /// <summary>Something of the round was released, or is being released; nothing was done.</summary>
    TooLate,

    /// <summary>Somebody else changed the same in the meantime; nothing was done.</summary>
    Contested,
}

/// <summary>What came of a change to a round.</summary>
/// <param name="Result">Whether it was made.</param>
/// <param name="Other">What somebody else changed; null unless that is why it was not made.</param>
/// <param name="Settings">The names of the settings that both changed.</param>
public sealed record RoundUpdate(RoundUpdateResult Result, RoundChange? Other, IReadOnlyList<string> Settings)
{
    /// <summary>The change stands.</summary>
    public static RoundUpdate Done { get; } = new(RoundUpdateResult.Done, null, []);

    /// <summary>Something of the round was released before.</summary>
    public static RoundUpdate TooLate { get; } = new(RoundUpdateResult.TooLate, null, []);

    /// <summary>Somebody else changed the same since the person looked.</summary>
    public static RoundUpdate Contested(RoundChange other, params IReadOnlyList<string> settings) =>
        new(RoundUpdateResult.Contested, other, settings);
}
