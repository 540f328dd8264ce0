namespace Rendal.Core.Layouts;

/// <summary>The tones of age: one hue that grows darker, the same in documents, messages and on the screen.</summary>
public static class AgeTone
{
    private static readonly (string Ground, string Ink)[] Tones =
    [
        ("#efe6ec", "#2b2230"),
        ("#d6bfd2", "#2b2230"),
        ("#b48db0", "#1d1420"),
        ("#875682", "#ffffff"),
        ("#4f2049", "#ffffff"),
    ];

    /// <summary>
    /// Ground and ink of a band, both <c>#rrggbb</c>, at least 4.5 : 1 apart. With more than five bands the last ones share the darkest
    /// tone; credits have none and stand on white.
    /// </summary>
    public static (string Ground, string Ink) Of(int? band) =>
        band is { } b ? Tones[Math.Min(b, Tones.Length - 1)] : ("#ffffff", "#2b2230");
}
