using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Npgsql;
using Rendal.App;
using Rendal.Core.Budgets;
using Rendal.Files;

namespace Rendal.Web.Hosting;

/// <summary>Makes problem+json of what went wrong.</summary>
internal sealed partial class Problems(IProblemDetailsService details, ILogger<Problems> log) : IExceptionHandler
{
    /// <summary>What a person is told of an error of the program's own.</summary>
    public const string SomethingWentWrong =
        "Something went wrong in Rendal. Nothing was changed by this request; the log of the server says more.";

    /// <summary>The HTTP status that fits what cannot be done.</summary>
    public static int StatusOf(ProblemException unable) =>
        unable.Reason switch
        {
            ProblemReason.NotFound => StatusCodes.Status404NotFound,
            ProblemReason.Conflict => StatusCodes.Status409Conflict,
            ProblemReason.Invalid => StatusCodes.Status422UnprocessableEntity,
            ProblemReason.Forbidden => StatusCodes.Status403Forbidden,
            ProblemReason.NotSignedIn => StatusCodes.Status401Unauthorized,
            ProblemReason.TooMany => StatusCodes.Status429TooManyRequests,
            _ => throw new ArgumentOutOfRangeException(nameof(unable), unable.Reason, null),
        };

    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken cancellationToken)
    {
        var (status, detail) = exception switch
        {
            ProblemException unable => (StatusOf(unable), unable.Message),
            FileRefused or OverBudget => (StatusCodes.Status422UnprocessableEntity, exception.Message),
            BadHttpRequestException bad => (bad.StatusCode, NotUnderstood(bad)),
            OperationCanceledException when context.RequestAborted.IsCancellationRequested => (499, "The request was given up."),
            NpgsqlException away when DatabaseUnreachable.Is(away) => (StatusCodes.Status503ServiceUnavailable, DatabaseUnreachable.Words),
            _ when !RequestCheck.IsBound(context) && IsOfTheRequest(exception) => (
                StatusCodes.Status400BadRequest,
                NotUnderstood(exception)
            ),
            _ => (StatusCodes.Status500InternalServerError, SomethingWentWrong),
        };
        if (status == StatusCodes.Status500InternalServerError)
        {
            Unexpected(log, exception, context.Request.Path);
        }

        if (
            (
                exception is ProblemException { RetryAfterSeconds: var after } ? after
                : status == StatusCodes.Status503ServiceUnavailable ? 2
                : null
            ) is
            { } seconds
        )
        {
            context.Response.Headers.RetryAfter = seconds.ToString(CultureInfo.InvariantCulture);
        }

        context.Response.StatusCode = status;
        return await details.TryWriteAsync(
            new ProblemDetailsContext { HttpContext = context, ProblemDetails = { Status = status, Detail = detail } }
        );
    }

    /// <summary>
    /// Whether what failed before a handler began is what the request says: a part of a layout without its kind, half a character.
    /// </summary>
    private static bool IsOfTheRequest(Exception exception) =>
        exception is NotSupportedException or FormatException or ArgumentException or OverflowException
        || exception is InvalidOperationException { Source: "System.Text.Json" };

    /// <summary>What of a request is not understood, as far as the reader told: <c>$.levels[2].days</c>.</summary>
    private static string NotUnderstood(Exception exception) =>
        exception is { InnerException: JsonException { Path.Length: > 1 } json } ? $"The request is not understood at “{json.Path[2..]}”."
        : exception is BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge }
            ? "The request is larger than anything that can be used."
        : "The request is not understood.";

    [LoggerMessage(Level = LogLevel.Error, Message = "Unexpected while answering {Path}")]
    private static partial void Unexpected(ILogger log, Exception exception, string path);
}
