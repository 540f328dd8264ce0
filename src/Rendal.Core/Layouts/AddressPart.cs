using System.Text.Json.Serialization;

namespace Rendal.Core.Layouts;

/// <summary>Where the customer's address stands on the first page.</summary>
public enum AddressPlace
{
    /// <summary>At a place of one's own.</summary>
    Free,

    /// <summary>In the window of DIN 5008 form A, whose address field begins 27 mm from the top.</summary>
    Din5008A,

    /// <summary>In the window of DIN 5008 form B, whose address field begins 45 mm from the top.</summary>
    Din5008B,
}

/// <summary>The customer's name and postal address.</summary>
public sealed record AddressPart : LayoutPart
{
    // DIN 5008: the field is 20 mm from the left with 5 mm before the text; its first 17.7 mm are for the return address and remarks.
    private const decimal DinLeft = 25;
    private const decimal DinRemarks = 17.7m;

    /// <summary>Where it stands: in the window of an envelope by its standard, or at <see cref="Left"/> and <see cref="Top"/>.</summary>
    public AddressPlace Place { get; init; }

    /// <summary>Of one at a place of its own: from the left edge of the sheet to its lines, in millimetres.</summary>
    public decimal Left { get; init; } = 18;

    /// <summary>Of one at a place of its own: from the top edge of the sheet to its first line, in millimetres.</summary>
    public decimal Top { get; init; } = 46;

    /// <summary>Whether the firm's own address stands above it in small type, for a window envelope that comes back.</summary>
    public bool WithReturnLine { get; init; }

    /// <summary>Where its lines begin, in millimetres from the left and the top edge of the sheet.</summary>
    [JsonIgnore]
    public (decimal Left, decimal Top) Begins =>
        Place switch
        {
            AddressPlace.Din5008A => (DinLeft, 27 + DinRemarks),
            AddressPlace.Din5008B => (DinLeft, 45 + DinRemarks),
            _ => (Left, Top),
        };
}
