using System.Text.RegularExpressions;

namespace Rendal.Core.Wordings;

/// <summary>
/// Ready-made texts are written with <c>{customer.name}</c> for a slot and <c>[we-owe]…[/]</c> for words under a condition.
/// </summary>
internal static partial class WrittenSlots
{
    /// <summary>The same as the HTML fragment that wordings and layouts are made of.</summary>
    public static string Html(string words) =>
        Slot()
            .Replace(
                When().Replace(words, "<span data-when=\"$1\">").Replace("[/]", "</span>", StringComparison.Ordinal),
                "<span data-slot=\"$1\"></span>"
            );

    [GeneratedRegex(@"\{([a-z.-]+)\}")]
    private static partial Regex Slot();

    [GeneratedRegex(@"\[([a-z-]+)\]")]
    private static partial Regex When();
}
