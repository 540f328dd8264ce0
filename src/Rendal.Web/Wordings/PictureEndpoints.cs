using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Wordings;
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
    private static string Whole(string contentType, byte[] bytes) => $"data:{contentType};base64,{Convert.ToBase64String(bytes)}";

    /// <summary>A body as it is looked at.</summary>
    public static async Task<string> ShownAsync(string body, BookScope scope, CancellationToken cancel)
    {
        var pictures = (await scope.Pictures.OfAsync(PicturePlaces.Of(body), cancel)).ToDictionary(p => p.Number);
        var codes = PaymentCodes.Of(body);
        var shown = PicturePlaces.Put(body, number => Whole(pictures[number].ContentType, pictures[number].Bytes));
        return PaymentCodePlaces.Put(shown, code => Whole("image/png", codes[code]));
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
