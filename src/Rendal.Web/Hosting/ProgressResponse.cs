using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;
using Rendal.App;
using Rendal.App.Progress;
using Rendal.Core.Budgets;
using Rendal.Files;

namespace Rendal.Web.Hosting;

/// <summary>
/// A work that takes long for large files. A caller that accepts server-sent events hears how far it has come, and
/// stops it by going away; to any other caller it is a request like every other.
/// </summary>
internal sealed partial class ProgressResponse(IOptions<JsonOptions> json, ILogger<ProgressResponse> log)
{
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(200);

    /// <summary>Does a work and answers with what came of it.</summary>
    public async Task<IResult> AnswerAsync<T>(HttpContext http, Func<ProgressMeter, CancellationToken, Task<T>> work)
    {
        if (!http.Request.Headers.Accept.Any(a => a?.Contains("text/event-stream", StringComparison.Ordinal) == true))
        {
            return TypedResults.Ok(await work(new ProgressMeter(), http.RequestAborted));
        }

        http.Response.ContentType = "text/event-stream";
        http.Response.Headers.CacheControl = "no-store";
        var meter = new ProgressMeter();
        var doing = Task.Run(() => work(meter, http.RequestAborted), http.RequestAborted);
        while (await Task.WhenAny(doing, Task.Delay(Between, http.RequestAborted)) != doing)
        {
            http.RequestAborted.ThrowIfCancellationRequested();
            await EventAsync(http, "progress", meter.Now());
        }

        try
        {
            await EventAsync(http, "done", await doing);
        }
        catch (Exception e) when (e is ProblemException or FileRefused or OverBudget)
        {
            // The head of the answer is long gone, so the problem is told inside it.
            await EventAsync(
                http,
                "problem",
                new
                {
                    status = e is ProblemException unable ? Problems.StatusOf(unable) : StatusCodes.Status422UnprocessableEntity,
                    detail = e.Message,
                }
            );
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            Unexpected(log, e, http.Request.Path);
            await EventAsync(
                http,
                "problem",
                new { status = StatusCodes.Status500InternalServerError, detail = Problems.SomethingWentWrong }
            );
        }

        return Results.Empty;
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Unexpected while working on {Path}")]
    private static partial void Unexpected(ILogger log, Exception exception, string path);

    private async Task EventAsync<T>(HttpContext http, string name, T data)
    {
        var text = JsonSerializer.Serialize(data, json.Value.SerializerOptions);
        await http.Response.WriteAsync(
            string.Create(CultureInfo.InvariantCulture, $"event: {name}\ndata: {text}\n\n"),
            http.RequestAborted
        );
        await http.Response.Body.FlushAsync(http.RequestAborted);
    }
}
