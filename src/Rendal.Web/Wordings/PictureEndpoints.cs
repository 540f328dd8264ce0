using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Wordings;
using Rendal.Core.Wordings;
using Rendal.Html;
using Rendal.Web.Books;

namespace Rendal.Web.Wordings;

/// <summary>A picture to be kept for messages.</summary>
/// <param name="Bytes">A PNG or JPEG.</param>
internal sealed record PictureRequest(byte[] Bytes);

/// <summary>A picture that was kept.</summary>
internal sealed record KeptPicture(long Number);

/// <summary>The pictures that stand in messages.</summary>
internal static class PictureEndpoints
{
    /// <summary>The endpoints of a book that stand under <c>/pictures</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/pictures").WithTags("Wordings");
        group.MapPost("", AddAsync);
        group.MapGet("/{number:long}", ShowAsync);
    }

    /// <summary>An address that is the picture itself, for pages that may fetch nothing.</summary>
    public static string Whole(MessagePicture picture) => $"data:{picture.ContentType};base64,{Convert.ToBase64String(picture.Bytes)}";

    /// <summary>A body as it is looked at.</summary>
    public static async Task<string> ShownAsync(string body, BookScope scope, CancellationToken cancel)
    {
        var pictures = (await scope.Pictures.OfAsync(PicturePlaces.Of(body), cancel)).ToDictionary(p => p.Number);
        return PicturePlaces.Put(body, number => Whole(pictures[number]));
    }

    private static async Task<KeptPicture> AddAsync(PictureRequest request, BookScope scope, CancellationToken cancel) =>
        new(await new KeepPicture(scope).RunAsync(request.Bytes, cancel));

    private static async Task<FileContentHttpResult> ShowAsync(long number, BookScope scope, HttpContext context, CancellationToken cancel)
    {
        if (await scope.Pictures.OfAsync([number], cancel) is not [var picture])
        {
            throw ProblemException.NotFound("This picture");
        }

        // A number is one picture for good.
        context.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.File(picture.Bytes, picture.ContentType);
    }
}
