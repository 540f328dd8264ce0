using System.Globalization;
using Microsoft.AspNetCore.Diagnostics;
using Rendal.Files;

namespace Rendal.Web.Hosting;

/// <summary>Something that cannot be done, in words for the person who asked.</summary>
/// <param name="status">The HTTP status that fits.</param>
/// <param name="message">What happened, where, and what to do.</param>
internal sealed class Unable(int status, string message) : Exception(message)
{
    public int Status { get; } = status;

    /// <summary>After how many seconds it is worth trying again; null where waiting changes nothing.</summary>
    public int? RetryAfterSeconds { get; init; }

    public static Unable NotFound(string what) => new(StatusCodes.Status404NotFound, $"{what} is not there.");

    public static Unable Conflict(string message) => new(StatusCodes.Status409Conflict, message);

    public static Unable Invalid(string message) => new(StatusCodes.Status422UnprocessableEntity, message);
}

/// <summary>Makes problem+json of what went wrong.</summary>
internal sealed partial class Problems(IProblemDetailsService details, ILogger<Problems> log) : IExceptionHandler
{
    /// <summary>What a person is told of an error of the program's own.</summary>
    public const string SomethingWentWrong = "Something went wrong in Rendal. Nothing was changed by this request; the log of the server says more.";

    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken cancellationToken)
    {
        var (status, detail) = exception switch
        {
            Unable unable => (unable.Status, unable.Message),
            FileRefused refused => (StatusCodes.Status422UnprocessableEntity, refused.Message),
            BadHttpRequestException bad => (bad.StatusCode, "The request is not understood."),
            OperationCanceledException when context.RequestAborted.IsCancellationRequested => (499, "The request was given up."),
            _ => (StatusCodes.Status500InternalServerError, SomethingWentWrong),
        };
        if (status == StatusCodes.Status500InternalServerError)
        {
            Unexpected(log, exception, context.Request.Path);
        }

        if (exception is Unable { RetryAfterSeconds: { } seconds })
        {
            context.Response.Headers.RetryAfter = seconds.ToString(CultureInfo.InvariantCulture);
        }

        context.Response.StatusCode = status;
        return await details.TryWriteAsync(new ProblemDetailsContext { HttpContext = context, ProblemDetails = { Status = status, Detail = detail } });
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Unexpected while answering {Path}")]
    private static partial void Unexpected(ILogger log, Exception exception, string path);
}
