using Rendal.App.Books;
using Rendal.Core.Wordings;
using Rendal.Files.Pdf;

namespace Rendal.App.Wordings;

/// <summary>Keeps a picture for messages.</summary>
public sealed class KeepPicture(BookStores stores)
{
    /// <summary>Keeps a picture, once however often it is given.</summary>
    /// <param name="bytes">A PNG or JPEG of up to <see cref="MessagePicture.Largest"/> bytes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Its number; the same for the same picture.</returns>
    /// <exception cref="ProblemException">It is larger, or no picture that can be drawn.</exception>
    public async Task<long> RunAsync(byte[] bytes, CancellationToken cancel) =>
        bytes.Length > MessagePicture.Largest
            ? throw ProblemException.Invalid(
                $"The picture has {bytes.Length / 1000} kB, and goes with each message; up to {MessagePicture.Largest / 1000} "
                    + "kB are taken. Make it smaller."
            )
        : Picture.Problem(bytes, "picture") is { } problem ? throw ProblemException.Invalid(problem)
        : await stores.Pictures.AddAsync(Picture.ContentType(bytes), bytes, cancel);
}
