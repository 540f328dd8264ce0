using System.Globalization;
using CsCheck;
using Rendal.Core.Enclosures;

namespace Rendal.Core.Tests.Enclosures;

/// <summary>Files that are too large for one message go with several.</summary>
public class MessageSplitTests
{
    [Theory]
    [InlineData("", 10, "")]
    [InlineData("4 4", 10, "0 0")]
    [InlineData("4 6", 10, "0 0")]
    [InlineData("4 7 3 1", 10, "0 1 1 2")]
    [InlineData("10 10 10", 10, "0 1 2")]
    [InlineData("4 11", 10, null)]
    [InlineData("1", 0, null)]
    public void Each_message_takes_the_next_files_as_long_as_they_have_room(string sizes, long room, string? messages) =>
        Assert.Equal(messages, MessageSplit.Of(Files(sizes), room, f => f.Size) is { } spread ? Messages(spread) : null);

    [Fact]
    public void A_parcel_becomes_no_more_than_twenty_messages()
    {
        var each = Enumerable.Repeat("10", MessageSplit.MostMessages);
        Assert.NotNull(MessageSplit.Of(Files(string.Join(' ', each)), 10, f => f.Size));
        Assert.Null(MessageSplit.Of(Files(string.Join(' ', each.Append("1"))), 10, f => f.Size));
    }

    [Fact]
    public void All_files_go_in_their_order_and_no_message_has_more_than_its_room() =>
        Gen.Select(Gen.Long[0, 12].List[0, 60], Gen.Long[0, 40])
            .Sample(
                (sizes, room) =>
                {
                    var files = Files(string.Join(' ', sizes));
                    if (MessageSplit.Of(files, room, f => f.Size) is not { } spread)
                    {
                        // Two messages that follow each other have more than one has room for.
                        Assert.True(sizes.Exists(s => s > room) || sizes.Sum() > MessageSplit.MostMessages / 2 * room);
                        return;
                    }

                    Assert.Equal(files.Select(f => f.File), spread.Select(f => f.File));
                    Assert.All(spread.GroupBy(f => f.Message), m => Assert.True(m.Sum(f => f.Size) <= room));
                    var messages = spread.Select(f => f.Message).ToList();
                    Assert.Equal(messages.Order(), messages);
                    Assert.Equal(Enumerable.Range(0, messages.Distinct().Count()), messages.Distinct());
                }
            );

    private static List<ParcelEnclosure> Files(string sizes) =>
        [
            .. sizes
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(
                    (size, i) =>
                        new ParcelEnclosure(i, $"{i}.pdf", "", long.Parse(size, CultureInfo.InvariantCulture), "application/pdf", "", [])
                ),
        ];

    private static string Messages(IEnumerable<ParcelEnclosure> files) => string.Join(' ', files.Select(f => f.Message));
}
