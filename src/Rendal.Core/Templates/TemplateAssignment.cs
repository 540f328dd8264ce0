namespace Rendal.Core.Templates;

/// <summary>What a layout or a wording is used for.</summary>
/// <param name="Purpose">One of <see cref="Purposes.All"/>.</param>
/// <param name="Language">The code of the language of those who get it; empty for any.</param>
/// <param name="Id">The number of the layout or the wording.</param>
public sealed record TemplateAssignment(string Purpose, string Language, long Id);
