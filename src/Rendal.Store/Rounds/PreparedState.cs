namespace Rendal.Store.Rounds;

/// <summary>What the parcels of a round were made up at.</summary>
/// <param name="Revision">The revision of the round.</param>
/// <param name="Change">The <see cref="Books.Book.Changes"/> of its book.</param>
/// <param name="At">The moment.</param>
public sealed record PreparedState(long Revision, long Change, DateTimeOffset At);
