using Rendal.Postroom;

namespace Rendal.Mail.Tests;

/// <summary>How long a mail account is tried, at the real postroom. What each step says is tested where a person asks for it.</summary>
public sealed class AccountTrialTests : IAsyncDisposable
{
    private readonly RunningPostroom postroom = new();

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public ValueTask DisposeAsync() => postroom.DisposeAsync();

    [Theory]
    [InlineData(DrillStep.Greeting, TrialStep.Line)]
    [InlineData(DrillStep.SignIn, TrialStep.SignIn)]
    [InlineData(DrillStep.Sender, TrialStep.Address)]
    public async Task A_server_that_is_never_silent_for_long_and_never_done_ends_the_test_at_its_step(DrillStep drips, TrialStep ends)
    {
        await postroom.InitializeAsync();
        postroom.Drills.Begin(drips == DrillStep.Sender ? "tried" : "", new Drill(drips, DrillAct.Drip));
        postroom.Drills.DripEvery = TimeSpan.FromMilliseconds(500);
        var trial = await AccountTrial.TryAsync(
            new MailAccount("127.0.0.1", postroom.Port, LineSecurity.None, "tried", "practice"),
            "accounts@tarnbrook.example",
            TimeSpan.FromSeconds(2),
            MailNetwork.Everywhere(),
            Cancel
        );
        var last = trial.Answers[^1];
        Assert.Equal((ends, false, "the server did not get this done in the 2 seconds of the test"), (last.Step, last.Passed, last.Words));
        Assert.All(trial.Answers.SkipLast(1), answer => Assert.True(answer.Passed));
    }
}
