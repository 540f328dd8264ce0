using CsCheck;
using Rendal.Files.Pdf;

namespace Rendal.Files.Tests.Pdf;

/// <summary>Capital letters are Hebrew in these examples, as in the examples of UAX #9; <c>٣</c> is an Arabic digit.</summary>
public class TextDirectionTests
{
    [Theory]
    [InlineData("car means CAR.", "car means RAC.")]
    [InlineData("INN ON THE HILL", "LLIH EHT NO NNI")]
    [InlineData("inn HILL 12 kell", "inn 12 LLIH kell")]
    [InlineData("HILL 12-34 END", "DNE 12-34 LLIH")]
    [InlineData("HILL 1,234.50", "1,234.50 LLIH")]
    [InlineData("HILL £12", "£12 LLIH")]
    [InlineData("INN (HILL)", "(LLIH) NNI")]
    [InlineData("INN (ltd)", "NNI (ltd)")]
    [InlineData("inn (HILL) kell", "inn (LLIH) kell")]
    [InlineData("INN ", "NNI ")]
    [InlineData("plain", "plain")]
    [InlineData("", "")]
    public void Pieces_stand_as_they_are_seen(string written, string seen) => Assert.Equal(seen, Seen(written));

    [Fact]
    public void An_override_in_a_name_does_not_turn_the_line_around() =>
        Assert.Equal("inn \u202Ecilop 100.00", Seen("inn \u202Ecilop 100.00"));

    [Fact]
    public void Nothing_of_a_line_is_lost_or_said_twice() =>
        Gen.Char["aאب1٣ .,()[]-£\u0301\u200F\uD83D"]
            .Array[0, 20]
            .Sample(characters =>
            {
                var runs = TextDirection.Runs(new string(characters));
                Assert.Equal(Enumerable.Range(0, characters.Length), runs.SelectMany(r => Enumerable.Range(r.Start, r.Length)).Order());
            });

    private static string Seen(string written)
    {
        var hebrew = string.Concat(written.Select(c => c is >= 'A' and <= 'Z' ? (char)('א' + c - 'A') : c));
        return string.Concat(
            TextDirection
                .Runs(hebrew)
                .Select(r =>
                {
                    var piece = written.Substring(r.Start, r.Length);
                    // Brackets are mirrored by the shaping of a piece that runs from right to left.
                    return r.IsRightToLeft
                        ? string.Concat(
                            piece
                                .Reverse()
                                .Select(c =>
                                    c switch
                                    {
                                        '(' => ')',
                                        ')' => '(',
                                        _ => c,
                                    }
                                )
                        )
                        : piece;
                })
        );
    }
}
