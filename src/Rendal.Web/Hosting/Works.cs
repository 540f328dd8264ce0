using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;
using Rendal.App;
using Rendal.Core.Budgets;
using Rendal.Files;

namespace Rendal.Web.Hosting;

/// <summary>How far a long work has come.</summary>
/// <param name="Stage">What is being done, in a word or two for a person.</param>
/// <param name="Rows">Rows done in this stage.</param>
/// <param name="Of">Rows in all; 0 while that is not known.</param>
/// <param name="RowsPerSecond">The speed.</param>
/// <param name="SecondsLeft">What is left of this stage at that speed; null while that is not known.</param>
internal sealed record WorkProgress(string Stage, int Rows, int Of, int RowsPerSecond, int? SecondsLeft);

/// <summary>
/// A work that takes long for large files. A caller that accepts server-sent events hears how far it has come, and
/// stops it by going away; to any other caller it is a request like every other.
/// </summary>
internal sealed partial class Works(IOptions<JsonOptions> json, ILogger<Works> log)
{
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(200);

    /// <summary>Does a work and answers with what came of it.</summary>
    public async Task<IResult> AnswerAsync<T>(HttpContext http, Func<WorkWatch, CancellationToken, Task<T>> work)
    {
        if (!http.Request.Headers.Accept.Any(a => a?.Contains("text/event-stream", StringComparison.Ordinal) == true))
        {
            return TypedResults.Ok(await work(new WorkWatch(), http.RequestAborted));
        }

        http.Response.ContentType = "text/event-stream";
        http.Response.Headers.CacheControl = "no-store";
        var watch = new WorkWatch();
        var doing = Task.Run(() => work(watch, http.RequestAborted), http.RequestAborted);
        while (await Task.WhenAny(doing, Task.Delay(Between, http.RequestAborted)) != doing)
        {
            http.RequestAborted.ThrowIfCancellationRequested();
            await EventAsync(http, "progress", watch.Now());
        }

        try
        {
            await EventAsync(http, "done", await doing);
        }
        catch (Exception e) when (e is Unable or FileRefused or OverBudget)
        {
            // The head of the answer is long gone, so the problem is told inside it.
            await EventAsync(http, "problem", new { status = e is Unable unable ? Problems.StatusOf(unable) : StatusCodes.Status422UnprocessableEntity, detail = e.Message });
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            Unexpected(log, e, http.Request.Path);
            await EventAsync(http, "problem", new { status = StatusCodes.Status500InternalServerError, detail = Problems.SomethingWentWrong });
        }

        return Results.Empty;
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Unexpected while working on {Path}")]
    private static partial void Unexpected(ILogger log, Exception exception, string path);

    private async Task EventAsync<T>(HttpContext http, string name, T data)
    {
        var text = JsonSerializer.Serialize(data, json.Value.SerializerOptions);
        await http.Response.WriteAsync(string.Create(CultureInfo.InvariantCulture, $"event: {name}\ndata: {text}\n\n"), http.RequestAborted);
        await http.Response.Body.FlushAsync(http.RequestAborted);
    }
}

/// <summary>Where a work tells how far it has come; written by the work, read beside it.</summary>
internal sealed class WorkWatch
{
    private readonly Stopwatch since = Stopwatch.StartNew();
    private volatile string stage = "opening";
    private int rows;
    private int of;

    /// <summary>Begins another stage.</summary>
    public void Begin(string what, int all = 0)
    {
        stage = what;
        of = all;
        Volatile.Write(ref rows, 0);
        since.Restart();
    }

    /// <summary>Something to be called for each row of a stage, which also stops it.</summary>
    public Action<int> Rows(CancellationToken cancel) => _ =>
    {
        if ((++rows & 1023) == 0)
        {
            cancel.ThrowIfCancellationRequested();
        }
    };

    public WorkProgress Now()
    {
        var done = Volatile.Read(ref rows);
        var seconds = since.Elapsed.TotalSeconds;
        var speed = seconds < 0.2 ? 0 : (int)(done / seconds);
        return new WorkProgress(stage, done, of, speed, of > 0 && speed > 0 ? (int)Math.Ceiling(Math.Max(of - done, 0) / (double)speed) : null);
    }
}
