using Rendal.Core.Customers;
using Rendal.Core.Wordings;

namespace Rendal.Core.Tests.Wordings;

public class SalutationTests
{
    [Theory]
    [InlineData("en", "Ms", "Ines Caldera", "Dear Ms Caldera")]
    [InlineData("en", "", "Ines Caldera", "Dear Ines Caldera")]
    [InlineData("de", "Frau", "Anke Weber", "Sehr geehrte Frau Weber")]
    [InlineData("de", "Herr", "Jan Weber", "Sehr geehrter Herr Weber")]
    [InlineData("de", "", "Kim Weber", "Guten Tag Kim Weber")]
    [InlineData("fr", "Madame", "Lise Roux", "Bonjour Madame Roux")]
    [InlineData("fr", "Mme", "Lise Roux", "Bonjour Madame Roux")]
    [InlineData("fr", "Dr", "Lise Roux", "Bonjour Dr Roux")]
    [InlineData("es", "Sra.", "Inés Vidal", "Estimada Sra. Vidal")]
    [InlineData("es", "Mr", "Luis Vidal", "Estimado Sr. Vidal")]
    [InlineData("it", "Ms", "Elena Riva", "Gentile Sig.ra Riva")]
    [InlineData("it", "Dott.", "Elena Riva", "Gentile Dott. Riva")]
    [InlineData("nl", "mevrouw", "Anouk Smit", "Geachte mevrouw Smit")]
    [InlineData("nl", "", "Anouk Smit", "Geachte Anouk Smit")]
    [InlineData("en", "Ms", "", "")]
    public void Addresses_the_contact(string language, string title, string contact, string expected)
    {
        Assert.True(Language.TryParse(language, out var known));
        Assert.Equal(
            expected,
            Salutation.Of(
                new Customer
                {
                    Key = "A",
                    Name = "A",
                    Contacts = [new Contact { Title = title, Name = contact }],
                },
                known
            )
        );
    }

    [Fact]
    public void What_the_card_says_for_itself_counts_first() =>
        Assert.Equal(
            "Ahoy Ines",
            Salutation.Of(
                new Customer
                {
                    Key = "A",
                    Name = "A",
                    Salutation = "Ahoy Ines",
                    Contacts = [new Contact { Title = "Ms", Name = "Ines Caldera" }],
                },
                Language.English
            )
        );
}
