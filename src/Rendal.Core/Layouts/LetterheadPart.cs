namespace Rendal.Core.Layouts;

/// <summary>Who writes: the firm's name or its logo, and its lines.</summary>
public sealed record LetterheadPart : LayoutPart
{
    /// <summary>The most bytes of a logo.</summary>
    public const int LargestLogo = 500_000;

    /// <summary>A picture, PNG or JPEG; null to write the firm's name.</summary>
    public byte[]? Logo { get; init; }

    /// <summary>How high the logo stands, in millimetres.</summary>
    public decimal LogoHeight { get; init; } = 15;

    /// <summary>Whether the firm's name stands beside a logo too.</summary>
    public bool WithName { get; init; }

    /// <summary>Whether the firm's address and contact lines stand at the right.</summary>
    public bool WithLines { get; init; } = true;
}
