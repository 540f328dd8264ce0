using Rendal.App.Readiness;
using Rendal.Store.Senders;

namespace Rendal.App.Tests.Readiness;

public class MessageSizesTests
{
    private static readonly Sender Accounts = new(
        1,
        "Accounts",
        "accounts@tarnbrook.example",
        "mail.tarnbrook.example",
        587,
        "",
        "",
        null
    );

    [Theory]
    [InlineData(10_000_000, 10_000_000, 0, "")]
    [InlineData(
        10_000_000,
        10_400_000,
        0,
        "the message is 10.4 MB, and mail.tarnbrook.example takes 10.0 MB: enclose fewer forms of the document, or smaller pictures"
    )]
    [InlineData(
        10_000_000,
        24_000_000,
        12,
        "the message is 24.0 MB, and mail.tarnbrook.example takes 10.0 MB: enclose its 12 files joined or as a ZIP file, send it as "
            + "several messages, or leave some of them out"
    )]
    [InlineData(null, 75_000_000, 30, "")]
    [InlineData(
        null,
        80_000_000,
        30,
        "the message is 80.0 MB, and hardly a server takes more than 75.0 MB: enclose its 30 files joined or as a ZIP file, send it as "
            + "several messages, or leave some of them out"
    )]
    public void A_message_that_is_larger_than_the_server_takes_is_told_with_what_to_do(
        int? largest,
        long bytes,
        int files,
        string problem
    ) => Assert.Equal(problem, MessageSizes.Problem(bytes, Accounts with { LargestBytes = largest }, files));
}
