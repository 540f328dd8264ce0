namespace Rendal.Core.Layouts;

/// <summary>The words of a language about paying.</summary>
/// <param name="Online">Before the link to a page to pay on.</param>
/// <param name="ByTransfer">Under the code that banking apps read.</param>
/// <param name="ByLink">Under the code that leads to the page.</param>
/// <param name="Button">On a button that leads to the page.</param>
public sealed record PayWords(string Online, string ByTransfer, string ByLink, string Button);
