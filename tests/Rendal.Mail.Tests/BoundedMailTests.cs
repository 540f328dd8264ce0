using System.Text;
using Rendal.Core.Budgets;

namespace Rendal.Mail.Tests;

public class BoundedMailTests
{
    [Fact]
    public void A_message_of_more_parts_than_can_be_worked_through_is_refused()
    {
        var refused = Assert.Throws<OverBudget>(() => BoundedMail.Load(Message(10_001)));
        Assert.Equal(
            "The message has more than 10,000 parts, which is the most that is worked through. Delete it, or open it in your "
                + "mail program.",
            refused.Message
        );
        Assert.Equal(9_000, BoundedMail.Load(Message(9_000)).BodyParts.Count());
    }

    [Fact]
    public void A_header_that_is_too_long_is_refused_wherever_it_stands()
    {
        var header = "X-Long: " + string.Concat(Enumerable.Repeat("word\r\n ", 250_000));
        foreach (
            var message in new[]
            {
                $"From: a@inn.example\r\n{header}\r\n\r\nx\r\n",
                $"From: a@inn.example\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n--b\r\n{header}\r\n\r\nx\r\n--b--\r\n",
            }
        )
        {
            Assert.StartsWith(
                "A header of the message has more than 1,000,000 characters",
                Assert.Throws<OverBudget>(() => BoundedMail.Load(Encoding.ASCII.GetBytes(message))).Message,
                StringComparison.Ordinal
            );
        }
    }

    [Fact]
    public void The_parts_of_each_message_of_an_mbox_are_counted_on_their_own()
    {
        var one = $"From a@inn.example Mon Nov  2 08:14:00 2026\n{Encoding.ASCII.GetString(Message(4_000)).ReplaceLineEndings("\n")}\n";
        using var file = new MemoryStream(Encoding.ASCII.GetBytes(string.Concat(Enumerable.Repeat(one, 3))));
        Assert.Equal([4_000, 4_000, 4_000], BounceReader.Open(file).Select(m => m.Message.BodyParts.Count()));
    }

    private static byte[] Message(int parts) =>
        Encoding.ASCII.GetBytes(
            "From: a@inn.example\r\nSubject: x\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n"
                + string.Concat(Enumerable.Repeat("--b\r\n\r\na\r\n", parts))
                + "--b--\r\n"
        );
}
