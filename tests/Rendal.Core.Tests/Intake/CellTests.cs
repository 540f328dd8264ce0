using System.Text;
using CsCheck;
using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public sealed class CellTests
{
    [Theory]
    [InlineData("  Inn at Kell ", "Inn at Kell")]
    [InlineData("1\u00A0234,50", "1 234,50")]
    [InlineData("Mu\u0308hle", "Mühle")]
    [InlineData("a\u0007b", "a b")]
    [InlineData("two\nlines", "two\nlines")]
    [InlineData(" \u00A0\t", "")]
    [InlineData("", "")]
    public void Text_is_trimmed_and_made_one_of_its_spellings_however_it_is_encoded(string written, string read)
    {
        Assert.Equal(read, Cell.Of(written).Text);
        Assert.Equal(read, Cell.Of(Encoding.UTF8.GetBytes(written)).Text);
        Assert.Equal(read.Length == 0, Cell.Of(written).IsEmpty);
    }

    [Fact]
    public void Bytes_and_the_text_that_they_encode_give_the_same_cell() =>
        Gen.OneOf(Gen.Char[' ', '~'], Gen.Char['\0', '\u00FF'], Gen.Char['\u0100', '\uD7FF'])
            .Array[0, 30]
            .Sample(characters =>
            {
                var text = new string(characters);
                Assert.Equal(Cell.Of(text).Text, Cell.Of(Encoding.UTF8.GetBytes(text)).Text);
            });
}
