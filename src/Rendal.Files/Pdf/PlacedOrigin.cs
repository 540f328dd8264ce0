using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>Where something that was taken from a row or a card stands on a document.</summary>
/// <param name="From">What it was taken from.</param>
/// <param name="Page">The page, from 1.</param>
/// <param name="Area">The place, in points of 1/72 inch from the upper left corner of the page.</param>
public sealed record PlacedOrigin(Origin From, int Page, SKRect Area);
