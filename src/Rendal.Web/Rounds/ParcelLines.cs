using System.ComponentModel.DataAnnotations;
using Rendal.Core.Parcels;
using Rendal.Core.Sealing;
using Rendal.Store.Rounds;
using Rendal.Web.Intake;

namespace Rendal.Web.Rounds;

/// <summary>The figures of a statement in one currency, written for a file.</summary>
/// <param name="AlsoOn">The head office whose parcel has the same items and counts them; null for a statement that counts.</param>
internal sealed record ParcelSumView(
    string Currency,
    string Total,
    string Overdue,
    IReadOnlyList<string> Bands,
    string Credits,
    string? AlsoOn
)
{
    /// <summary>A sum of a parcel in its currency.</summary>
    public static ParcelSumView Of(ParcelSum s)
    {
        var currency = Rendal.Core.Money.Currency.Of(s.Currency);
        return new(
            s.Currency,
            currency.Plain(s.Total),
            currency.Plain(s.Overdue),
            [.. s.Bands.Select(currency.Plain)],
            currency.Plain(s.Credits),
            s.AlsoOn
        );
    }
}

/// <summary>A parcel in the list.</summary>
/// <param name="Status"><c>needs-you</c> for one that a person has to see to; else its state.</param>
/// <param name="Accounts">The accounts on its statements; more than the customer's own for a head office.</param>
/// <param name="ReminderLevel">The level of the reminder that it is; null for statements.</param>
/// <param name="OnPaper">Whether it goes by post, alone where there are no recipients.</param>
/// <param name="CanBeRetried">Whether its message could not be made, and it can be let go again.</param>
/// <param name="Changed">What of it changed since somebody looked at it: <c>the wording</c>; or that it is new in the round.</param>
/// <param name="Altered">What of it a person changed on it alone.</param>
/// <param name="HoldNote">What the person who holds it noted.</param>
internal sealed record ParcelLine(
    long Id,
    string Customer,
    string Name,
    IReadOnlyList<ParcelAccount> Accounts,
    string Status,
    string Problem,
    IReadOnlyList<string> Recipients,
    IReadOnlyList<ParcelSumView> Sums,
    int Items,
    string Answer,
    int? ReminderLevel,
    bool OnPaper,
    bool CanBeRetried,
    IReadOnlyList<string> Changed,
    IReadOnlyList<ParcelChangePart> Altered,
    string HoldNote
)
{
    /// <summary>A parcel as a line of the list.</summary>
    public static ParcelLine Of(ParcelRecord p) =>
        new(
            p.Id,
            p.Customer,
            p.Name,
            p.Accounts,
            p.Status,
            p.Problem,
            p.Recipients,
            [.. p.Sums.Select(ParcelSumView.Of)],
            p.Items,
            p.Answer,
            p.ReminderLevel,
            p.OnPaper,
            p.CanBeRetried,
            p.IsNew ? ["new in this round"] : [.. p.Changed.Select(c => c.Words())],
            p.Altered,
            p.HoldNote
        );
}

/// <summary>A part of the parcels of a round, or of those that are found by a text.</summary>
/// <param name="Groups">How many there are, by status, in the order of the list.</param>
/// <param name="From">How many come before.</param>
/// <param name="Parcels">They.</param>
internal sealed record ParcelPage(IReadOnlyList<ParcelGroup> Groups, int From, IReadOnlyList<ParcelLine> Parcels);

/// <summary>Where a parcel is in the list.</summary>
/// <param name="Place">How many come before it; null where it is not in the list.</param>
internal sealed record ParcelPlace(int? Place);

/// <summary>A parcel that changed since somebody looked at it.</summary>
/// <param name="Customer">Whose it is; null where there is none.</param>
internal sealed record NextChanged(string? Customer);

/// <summary>What somebody has looked at.</summary>
/// <param name="PreparedAt">When what they saw was prepared; nothing is noted where it was prepared anew since.</param>
/// <param name="Parcel">The parcel by number; null for the whole round.</param>
internal sealed record LookedAtRequest(DateTimeOffset PreparedAt, long? Parcel);

/// <summary>A parcel that can be marked.</summary>
internal sealed record ParcelKey(long Id, string Customer);

/// <summary>Parcels that a person marked.</summary>
/// <param name="Parcels">The parcels by number.</param>
internal sealed record MarkedRequest([property: MaxLength(100_000)] IReadOnlyList<long> Parcels);

/// <summary>What marked parcels come to.</summary>
/// <param name="Parcels">How many of them are in the round.</param>
/// <param name="Ready">How many of those can be released.</param>
/// <param name="Held">How many of those are held.</param>
/// <param name="Totals">Their sum in each currency.</param>
internal sealed record MarkedView(int Parcels, int Ready, int Held, IReadOnlyList<SumView> Totals);

/// <summary>What a person decides about some customers; null takes it back.</summary>
internal sealed record DecisionRequest(
    [property: MinLength(1)] IReadOnlyList<string> Customers,
    string? Decision,
    [property: StringLength(1_000)] string Reason
);
