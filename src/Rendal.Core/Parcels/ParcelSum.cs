using Rendal.Core.Statements;

namespace Rendal.Core.Parcels;

/// <summary>The figures of one statement in a parcel.</summary>
/// <param name="Currency">The code.</param>
/// <param name="Total">What is owed.</param>
/// <param name="Overdue">What is past due.</param>
/// <param name="Bands">By age.</param>
/// <param name="Credits">The credits.</param>
/// <param name="AlsoOn">The head office whose parcel has the same items and counts them; null for a statement that counts.</param>
public sealed record ParcelSum(
    string Currency,
    decimal Total,
    decimal Overdue,
    IReadOnlyList<decimal> Bands,
    decimal Credits,
    string? AlsoOn = null
)
{
    /// <summary>
    /// The figures of a statement that are kept with its parcel: what is owed, what of it is overdue, the bands and the credits.
    /// </summary>
    public static ParcelSum Of(Statement statement) =>
        new(
            statement.Currency.Code,
            statement.Total,
            statement.Overdue,
            statement.Ageing.Bands,
            statement.Ageing.Credits,
            statement.AlsoOn
        );
}
