using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>The colours of documents beside the layout's own.</summary>
internal static class Palette
{
    /// <summary>The ink of what is read first.</summary>
    public static SKColor First { get; } = SKColor.Parse("#2b2230");

    /// <summary>The ink of what stands beside it.</summary>
    public static SKColor Second { get; } = SKColor.Parse("#6d6470");

    /// <summary>Thin lines.</summary>
    public static SKColor Hairline { get; } = SKColor.Parse("#d5ccc0");
}

/// <summary>The fonts that a document is set in.</summary>
/// <param name="Regular">Text.</param>
/// <param name="Strong">What stands out.</param>
/// <param name="Heading">The firm's name and the title.</param>
internal sealed record FontSet(Font Regular, Font Strong, Font Heading);
