using Rendal.Core.Dispatch;

namespace Rendal.Core.Tests.Dispatch;

public class NextStepTests
{
    [Theory]
    [InlineData(1, 1)]
    [InlineData(2, 5)]
    [InlineData(3, 15)]
    [InlineData(4, 60)]
    public void Tries_are_repeated_with_growing_pauses(int tries, int minutes)
    {
        Assert.Equal(new NextStep(ParcelState.ToBeRetried, TimeSpan.FromMinutes(minutes), false), Following(Ending.TryLater, tries));
    }

    [Fact]
    public void After_the_last_pause_the_parcel_is_refused() => Assert.Equal(ParcelState.Refused, Following(Ending.TryLater, 5).State);

    [Fact]
    public void Every_ending_has_its_state()
    {
        Assert.Equal(ParcelState.Sent, Following(Ending.Accepted, 1).State);
        Assert.Equal(ParcelState.Refused, Following(Ending.Refused, 1).State);
        Assert.Equal(ParcelState.Unsure, Following(Ending.Unanswered, 1).State);
        Assert.True(Following(Ending.SignInRefused, 9) is { State: ParcelState.ToBeRetried, PausesSender: true });
    }

    [Fact]
    public void States_are_found_by_their_names()
    {
        Assert.All(Enum.GetValues<ParcelState>(), s => Assert.Equal(s, ParcelStates.Parse(s.Code())));
        Assert.Equal("to-be-retried", ParcelState.ToBeRetried.Code());
    }

    private static NextStep Following(Ending ending, int tries) => NextStep.Following(new Outcome(ending, "", []), tries, NextStep.DefaultPauses);
}
