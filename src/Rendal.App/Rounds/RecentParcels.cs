using System.Text.Json;
using Microsoft.Extensions.Caching.Memory;
using Rendal.App.Readiness;
using Rendal.Core.Statements;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>
/// The parcels that a round was made up of a moment ago. Where only another choice is made among customers, a parcel comes out as it
/// did, and is not made up again. A release makes all of them up without it. Each process keeps its own.
/// </summary>
internal sealed class RecentParcels
{
    // About a hundred megabytes.
    private const int MostKept = 50_000;
    private static readonly TimeSpan Unused = TimeSpan.FromMinutes(10);
    private static readonly MemoryCache Kept = new(new MemoryCacheOptions { SizeLimit = MostKept });

    private readonly object key;
    private readonly RoundContent content;
    private readonly Dictionary<string, (string Signature, ParcelRecord Parcel)> before;

    private RecentParcels(object key, RoundContent content, Dictionary<string, (string Signature, ParcelRecord Parcel)> before) =>
        (this.key, this.content, this.before) = (key, content, before);

    /// <summary>Those of a round that were made from the same as it would be now, save for who is in it.</summary>
    /// <param name="content">The round.</param>
    /// <param name="readiness">What tells whether its parcels are ready.</param>
    public static RecentParcels Of(RoundContent content, ParcelReadiness readiness)
    {
        var (round, book) = (content.Round, content.Book);
        var basis = new RoundBasis(round.Choice, content.Hand, content.Rules).OfItems();
        object key = (
            content.Stores.Source,
            book.Id,
            round.Id,
            round.IntakeId,
            book.Changes,
            round.Name,
            round.Choice.Kind,
            (round.Choice.Groups, round.Choice.ColleagueColumn, round.Choice.WordingColumn),
            round.WordingId,
            round.SenderId,
            (round.PickedLayout, basis, readiness.OfAddresses, JsonSerializer.Serialize(round.Enclosing))
        );
        return new RecentParcels(
            key,
            content,
            Kept.TryGetValue(key, out Dictionary<string, (string Signature, ParcelRecord Parcel)>? before) ? before! : []
        );
    }

    /// <summary>The parcel of a customer, made up where it is not at hand. What was decided about the customer is not in it.</summary>
    public ParcelRecord Of(string customer, IReadOnlyList<Statement> statements, Func<ParcelRecord> make) =>
        before.TryGetValue(customer, out var known) && known.Signature == Signature(customer, statements) ? known.Parcel : make();

    /// <summary>Keeps what was made up.</summary>
    public void Keep(IEnumerable<(ParcelRecord Parcel, IReadOnlyList<Statement> Statements)> parcels)
    {
        var now = new Dictionary<string, (string Signature, ParcelRecord Parcel)>(before, StringComparer.Ordinal);
        foreach (var (parcel, statements) in parcels)
        {
            now[parcel.Customer] = (Signature(parcel.Customer, statements), parcel);
        }

        Kept.Set(key, now, new MemoryCacheEntryOptions { Size = now.Count, SlidingExpiration = Unused });
    }

    /// <summary>
    /// What of a parcel's statements depends on who else is in the round: the accounts on each, what counts elsewhere, and the level of a
    /// reminder; and what was changed on it alone.
    /// </summary>
    private string Signature(string customer, IReadOnlyList<Statement> statements) =>
        string.Join(
            '\n',
            statements
                .Select(s => $"{s.Currency.Code} {string.Join('\t', s.Accounts.Select(a => a.Customer))} {s.AlsoOn} {s.ReminderLevel}")
                .Append(content.ChangeOf(customer) is { } change ? JsonSerializer.Serialize(change) : "")
        );
}
