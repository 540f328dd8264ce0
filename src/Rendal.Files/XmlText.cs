namespace Rendal.Files;

/// <summary>Text for XML.</summary>
internal static class XmlText
{
    /// <summary>A text with a space for each character that XML 1.0 has not.</summary>
    public static string Clean(string text) =>
        string.Concat(
            text.EnumerateRunes()
                .Select(r => r.Value is '\t' or '\n' || (r.Value >= 0x20 && r.Value is not (0xFFFE or 0xFFFF)) ? r.ToString() : " ")
        );
}
