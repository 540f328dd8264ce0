using Rendal.Core.Customers;

namespace Rendal.Core.Tests.Customers;

public class RecipientsTests
{
    [Fact]
    public void Each_address_stands_once_in_its_first_role()
    {
        var recipients = Recipients.Of(
            Of(
                new Contact { Address = "a@inn.example; b@inn.example" },
                new Contact { Address = "A@inn.example, c@inn.example", Role = ContactRole.Copy },
                new Contact { Address = "c@inn.example d@inn.example", Role = ContactRole.BlindCopy }
            ),
            RoundKind.Statements
        );
        Assert.Equal(["a@inn.example", "b@inn.example"], recipients.To);
        Assert.Equal(["c@inn.example"], recipients.Copies);
        Assert.Equal(["d@inn.example"], recipients.BlindCopies);
        Assert.Equal(4, recipients.All.Count);
    }

    [Fact]
    public void A_contact_gets_only_the_rounds_that_are_named()
    {
        var customer = Of(
            new Contact { Address = "a@inn.example" },
            new Contact { Address = "dunning@inn.example", Rounds = [RoundKind.Reminders] }
        );
        Assert.Equal(["a@inn.example"], Recipients.Of(customer, RoundKind.Statements).To);
        Assert.Equal(["a@inn.example", "dunning@inn.example"], Recipients.Of(customer, RoundKind.Reminders).To);
    }

    [Theory]
    [InlineData(Delivery.Email, "a@inn.example", true)]
    [InlineData(Delivery.Both, "a@inn.example", true)]
    [InlineData(Delivery.Post, "a@inn.example", false)]
    [InlineData(Delivery.Nothing, "a@inn.example", false)]
    [InlineData(Delivery.Email, "a@inn", false)]
    public void Who_can_be_reached_has_a_good_address_and_wants_messages(Delivery delivery, string address, bool reachable) =>
        Assert.Equal(reachable, (Of(new Contact { Address = address }) with { Delivery = delivery }).IsReachedBy(RoundKind.Statements));

    [Theory]
    [InlineData(Delivery.Post, "1 Mill Lane", "", true, true)]
    [InlineData(Delivery.Post, " ", "a@inn.example", false, false)]
    [InlineData(Delivery.Both, "1 Mill Lane", "", true, true)]
    [InlineData(Delivery.Both, "", "a@inn.example", false, true)]
    [InlineData(Delivery.Email, "1 Mill Lane", "", false, false)]
    [InlineData(Delivery.Nothing, "1 Mill Lane", "a@inn.example", false, false)]
    public void The_post_reaches_who_wants_it_and_has_a_postal_address(
        Delivery delivery,
        string line,
        string address,
        bool byPost,
        bool reached
    )
    {
        var customer = Of(new Contact { Address = address }) with { Delivery = delivery, PostalLines = [line] };
        Assert.Equal((byPost, reached), (customer.GoesByPost, customer.IsReachedBy(RoundKind.Statements)));
    }

    [Fact]
    public void Who_wants_no_messages_gets_none_whatever_addresses_the_card_has() =>
        Assert.Empty(
            Recipients
                .Of(
                    Of(new Contact { Address = "a@inn.example" }) with
                    {
                        Delivery = Delivery.Post,
                        PostalLines = ["1 Mill Lane"],
                    },
                    RoundKind.Statements
                )
                .All
        );

    [Fact]
    public void A_round_reaches_a_customer_by_the_contacts_who_get_it()
    {
        var customer = Of(new Contact { Address = "dunning@inn.example", Rounds = [RoundKind.Reminders] });
        Assert.True(customer.IsReachedBy(RoundKind.Reminders));
        Assert.False(customer.IsReachedBy(RoundKind.Statements));
    }

    private static Customer Of(params Contact[] contacts) =>
        new()
        {
            Key = "A",
            Name = "A",
            Contacts = contacts,
        };
}
