namespace Rendal.Files.Docx;

/// <summary>No PDF could be made of a letter. The message says why and what to do.</summary>
/// <param name="message">The reason as a sentence.</param>
public sealed class DocxConversionFailed(string message) : Exception(message);
