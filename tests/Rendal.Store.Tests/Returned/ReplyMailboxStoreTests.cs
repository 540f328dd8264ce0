using Rendal.Store.Returned;
using Rendal.Store.Senders;
using Rendal.Store.Tests.Dispatch;

namespace Rendal.Store.Tests.Returned;

public class ReplyMailboxStoreTests(Postgres postgres) : QueueTest(postgres)
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(10);

    [Fact]
    public async Task A_mailbox_in_which_something_was_left_is_due_again_at_once_and_goes_on_where_the_look_ended()
    {
        var sender = await new SenderStore(Source, Book.Id).AddAsync(
            new Sender(0, "Tarnbrook", "accounts@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", "", null),
            Book.Person,
            Cancel
        );
        var mailboxes = new ReplyMailboxStore(Source);
        await mailboxes.PutAsync(new ReplyMailboxRecord(Book.Id, sender, "imap.tarnbrook.example", 993, "tls", "accounts", null), Cancel);
        Assert.Equal(0, (await ClaimAsync(TestBook.Now)).LastUid);
        await mailboxes.LookedAsync(
            (await mailboxes.FindAsync(Book.Id, sender, Cancel))!,
            1,
            40,
            3,
            2,
            TestBook.Now.AddMinutes(1),
            Cancel
        );
        var next = await ClaimAsync(TestBook.Now.AddMinutes(1));
        Assert.Equal((40, TestBook.Now.AddMinutes(1)), (next.LastUid, next.LookedAt!.Value));
        await mailboxes.LookedAsync(next, 1, 42, 0, 0, TestBook.Now.AddMinutes(2), Cancel);
        Assert.Null(await mailboxes.ClaimDueAsync(TestBook.Now.AddMinutes(2), Every, Cancel));
        Assert.Equal(42, (await ClaimAsync(TestBook.Now.AddMinutes(11))).LastUid);

        async Task<ReplyMailboxRecord> ClaimAsync(DateTimeOffset now) => (await mailboxes.ClaimDueAsync(now, Every, Cancel))!;
    }
}
