using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>A text set on one line at size 1, from left to right as it is seen.</summary>
/// <param name="Runs">Its pieces.</param>
/// <param name="Width">How wide it is.</param>
internal sealed record SetText(IReadOnlyList<SetRun> Runs, float Width);

/// <summary>A piece of a text whose glyphs are in one file.</summary>
/// <param name="File">The file.</param>
/// <param name="Glyphs">The glyphs from left to right.</param>
/// <param name="Points">Where each stands, from the beginning of the line.</param>
/// <param name="Text">What is copied out of the document, in UTF-8; null where the glyphs say it.</param>
/// <param name="Clusters">For each glyph the byte of <paramref name="Text"/> that it begins with; null where there is none.</param>
internal sealed record SetRun(FontFile File, ushort[] Glyphs, SKPoint[] Points, byte[]? Text, uint[]? Clusters);
