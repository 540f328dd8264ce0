using Rendal.Core.Dispatch;

namespace Rendal.Core.Tests.Dispatch;

public class OutcomeTests
{
    private static readonly RecipientAnswer Taken = new("a@inn.example", true, "250 2.1.5 ok");

    [Fact]
    public void The_answer_tells_of_the_recipients_that_were_not_taken_beside_others()
    {
        RecipientAnswer refused = new("b@inn.example", false, "550 5.1.1 no such mailbox"),
            putOff = new("c@inn.example", false, "450 busy");
        Assert.Equal("250 kept", Outcome.Told("250 kept", [Taken]));
        Assert.Equal(
            "250 kept; 1 of 2 recipients refused: b@inn.example: 550 5.1.1 no such mailbox",
            Outcome.Told("250 kept", [Taken, refused])
        );
        Assert.Equal("250 kept; 1 of 2 recipients put off: c@inn.example: 450 busy", Outcome.Told("250 kept", [Taken, putOff]));
        Assert.Equal("550 5.1.1 no such mailbox", Outcome.Told("550 5.1.1 no such mailbox", [refused]));
    }

    [Theory]
    [InlineData("550 5.1.1 no such mailbox", true)]
    [InlineData("550 no such mailbox", true)]
    [InlineData("551 moved", true)]
    [InlineData("553 5.1.3 what is that", true)]
    [InlineData("556 5.1.10 takes no mail", true)]
    [InlineData("550 5.2.1 closed", true)]
    [InlineData("550 5.7.1 not from there", false)]
    [InlineData("554 5.7.1 relaying is not allowed", false)]
    [InlineData("553 5.1.8 the sender's domain is not known", false)]
    [InlineData("552 5.2.2 over quota", false)]
    [InlineData("550 5.4.1 of host 10.5.1.1", false)]
    [InlineData("554 no", false)]
    [InlineData("450 4.1.1 not now", false)]
    public void Only_what_is_said_of_the_address_counts_against_it(string answer, bool isBad) =>
        Assert.Equal(isBad, new RecipientAnswer("b@inn.example", false, answer).IsAddressBad);

    [Fact]
    public void An_address_that_was_taken_is_not_bad_whatever_else_is_said() =>
        Assert.False(new RecipientAnswer("b@inn.example", true, "550 5.1.1 no").IsAddressBad);
}
