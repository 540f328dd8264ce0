using System.Diagnostics.CodeAnalysis;
using Npgsql;

namespace Rendal.Store.Dispatch;

/// <summary>
/// Answers together what is asked at about the same time: what comes while an answer is being made waits for it, and is then answered with
/// all else that waits. Safe to be asked by many at once.
/// </summary>
/// <param name="answer">
/// Answers questions, each in its place. Where one of several cannot be answered (<see cref="PostgresException"/>), each is
/// asked by itself, so that only that one fails; what else it throws comes to all of them.
/// </param>
/// <param name="most">How many it is given at a time, at most.</param>
/// <param name="wait">How long the first who asks waits for others to join; zero for not at all.</param>
internal sealed class WriteBatcher<TQuestion, TAnswer>(
    Func<IReadOnlyList<TQuestion>, Task<IReadOnlyList<TAnswer>>> answer,
    int most,
    TimeSpan wait
)
{
    private const string ForWhoAsked = "Whatever it is, it is for those who asked to see to it.";

    private readonly Lock gate = new();
    private readonly Queue<(TQuestion Question, TaskCompletionSource<TAnswer> Answer)> waiting = [];
    private bool isAnswering;

    /// <summary>Asks, and waits for the answer.</summary>
    public Task<TAnswer> AskAsync(TQuestion question)
    {
        // Who waits goes on at once and not when a thread is free: the time between the mark that the end is given and the giving is that
        // in which a kill leaves a parcel unsure.
        var asked = new TaskCompletionSource<TAnswer>();
        lock (gate)
        {
            waiting.Enqueue((question, asked));
            if (isAnswering)
            {
                return asked.Task;
            }

            isAnswering = true;
        }

        _ = AnswerAllAsync();
        return asked.Task;
    }

    [SuppressMessage("Design", "CA1031", Justification = ForWhoAsked)]
    private async Task AnswerAllAsync()
    {
        if (wait > TimeSpan.Zero)
        {
            await Task.Delay(wait);
        }

        while (Next() is { Count: > 0 } asked)
        {
            try
            {
                await AnswerAsync(asked);
            }
            catch (PostgresException) when (asked.Count > 1)
            {
                foreach (var one in asked)
                {
                    await AnswerAloneAsync(one);
                }
            }
            catch (Exception e)
            {
                asked.ForEach(one => one.Answer.SetException(e));
            }
        }
    }

    private async Task AnswerAsync(List<(TQuestion Question, TaskCompletionSource<TAnswer> Answer)> asked)
    {
        var answers = await answer([.. asked.Select(a => a.Question)]);
        for (var at = 0; at < asked.Count; at++)
        {
            asked[at].Answer.SetResult(answers[at]);
        }
    }

    [SuppressMessage("Design", "CA1031", Justification = ForWhoAsked)]
    private async Task AnswerAloneAsync((TQuestion Question, TaskCompletionSource<TAnswer> Answer) asked)
    {
        try
        {
            await AnswerAsync([asked]);
        }
        catch (Exception e)
        {
            asked.Answer.SetException(e);
        }
    }

    private List<(TQuestion Question, TaskCompletionSource<TAnswer> Answer)> Next()
    {
        lock (gate)
        {
            var next = new List<(TQuestion, TaskCompletionSource<TAnswer>)>();
            while (next.Count < most && waiting.TryDequeue(out var one))
            {
                next.Add(one);
            }

            isAnswering = next.Count > 0;
            return next;
        }
    }
}
