namespace Rendal.Core.Wordings;

/// <summary>The template of a message.</summary>
/// <param name="Name">What the bookkeeper calls it.</param>
/// <param name="Language">Code of the language it is written in.</param>
/// <param name="Subject">
/// The subject as an HTML fragment without other markup than slots, each written
/// <c>&lt;span data-slot="customer.name" data-or-else="…"&gt;&lt;/span&gt;</c>.
/// </param>
/// <param name="Body">The body as an HTML fragment: paragraphs, lists, emphasis, links, and slots.</param>
public sealed record Wording(string Name, string Language, string Subject, string Body)
{
    /// <summary>The most characters of a name.</summary>
    public const int LongestName = 200;
}
