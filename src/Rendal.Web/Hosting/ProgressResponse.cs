using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Rendal.App;
using Rendal.App.Progress;
using Rendal.Core.Budgets;
using Rendal.Files;

namespace Rendal.Web.Hosting;

/// <summary>
/// A work that takes long for large files. A caller that accepts server-sent events hears how far it has come, and
/// stops it by going away; to any other caller it is a request like every other.
/// </summary>
internal sealed partial class ProgressResponse(ILogger<ProgressResponse> log)
{
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(200);

    /// <summary>
    /// Does a work and answers with what came of it: as JSON, or as events, of which the last is <c>done</c> with what came of it, or
    /// <c>problem</c> with <c>status</c> and <c>detail</c> as of RFC 9457; the head of the answer is long gone by then.
    /// </summary>
    public async Task<IResult> AnswerAsync<T>(HttpContext http, Func<ProgressMeter, CancellationToken, Task<T>> work) =>
        http.Request.Headers.Accept.Any(a => a?.Contains("text/event-stream", StringComparison.Ordinal) == true)
            ? TypedResults.ServerSentEvents(EventsAsync(http.Request.Path, work, http.RequestAborted))
            : TypedResults.Ok(await work(new ProgressMeter(), http.RequestAborted));

    private async IAsyncEnumerable<SseItem<object?>> EventsAsync<T>(
        string path,
        Func<ProgressMeter, CancellationToken, Task<T>> work,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        var meter = new ProgressMeter();
        var doing = Task.Run(() => work(meter, cancel), cancel);
        while (await Task.WhenAny(doing, Task.Delay(Between, cancel)) != doing)
        {
            cancel.ThrowIfCancellationRequested();
            yield return new SseItem<object?>(meter.Now(), "progress");
        }

        yield return await EndAsync(path, doing);
    }

    private async Task<SseItem<object?>> EndAsync<T>(string path, Task<T> doing)
    {
        try
        {
            return new SseItem<object?>(await doing, "done");
        }
        catch (Exception e) when (e is ProblemException or FileRefused or OverBudget)
        {
            var status = e is ProblemException problem ? Problems.StatusOf(problem) : StatusCodes.Status422UnprocessableEntity;
            return new SseItem<object?>(new { status, detail = e.Message }, "problem");
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            Unexpected(log, e, path);
            var problem = new { status = StatusCodes.Status500InternalServerError, detail = Problems.SomethingWentWrong };
            return new SseItem<object?>(problem, "problem");
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Unexpected while working on {Path}")]
    private static partial void Unexpected(ILogger log, Exception exception, string path);
}
