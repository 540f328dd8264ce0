using Microsoft.AspNetCore.Http.Features;

namespace Rendal.Web.Hosting;

/// <summary>What every request and answer goes through.</summary>
internal static class Guards
{
    private const string OwnHeader = "X-Rendal";

    private const long LargestBody = 64L * 1024 * 1024;

    private const string PagePolicy =
        "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' "
        + "data:; connect-src 'self'; worker-src 'self' blob:; frame-src 'self'; object-src 'none'; base-uri 'self'; "
        + "form-action 'self'; frame-ancestors 'self'";

    private const string MessagePolicy = "default-src 'none'; style-src 'unsafe-inline'; img-src data:";

    /// <summary>Sets what browsers are to allow a page: nothing from elsewhere, and no frame around it.</summary>
    public static Task HeadersAsync(HttpContext context, RequestDelegate next)
    {
        var headers = context.Response.Headers;
        headers.XContentTypeOptions = "nosniff";
        headers.ContentSecurityPolicy = PagePolicy;
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        if (context.Request.Path.StartsWithSegments("/api", StringComparison.Ordinal))
        {
            headers.CacheControl = "no-store";
        }

        return next(context);
    }

    /// <summary>
    /// Refuses changes that another site's page asks for. A page of another origin cannot set a header of its own
    /// without being allowed to first, and nobody is.
    /// </summary>
    public static async Task SameSiteAsync(HttpContext context, RequestDelegate next)
    {
        var changes = !HttpMethods.IsGet(context.Request.Method) && !HttpMethods.IsHead(context.Request.Method);
        if (changes && !context.Request.Headers.ContainsKey(OwnHeader))
        {
            await Results
                .Problem("The request did not come from Rendal’s own pages.", statusCode: StatusCodes.Status400BadRequest)
                .ExecuteAsync(context);
            return;
        }

        await next(context);
    }

    /// <summary>Files may be large; what is no file is held in memory as a whole, and never needs to be.</summary>
    public static Task SmallBodyAsync(HttpContext context, RequestDelegate next)
    {
        if (!context.Request.HasFormContentType && context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size)
        {
            size.MaxRequestBodySize = LargestBody;
        }

        return next(context);
    }

    /// <summary>Sends the HTML of a message so that it can run nothing and fetch nothing, whoever frames it.</summary>
    public static IResult SandboxedHtml(HttpContext context, string html)
    {
        context.Response.Headers.ContentSecurityPolicy = $"sandbox; {MessagePolicy}; frame-ancestors 'self'";
        return Results.Content(html, "text/html; charset=utf-8");
    }

    /// <summary>The same for a page that is sent inside an answer, for a frame with <c>sandbox</c>: it carries its own policy.</summary>
    public static string SandboxedPage(string html) =>
        html.Replace(
            "<head>",
            $"<head><meta http-equiv=\"Content-Security-Policy\" content=\"{MessagePolicy}\">",
            StringComparison.Ordinal
        );
}
