using CsCheck;
using Rendal.Core.Customers;

namespace Rendal.Core.Tests.Customers;

public class AddressListTests
{
    [Theory]
    [InlineData("a@b.example", "a@b.example")]
    [InlineData("a@b.example; c@d.example", "a@b.example c@d.example")]
    [InlineData("a@b.example,c@d.example e@f.example", "a@b.example c@d.example e@f.example")]
    [InlineData("a@b.example\nc@d.example", "a@b.example c@d.example")]
    [InlineData("Ines Caldera <ines@fernlea.example>", "ines@fernlea.example")]
    [InlineData("\"Caldera, Ines\" <ines@fernlea.example>; b@c.example", "ines@fernlea.example b@c.example")]
    [InlineData("a@b.example, A@B.example", "a@b.example")]
    [InlineData("ünal@größe.example", "ünal@größe.example")]
    [InlineData("", "")]
    public void Good_addresses_are_taken_apart(string field, string good)
    {
        var list = AddressList.Read(field);
        Assert.Equal(good, string.Join(' ', list.Good));
        Assert.Empty(list.Bad);
    }

    [Fact]
    public void An_address_that_stands_alone_is_taken_as_one_among_others_is() =>
        Gen.Char["ab-_.@9"]
            .Array[3, 14]
            .Select(c => new string(c))
            .Sample(field =>
            {
                var alone = AddressList.Read(field);
                var among = AddressList.Read($"<{field}>");
                Assert.Equal(among.Good, alone.Good);
                Assert.Equal(among.Bad.Count, alone.Bad.Count);
            });

    [Theory]
    [InlineData("x@y")]
    [InlineData("nobody")]
    [InlineData("a@b@c.example")]
    [InlineData("@b.example")]
    [InlineData("a@b..example")]
    [InlineData("a@.example")]
    [InlineData("a@b.example\u0000")]
    public void Bad_ones_are_named_and_the_good_ones_beside_them_serve(string bad)
    {
        var list = AddressList.Read($"good@b.example; {bad}");
        Assert.Equal(["good@b.example"], list.Good);
        Assert.Single(list.Bad);
    }

    [Theory]
    [InlineData("a@b.example\r\nBcc: c@d.example")]
    [InlineData("<a@b.example\r\nBcc: c@d.example>")]
    public void A_line_break_cannot_become_a_header(string field)
    {
        Assert.All(AddressList.Read(field).Good, address => Assert.DoesNotContain(address, char.IsControl));
        Assert.All(AddressList.Read(field).Good, address => Assert.DoesNotContain("Bcc", address));
    }
}
