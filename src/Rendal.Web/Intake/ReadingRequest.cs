using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Web.Intake;

/// <summary>What the person decided about a reading.</summary>
internal sealed record ReadingRequest(
    string? Sheet = null,
    string? Delimiter = null,
    string? Encoding = null,
    int? HeadingRow = null,
    bool? CarriesDown = null,
    Dictionary<int, ColumnMeaning>? Meanings = null,
    Dictionary<int, CardField>? Fields = null,
    Dictionary<int, DecimalMark>? Marks = null,
    Dictionary<int, DateOrder>? Orders = null,
    Dictionary<int, bool>? UnsignedCredits = null,
    Dictionary<string, ItemKind>? Kinds = null,
    Dictionary<string, decimal>? Totals = null,
    List<int>? Remembered = null,
    bool? LeavesOutHidden = null,
    bool? LeavesOutHiddenColumns = null
)
{
    /// <summary>What a person set, for the use case.</summary>
    public ReadingChange Change() =>
        new()
        {
            Opening = new FileOpening(Sheet, Delimiter is { Length: 1 } ? Delimiter[0] : null, Encoding),
            HeadingRow = HeadingRow,
            CarriesDown = CarriesDown,
            LeavesOutHidden = LeavesOutHidden,
            LeavesOutHiddenColumns = LeavesOutHiddenColumns,
            Meanings = Meanings ?? [],
            Fields = Fields ?? [],
            Marks = Marks ?? [],
            Orders = Orders ?? [],
            UnsignedCredits = UnsignedCredits ?? [],
            Kinds = Kinds ?? [],
            Remembered = Remembered ?? [],
            Totals = (Totals ?? []).Where(t => Currency.TryParse(t.Key, out _)).ToDictionary(t => Currency.Of(t.Key).Code, t => t.Value),
        };

    /// <summary>What a person set, to be sent back.</summary>
    public static ReadingRequest Of(ReadingChange c) =>
        new(
            c.Opening.Sheet,
            c.Opening.Delimiter?.ToString(),
            c.Opening.Encoding,
            c.HeadingRow,
            c.CarriesDown,
            new(c.Meanings),
            new(c.Fields),
            new(c.Marks),
            new(c.Orders),
            new(c.UnsignedCredits),
            new(c.Kinds),
            new(c.Totals),
            [.. c.Remembered],
            c.LeavesOutHidden,
            c.LeavesOutHiddenColumns
        );
}
