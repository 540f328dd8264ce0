using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class ReadAheadTests
{
    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(128)]
    [InlineData(129)]
    [InlineData(5_000)]
    public void The_rows_come_in_their_order(int count) =>
        Assert.Equal(Enumerable.Range(1, count), ReadAhead.Of(Rows(count)).Select(r => r.Number));

    [Fact]
    public void What_goes_wrong_comes_after_the_rows_before_it()
    {
        var seen = new List<int>();
        var refused = Assert.Throws<InvalidDataException>(() =>
            seen.AddRange(ReadAhead.Of(Rows(1_000).Concat(Broken())).Select(r => r.Number))
        );
        Assert.Equal("row 1001 is broken", refused.Message);
        var number = 0;
        Assert.Throws<InvalidDataException>(() =>
        {
            foreach (var row in ReadAhead.Of(Rows(1_000).Concat(Broken())))
            {
                number = row.Number;
            }
        });
        Assert.Equal(1_000, number);
    }

    [Fact]
    public void Whoever_stops_early_stops_the_reading()
    {
        var closed = false;
        IEnumerable<FileRow> Endless()
        {
            try
            {
                for (var i = 1; ; i++)
                {
                    yield return new FileRow(i, []);
                }
            }
            finally
            {
                closed = true;
            }
        }

        Assert.Equal(3, ReadAhead.Of(Endless()).Take(3).Count());
        Assert.True(closed);
    }

    private static IEnumerable<FileRow> Rows(int count) => Enumerable.Range(1, count).Select(i => new FileRow(i, []));

    private static IEnumerable<FileRow> Broken()
    {
        throw new InvalidDataException("row 1001 is broken");
#pragma warning disable CS0162 // It has to be an iterator, to break while it is gone through.
        yield break;
#pragma warning restore CS0162
    }
}
