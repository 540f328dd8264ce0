using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>Pictures that can stand on a document.</summary>
public static class Picture
{
    private const int MostPixels = 16_000_000;

    /// <summary>
    /// What kind a picture is: <c>image/png</c>, else <c>image/jpeg</c>. To be asked of one that <see cref="Problem"/> finds nothing wrong
    /// with.
    /// </summary>
    public static string ContentType(byte[] bytes) => bytes is [0x89, 0x50, 0x4E, 0x47, ..] ? "image/png" : "image/jpeg";

    /// <summary>What is wrong with a picture, as a sentence; null for a PNG or JPEG that can be drawn.</summary>
    /// <param name="bytes">The picture.</param>
    /// <param name="what">What it is, as in “The logo is damaged”.</param>
    public static string? Problem(byte[] bytes, string what)
    {
        using var data = SKData.CreateCopy(bytes);
        using var codec = SKCodec.Create(data);
        if (codec is null || codec.EncodedFormat is not (SKEncodedImageFormat.Png or SKEncodedImageFormat.Jpeg))
        {
            return $"The {what} has to be a PNG or JPEG picture.";
        }

        if ((long)codec.Info.Width * codec.Info.Height > MostPixels)
        {
            return $"The {what} has {codec.Info.Width} by {codec.Info.Height} points; up to {MostPixels / 1_000_000} million are drawn.";
        }

        // Only whole pictures are taken: one cut short would be drawn grey below the cut.
        using var bitmap = new SKBitmap(codec.Info);
        return codec.GetPixels(bitmap.Info, bitmap.GetPixels()) == SKCodecResult.Success
            ? null
            : $"The {what} is damaged: it is cut short or cannot be unpacked.";
    }
}
