using System.Globalization;
using System.Text.Json.Serialization;
using Rendal.Core.Ledger;

namespace Rendal.Core.Statements;

/// <summary>
/// From which date the age of an item is counted. What is overdue, reminders and interest go by the due date in any case.
/// </summary>
public enum AgeBy
{
    /// <summary>From its due date.</summary>
    Due,

    /// <summary>From its document date; from the due date where it has none.</summary>
    Document,
}

/// <summary>The bands by which items are aged.</summary>
public sealed record AgeingRule
{
    private readonly int[] edges;

    /// <summary>Makes a rule.</summary>
    /// <param name="upperEdges">The last day of each band, growing: 30, 60, 90 give 1–30, 31–60, 61–90 and over 90. One to eight
    /// edges.</param>
    /// <param name="by">From which date the age counts.</param>
    /// <param name="creditsByDate">Whether credits are put into the band of their own age; else they stand apart.</param>
    /// <exception cref="ArgumentException">The edges do not grow, begin below 1, or are none or more than eight.</exception>
    public AgeingRule(IReadOnlyList<int> upperEdges, AgeBy by = AgeBy.Due, bool creditsByDate = false)
    {
        if (upperEdges.Count is 0 or > 8 || upperEdges[0] < 1 || upperEdges.Zip(upperEdges.Skip(1)).Any(pair => pair.First >= pair.Second))
        {
            throw new ArgumentException("The bands need one to eight upper edges that grow, such as 30, 60, 90.", nameof(upperEdges));
        }

        edges = [.. upperEdges];
        By = by;
        CreditsByDate = creditsByDate;
    }

    /// <summary>Bands of 30, 60 and 90 days past the due date.</summary>
    public static AgeingRule Default { get; } = new([30, 60, 90]);

    /// <summary>From which date the age counts.</summary>
    public AgeBy By { get; }

    /// <summary>Whether credits are put into the band of their own age, counted from their document date; else they stand apart.</summary>
    public bool CreditsByDate { get; }

    /// <summary>The last day of each band but the one that has none.</summary>
    public IReadOnlyList<int> UpperEdges => edges;

    /// <summary>Number of bands: not due, one for each edge, and over the last edge.</summary>
    [JsonIgnore]
    public int BandCount => edges.Length + 2;

    /// <summary>
    /// The age of an item in days, which decides its band and nothing else: since its due date, or since its document date where the
    /// rule says so, as it is for credits that stand in the band of their own age. Dated 31 October and due on 30 November, on
    /// 31 October: -30 by due date, 0 by document date. An item without a document date is aged by its due date.
    /// </summary>
    /// <param name="row">The item.</param>
    /// <param name="open">What is open of it; negative for a credit.</param>
    /// <param name="asOf">The day for which is asked.</param>
    public int AgeOf(LedgerRow row, decimal open, DateOnly asOf) =>
        asOf.DayNumber - (By == AgeBy.Document || (open < 0 && CreditsByDate) ? row.Date ?? row.Due : row.Due).DayNumber;

    /// <summary>
    /// The band of an age in days: 0 for not due (0 days and less), with edges 30, 60, 90: 1 for 30 days, 2 for 31, 4 for 91.
    /// </summary>
    public int BandOf(int days)
    {
        if (days <= 0)
        {
            return 0;
        }

        var band = 1;
        while (band <= edges.Length && days > edges[band - 1])
        {
            band++;
        }

        return band;
    }

    /// <summary>The days that a band spans: <c>1–30</c>, <c>31–60</c>, and <c>90+</c> for the last; empty for not due.</summary>
    public string Span(int band) =>
        band switch
        {
            0 => "",
            _ when band == BandCount - 1 => string.Create(CultureInfo.InvariantCulture, $"{edges[^1]}+"),
            _ => string.Create(CultureInfo.InvariantCulture, $"{(band == 1 ? 1 : edges[band - 2] + 1)}–{edges[band - 1]}"),
        };
}
