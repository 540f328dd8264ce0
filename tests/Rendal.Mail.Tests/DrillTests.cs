using System.Security.Cryptography.X509Certificates;
using Rendal.Core.Dispatch;
using Rendal.Postroom;

namespace Rendal.Mail.Tests;

/// <summary>
/// How each answer, each cut and each bad certificate of a real server ends. Each test has an account, or a postroom, of its own.
/// </summary>
public class DrillTests
{
    private static readonly Draft Draft = new(
        "Tarnbrook",
        "accounts@tarnbrook.example",
        ["kell@inn.example"],
        [],
        "Statement",
        "<p>Dear Ms Caldera</p>",
        "en",
        [new Enclosure("a.pdf", "application/pdf", new byte[40_000])],
        DateTimeOffset.UnixEpoch
    );

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData(DrillStep.Greeting, "421 4.3.2 not now", OutcomeKind.Unreachable)]
    [InlineData(DrillStep.Greeting, "554 no mail here", OutcomeKind.Unreachable)]
    [InlineData(DrillStep.Hello, "550 not you", OutcomeKind.Unreachable)]
    [InlineData(DrillStep.SignIn, "454 4.7.0 the directory is away", OutcomeKind.Unreachable)]
    [InlineData(DrillStep.SignIn, "535 5.7.8 wrong password", OutcomeKind.SignInRefused)]
    [InlineData(DrillStep.Sender, "421 4.3.2 closing", OutcomeKind.TryLater)]
    [InlineData(DrillStep.Sender, "450 4.3.0 busy", OutcomeKind.TryLater)]
    [InlineData(DrillStep.Sender, "451 4.3.0 come back", OutcomeKind.TryLater)]
    [InlineData(DrillStep.Sender, "452 4.3.1 full", OutcomeKind.TryLater)]
    [InlineData(DrillStep.Sender, "550 5.7.1 not this sender", OutcomeKind.Refused)]
    [InlineData(DrillStep.Sender, "552 5.3.4 too large", OutcomeKind.Refused)]
    [InlineData(DrillStep.Recipient, "421 4.3.2 closing", OutcomeKind.TryLater)]
    [InlineData(DrillStep.Recipient, "450 4.2.1 busy", OutcomeKind.TryLater)]
    [InlineData(DrillStep.Recipient, "452 4.2.2 mailbox full", OutcomeKind.TryLater)]
    [InlineData(DrillStep.Recipient, "550 5.1.1 unknown", OutcomeKind.Refused)]
    [InlineData(DrillStep.Data, "421 4.3.2 closing", OutcomeKind.TryLater)]
    [InlineData(DrillStep.Data, "451 4.3.0 come back", OutcomeKind.TryLater)]
    [InlineData(DrillStep.Data, "554 5.5.1 no", OutcomeKind.Refused)]
    [InlineData(DrillStep.End, "421 4.3.2 closing", OutcomeKind.TryLater)]
    [InlineData(DrillStep.End, "451 4.3.0 come back", OutcomeKind.TryLater)]
    [InlineData(DrillStep.End, "452 4.3.1 full", OutcomeKind.TryLater)]
    [InlineData(DrillStep.End, "550 5.7.1 looks like spam", OutcomeKind.Refused)]
    [InlineData(DrillStep.End, "552 5.3.4 too large", OutcomeKind.Refused)]
    [InlineData(DrillStep.End, "554 5.6.0 no", OutcomeKind.Refused)]
    public async Task Each_answer_has_its_ending_and_its_words_are_told(DrillStep step, string answer, OutcomeKind kind)
    {
        await using var postroom = await BegunAsync(new Drill(step, DrillAct.Answer, answer));
        var outcome = await CarryAsync(postroom);
        Assert.Equal(kind, outcome.Kind);
        Assert.Contains(answer, outcome.Answer, StringComparison.Ordinal);
        Assert.Empty(postroom.Mailbox.Of("drilled"));
    }

    [Fact]
    public async Task A_server_that_closes_at_the_first_word_cannot_be_reached()
    {
        await using var postroom = await BegunAsync(new Drill(DrillStep.Hello, DrillAct.Answer, "421 4.3.2 not now"));
        Assert.Equal(OutcomeKind.Unreachable, (await CarryAsync(postroom)).Kind);
    }

    [Theory]
    [InlineData(DrillStep.Greeting, OutcomeKind.Unreachable)]
    [InlineData(DrillStep.Hello, OutcomeKind.Unreachable)]
    [InlineData(DrillStep.SignIn, OutcomeKind.Unreachable)]
    [InlineData(DrillStep.Sender, OutcomeKind.TryLater)]
    [InlineData(DrillStep.Recipient, OutcomeKind.TryLater)]
    [InlineData(DrillStep.End, OutcomeKind.Unanswered)]
    public async Task Each_cut_has_its_ending(DrillStep step, OutcomeKind kind)
    {
        await using var postroom = await BegunAsync(new Drill(step, DrillAct.Cut));
        Assert.Equal(kind, (await CarryAsync(postroom)).Kind);
        Assert.Empty(postroom.Mailbox.Of("drilled"));
    }

    [Fact]
    public async Task A_message_cut_off_in_its_middle_is_tried_later_even_where_all_of_it_was_on_the_way()
    {
        await using var postroom = await BegunAsync(new Drill(DrillStep.Data, DrillAct.Cut));
        var outcome = await CarryAsync(postroom, beforeEnd: postroom.LineGoneAsync);
        Assert.Equal((OutcomeKind.TryLater, false), (outcome.Kind, postroom.Mailbox.Of("drilled").Count > 0));
    }

    [Fact]
    public async Task A_message_that_was_kept_before_the_cut_is_unanswered_all_the_same()
    {
        await using var postroom = await BegunAsync(new Drill(DrillStep.End, DrillAct.KeepAndCut));
        Assert.Equal(OutcomeKind.Unanswered, (await CarryAsync(postroom)).Kind);
        Assert.Single(postroom.Mailbox.Of("drilled"));
    }

    [Theory]
    [InlineData(DrillStep.Greeting)]
    [InlineData(DrillStep.Hello)]
    [InlineData(DrillStep.Recipient)]
    [InlineData(DrillStep.End)]
    public async Task Answers_that_drip_are_waited_for(DrillStep step)
    {
        await using var postroom = await BegunAsync(new Drill(step, DrillAct.Drip));
        Assert.Equal(OutcomeKind.Accepted, (await CarryAsync(postroom)).Kind);
        Assert.Single(postroom.Mailbox.Of("drilled"));
    }

    [Theory]
    [InlineData(DrillStep.Recipient, OutcomeKind.TryLater)]
    [InlineData(DrillStep.End, OutcomeKind.Unanswered)]
    public async Task Answers_that_drip_for_ever_are_not(DrillStep step, OutcomeKind kind)
    {
        await using var postroom = await BegunAsync(new Drill(step, DrillAct.Drip));
        postroom.Drills.DripEvery = TimeSpan.FromHours(1);
        Assert.Equal(kind, (await CarryAsync(postroom, timeout: TimeSpan.FromMilliseconds(400))).Kind);
    }

    [Fact]
    public async Task One_recipient_who_is_refused_does_not_keep_the_others_from_theirs()
    {
        await using var postroom = await BegunAsync(new Drill(DrillStep.Recipient, DrillAct.Answer, "550 5.1.1 unknown", To: "gone@"));
        var outcome = await CarryAsync(postroom, to: ["gone@inn.example", "kell@inn.example"]);
        Assert.Equal(OutcomeKind.Accepted, outcome.Kind);
        Assert.Equal(
            [("gone@inn.example", false, "550 5.1.1 unknown"), ("kell@inn.example", true, "250 2.1.5 recipient noted")],
            outcome.Recipients.Select(r => (r.Address, r.Accepted, r.Answer))
        );
        Assert.Equal(["kell@inn.example"], Assert.Single(postroom.Mailbox.Of("drilled")).Recipients);
    }

    [Theory]
    [InlineData("drill.recipient.550@inn.example", OutcomeKind.Refused)]
    [InlineData("drill.recipient.450@inn.example", OutcomeKind.TryLater)]
    [InlineData("drill.data.452@inn.example", OutcomeKind.TryLater)]
    [InlineData("drill.end.554@inn.example", OutcomeKind.Refused)]
    [InlineData("drill.end.cut@inn.example", OutcomeKind.Unanswered)]
    [InlineData("drill.end.keep-and-cut@inn.example", OutcomeKind.Unanswered)]
    [InlineData("drill.end.drip@inn.example", OutcomeKind.Accepted)]
    [InlineData("drill.end.twice@inn.example", OutcomeKind.Accepted)]
    public async Task An_address_asks_for_its_drill_itself(string address, OutcomeKind kind)
    {
        await using var postroom = await RunningAsync();
        Assert.Equal(kind, (await CarryAsync(postroom, to: [address])).Kind);
    }

    [Fact]
    public async Task What_an_address_asks_for_once_is_met_by_the_first_message_alone()
    {
        await using var postroom = await RunningAsync();
        Assert.Equal(OutcomeKind.TryLater, (await CarryAsync(postroom, to: ["drill.end.451.once@inn.example"])).Kind);
        Assert.Equal(OutcomeKind.Accepted, (await CarryAsync(postroom, to: ["drill.end.451.once@inn.example"])).Kind);
    }

    [Theory]
    [InlineData(DrillAct.Cut, "")]
    [InlineData(DrillAct.Answer, "421 4.7.0 enough on this line")]
    public async Task A_line_that_was_closed_between_two_messages_is_made_anew_and_the_message_goes(DrillAct act, string answer)
    {
        await using var postroom = await RunningAsync();
        await using var deliverer = Deliverer(postroom);
        Assert.Equal(OutcomeKind.Accepted, (await CarryAsync(deliverer)).Kind);
        postroom.Drills.Begin("drilled", new Drill(DrillStep.Sender, act, answer, Left: 1));
        Assert.Equal(OutcomeKind.Accepted, (await CarryAsync(deliverer)).Kind);
        Assert.Equal(2, postroom.Mailbox.Of("drilled").Count);
    }

    [Fact]
    public async Task A_server_takes_no_more_and_nothing_larger_than_its_limits()
    {
        await using var postroom = await RunningAsync();
        await using var deliverer = Deliverer(postroom);
        postroom.Drills.Limit("drilled", new PracticeLimits(1_000_000, MessagesAMinute: 2));
        Assert.Equal(
            [OutcomeKind.Accepted, OutcomeKind.Accepted, OutcomeKind.TryLater],
            [(await CarryAsync(deliverer)).Kind, (await CarryAsync(deliverer)).Kind, (await CarryAsync(deliverer)).Kind]
        );
        postroom.Drills.Limit("drilled", new PracticeLimits(30_000, null));
        var tooLarge = await CarryAsync(deliverer);
        Assert.Equal((OutcomeKind.Refused, "552 5.3.4 the message is larger than 30000 bytes"), (tooLarge.Kind, tooLarge.Answer));
    }

    [Theory]
    [InlineData(LineSecurity.StartTls)]
    [InlineData(LineSecurity.Tls)]
    public async Task A_secured_line_is_taken_where_its_authority_is_trusted(LineSecurity security)
    {
        await using var postroom = await RunningAsync();
        Assert.Equal(OutcomeKind.Accepted, (await SecuredAsync(postroom, security, [postroom.Authority])).Kind);
        Assert.Equal(OutcomeKind.Unreachable, (await SecuredAsync(postroom, security, null)).Kind);
    }

    [Theory]
    [InlineData(PracticeCertificate.Expired)]
    [InlineData(PracticeCertificate.OtherName)]
    [InlineData(PracticeCertificate.OfNobody)]
    public async Task A_bad_certificate_is_not_talked_past(PracticeCertificate bad)
    {
        await using var postroom = await RunningAsync();
        postroom.Drills.Certificate = bad;
        foreach (var security in new[] { LineSecurity.StartTls, LineSecurity.Tls })
        {
            Assert.Equal(OutcomeKind.Unreachable, (await SecuredAsync(postroom, security, [postroom.Authority])).Kind);
        }

        Assert.Empty(postroom.Mailbox.Of("drilled"));
    }

    [Fact]
    public async Task Where_the_line_must_be_secured_and_cannot_be_nothing_is_said_in_the_clear()
    {
        await using var postroom = await BegunAsync(new Drill(DrillStep.Security, DrillAct.Answer, "454 4.7.0 no keys today"));
        Assert.Equal(OutcomeKind.Unreachable, (await SecuredAsync(postroom, LineSecurity.StartTls, [postroom.Authority])).Kind);
        Assert.Empty(postroom.Mailbox.Of("drilled"));
    }

    private static async Task<RunningPostroom> RunningAsync()
    {
        var postroom = new RunningPostroom();
        await postroom.InitializeAsync();
        return postroom;
    }

    private static async Task<RunningPostroom> BegunAsync(Drill drill)
    {
        var postroom = await RunningAsync();
        postroom.Drills.Begin("", drill);
        return postroom;
    }

    private static Deliverer Deliverer(RunningPostroom postroom, TimeSpan? timeout = null) =>
        new(
            new MailAccount("127.0.0.1", postroom.Port, LineSecurity.None, "drilled", "practice"),
            timeout ?? TimeSpan.FromSeconds(30),
            MailNetwork.Everywhere()
        );

    private static async Task<Outcome> CarryAsync(
        RunningPostroom postroom,
        Func<Task>? beforeEnd = null,
        string[]? to = null,
        TimeSpan? timeout = null
    )
    {
        await using var deliverer = Deliverer(postroom, timeout);
        return await CarryAsync(deliverer, beforeEnd, to);
    }

    private static Task<Outcome> CarryAsync(Deliverer deliverer, Func<Task>? beforeEnd = null, string[]? to = null) =>
        deliverer.CarryAsync(
            MessageBuilder.Make(Draft).Bytes,
            Draft.SenderAddress,
            to ?? Draft.To,
            beforeEnd ?? (() => Task.CompletedTask),
            Cancel
        );

    private static async Task<Outcome> SecuredAsync(
        RunningPostroom postroom,
        LineSecurity security,
        X509Certificate2Collection? authorities
    )
    {
        await using var deliverer = new Deliverer(
            new MailAccount(
                "127.0.0.1",
                security == LineSecurity.Tls ? postroom.SecuredPort : postroom.Port,
                security,
                "drilled",
                "practice"
            ),
            TimeSpan.FromSeconds(30),
            MailNetwork.Everywhere(authorities)
        );
        return await CarryAsync(deliverer);
    }
}
