namespace Rendal.Core.Layouts;

/// <summary>A picture of a signature, or room to sign by hand.</summary>
public sealed record SignaturePart : LayoutPart
{
    /// <summary>The picture, PNG or JPEG; null to leave room.</summary>
    public byte[]? Picture { get; init; }

    /// <summary>How high it stands, in millimetres.</summary>
    public decimal Height { get; init; } = 15;
}
