using CsCheck;
using Rendal.Files.Pdf;

namespace Rendal.Files.Tests.Pdf;

public class LinesTests
{
    [Fact]
    public void Nothing_of_a_text_is_lost_and_every_line_fits() =>
        Gen.Select(
                Gen.OneOf(Gen.Char["abcdefMW-  .é"], Gen.Char["אבגم0123(["], Gen.Char["e\u0301o\u0308 "]).Array[1, 300],
                Gen.Float[20, 120]
            )
            .Sample(
                (characters, within) =>
                {
                    using var font = new FontAlone();
                    var text = new string(characters);
                    var lines = Lines.Wrapped(font.Font, 9, text, within);
                    Assert.Equal(
                        text.Replace(" ", "", StringComparison.Ordinal),
                        string.Concat(lines).Replace(" ", "", StringComparison.Ordinal)
                    );
                    Assert.All(lines, line =>
                        Assert.True(
                            font.Font.Set(line).Width * 9 <= within + 0.06f
                                || new System.Globalization.StringInfo(line).LengthInTextElements == 1,
                            line
                        )
                    );
                },
                iter: 300,
                threads: 1
            );

    [Fact]
    public void A_line_takes_as_much_of_a_long_word_as_fits()
    {
        using var font = new FontAlone();
        var lines = Lines.Wrapped(font.Font, 9, new string('m', 500), 100);
        var most = Enumerable.Range(1, 100).Last(n => font.Font.Set(new string('m', n)).Width * 9 <= 100.05f);
        Assert.All(lines.SkipLast(1), line => Assert.Equal(most, line.Length));
    }

    [Theory]
    [InlineData("W")]
    [InlineData("أ")]
    [InlineData("([{")]
    [InlineData("e\u0301\u0302\u0303")]
    public void A_word_twice_as_long_takes_about_twice_the_work(string letters)
    {
        using var font = new FontAlone();
        long Work(int length)
        {
            var word = string.Concat(Enumerable.Repeat(letters, length / letters.Length));
            var before = GC.GetAllocatedBytesForCurrentThread();
            Lines.Wrapped(font.Font, 9, word, 100);
            return GC.GetAllocatedBytesForCurrentThread() - before;
        }

        Work(9_000);
        Assert.InRange((double)Work(36_000) / Work(9_000), 1, 5);
    }

    private sealed class FontAlone : IDisposable
    {
        private readonly OtherScripts others = new();

        public FontAlone() => Font = new Font("SourceSans3-Regular.ttf", others, true);

        public Font Font { get; }

        public void Dispose()
        {
            Font.Dispose();
            others.Dispose();
        }
    }
}
