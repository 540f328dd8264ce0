using Npgsql;
using Rendal.Store.Dispatch;

namespace Rendal.Store.Tests.Dispatch;

public class WriteBatcherTests
{
    private readonly List<int[]> together = [];

    [Fact]
    public async Task What_is_asked_while_an_answer_is_made_is_answered_together_each_in_its_place()
    {
        var first = new TaskCompletionSource();
        var gathering = new WriteBatcher<int, int>(
            async questions =>
            {
                together.Add([.. questions]);
                await first.Task;
                return [.. questions.Select(q => q * q)];
            },
            3,
            TimeSpan.Zero
        );
        var answers = Enumerable.Range(1, 5).Select(gathering.AskAsync).ToList();
        first.SetResult();
        Assert.Equal(new[] { 1, 4, 9, 16, 25 }, await Task.WhenAll(answers));
        Assert.Equal(
            [
                [1],
                [2, 3, 4],
                [5],
            ],
            together
        );
    }

    [Fact]
    public async Task One_that_cannot_be_answered_fails_alone()
    {
        var gathering = new WriteBatcher<int, int>(
            questions =>
                questions.Contains(3)
                    ? throw new PostgresException("no", "ERROR", "ERROR", "23505")
                    : Task.FromResult<IReadOnlyList<int>>([.. questions]),
            10,
            TimeSpan.FromMilliseconds(1)
        );
        var answers = Enumerable.Range(1, 5).Select(gathering.AskAsync).ToList();
        await Assert.ThrowsAsync<PostgresException>(() => answers[2]);
        Assert.Equal(new[] { 1, 2, 4, 5 }, await Task.WhenAll(answers.Where((_, i) => i != 2)));
        Assert.Equal(7, await gathering.AskAsync(7));
    }

    [Fact]
    public async Task What_went_wrong_is_told_to_all_who_asked_and_the_next_are_answered()
    {
        var isAway = true;
        var gathering = new WriteBatcher<int, int>(
            questions => isAway ? throw new NpgsqlException("away") : Task.FromResult<IReadOnlyList<int>>([.. questions]),
            10,
            TimeSpan.Zero
        );
        foreach (var asked in new[] { gathering.AskAsync(1), gathering.AskAsync(2) })
        {
            await Assert.ThrowsAsync<NpgsqlException>(() => asked);
        }

        isAway = false;
        Assert.Equal(3, await gathering.AskAsync(3));
    }
}
