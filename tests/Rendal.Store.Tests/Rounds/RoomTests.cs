using CsCheck;
using Rendal.Store.Rounds;

namespace Rendal.Store.Tests.Rounds;

public sealed class RoomTests
{
    // A list as it is made, and with rows put between others and taken out since.
    private static readonly Gen<int[]> Positions = Gen.OneOf(
        Gen.Int[0, 400].Select(n => Enumerable.Range(0, n).Select(i => i * ParcelTable.Spacing).ToArray()),
        Gen.Int[-1_023, 5_000_000].HashSet[0, 300].Select(p => p.Order().ToArray())
    );

    [Fact]
    public void The_room_is_between_the_last_that_comes_before_and_the_first_that_does_not() =>
        Gen.Select(Positions, Gen.Double[0, 1])
            .Sample(
                (positions, share) =>
                {
                    var before = (int)(positions.Length * share);
                    var asked = 0;
                    var room = Room.OfAsync(
                        (from, to, most) =>
                        {
                            asked++;
                            return Task.FromResult(
                                positions
                                    .Index()
                                    .Where(p => p.Item > from && p.Item < to)
                                    .Take(most)
                                    .Select(p => (p.Item, p.Index))
                                    .ToList()
                            );
                        },
                        (int index) => index < before
                    ).Result;
                    var last = before == 0 ? -ParcelTable.Spacing : positions[before - 1];
                    Assert.Equal((last, before == positions.Length ? last + ParcelTable.Spacing : positions[before]), room);
                    Assert.InRange(asked, 1, 17);
                }
            );
}
