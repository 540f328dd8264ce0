using Rendal.Core.Layouts;

namespace Rendal.Files.Tests;

/// <summary>Codes that are scanned to pay, as pictures.</summary>
public sealed class CodePictureTests
{
    private static readonly SepaTransfer Largest = new(
        new string('Ł', 70),
        "MT84MALT011000012345MTLCAST001S",
        "COBADEFFXXX",
        999_999_999.99m,
        new string('Ł', 140)
    );

    [Fact]
    public void The_largest_codes_are_pictures_within_what_is_reckoned_with()
    {
        foreach (var code in new PaymentCode[] { new(Largest, ""), new(null, "https://pay.example/" + new string('q', 480)) })
        {
            var png = CodePicture.Png(code);
            Assert.Equal([0x89, 0x50, 0x4E, 0x47], png[..4]);
            Assert.InRange(png.Length, 200, CodePicture.Largest);
            Assert.Equal(png, CodePicture.Png(code));
        }
    }
}
