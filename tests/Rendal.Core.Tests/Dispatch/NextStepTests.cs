using Rendal.Core.Dispatch;

namespace Rendal.Core.Tests.Dispatch;

public class NextStepTests
{
    [Theory]
    [InlineData(1, 1)]
    [InlineData(2, 5)]
    [InlineData(3, 15)]
    [InlineData(4, 60)]
    public void Attempts_are_repeated_with_growing_pauses(int attempts, int minutes)
    {
        Assert.Equal(new NextStep(ParcelState.ToBeRetried, TimeSpan.FromMinutes(minutes)), Following(OutcomeKind.TryLater, attempts));
    }

    [Fact]
    public void After_the_last_pause_the_parcel_is_refused() =>
        Assert.Equal(ParcelState.Refused, Following(OutcomeKind.TryLater, 5).State);

    [Fact]
    public void No_outcome_is_forgotten_in_what_follows() =>
        Assert.All(Enum.GetValues<OutcomeKind>(), kind => Assert.NotEqual(ParcelState.Sending, Following(kind, 1).State));

    [Fact]
    public void Every_outcome_has_its_state()
    {
        Assert.Equal(ParcelState.Sent, Following(OutcomeKind.Accepted, 1).State);
        Assert.Equal(ParcelState.Refused, Following(OutcomeKind.Refused, 1).State);
        Assert.Equal(ParcelState.Unsure, Following(OutcomeKind.Unanswered, 1).State);
        Assert.Equal(ParcelState.Exported, Following(OutcomeKind.Exported, 1).State);
        Assert.Equal(ParcelState.Printed, Following(OutcomeKind.Printed, 1).State);
        Assert.Equal(new NextStep(ParcelState.ToBeRetried, TimeSpan.Zero), Following(OutcomeKind.Stopped, 9));
    }

    [Theory]
    [InlineData(OutcomeKind.SignInRefused, SenderStep.Stops)]
    [InlineData(OutcomeKind.Unreachable, SenderStep.Waits)]
    public void What_is_wrong_with_the_server_is_the_senders_and_uses_up_no_try_of_a_parcel(OutcomeKind kind, SenderStep sender)
    {
        var next = Following(kind, 9);
        Assert.Equal((ParcelState.ToBeRetried, sender, false), (next.State, next.Sender, next.CountsAsTry));
        Assert.True(Following(OutcomeKind.Refused, 1).CountsAsTry);
    }

    [Fact]
    public void A_server_that_is_away_is_asked_again_soon_at_first_and_every_five_minutes_in_the_end() =>
        Assert.Equal([10, 30, 60, 120, 300, 300], Enumerable.Range(1, 6).Select(n => NextStep.Waiting(n).TotalSeconds));

    [Fact]
    public void Who_is_put_off_while_others_are_taken_is_tried_again_and_in_the_end_told_of()
    {
        var outcome = new Outcome(
            OutcomeKind.Accepted,
            "250 ok",
            [new("a@inn.example", true, "250 ok"), new("b@inn.example", false, "450 busy")]
        );
        Assert.Equal(ParcelState.ToBeRetried, NextStep.Following(outcome, 1, NextStep.DefaultPauses).State);
        Assert.Equal(ParcelState.Sent, NextStep.Following(outcome, 5, NextStep.DefaultPauses).State);
        var refused = new Outcome(
            OutcomeKind.Accepted,
            "250 ok",
            [new("a@inn.example", true, "250 ok"), new("b@inn.example", false, "550 unknown")]
        );
        Assert.Equal(ParcelState.Sent, NextStep.Following(refused, 1, NextStep.DefaultPauses).State);
    }

    [Theory]
    [InlineData(OutcomeKind.Refused, 2)]
    [InlineData(OutcomeKind.TryLater, 5)]
    public void What_is_refused_after_some_had_it_is_sent_and_not_refused(OutcomeKind kind, int attempts) =>
        Assert.Equal(
            ParcelState.Sent,
            NextStep.Following(new Outcome(kind, "", []), attempts, NextStep.DefaultPauses, someHaveIt: true).State
        );

    [Fact]
    public void A_message_that_only_the_sender_got_was_not_sent()
    {
        RecipientAnswer self = new("us@tarnbrook.example", true, "250 ok");
        Assert.Equal((OutcomeKind.Refused, "550 unknown"), Seen(self, new("a@inn.example", false, "550 unknown")));
        Assert.Equal((OutcomeKind.TryLater, "450 busy"), Seen(self, new("a@inn.example", false, "450 busy")));
        Assert.Equal((OutcomeKind.Accepted, "250 kept"), Seen(self, new("a@inn.example", true, "250 ok")));

        (OutcomeKind, string) Seen(params RecipientAnswer[] answers)
        {
            var outcome = new Outcome(OutcomeKind.Accepted, "250 kept", answers).Without("US@tarnbrook.example");
            Assert.DoesNotContain(self, outcome.Recipients);
            return (outcome.Kind, outcome.Answer);
        }
    }

    [Fact]
    public void States_are_found_by_their_names()
    {
        Assert.All(Enum.GetValues<ParcelState>(), s => Assert.Equal(s, ParcelStates.Parse(s.Code())));
        Assert.Equal("to-be-retried", ParcelState.ToBeRetried.Code());
    }

    private static NextStep Following(OutcomeKind kind, int attempts) =>
        NextStep.Following(new Outcome(kind, "", []), attempts, NextStep.DefaultPauses);
}
