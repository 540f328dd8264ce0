using CsCheck;
using Rendal.Core.Customers;
using Rendal.Core.Parcels;

namespace Rendal.Core.Tests.Customers;

public class ContactListTests
{
    private static readonly string[] Addresses = ["a@inn.example", "b@inn.example", "c@inn.example", "d@inn.example"];

    [Fact]
    public void Who_is_new_is_added_who_is_gone_is_taken_off_and_who_is_copied_stands_so()
    {
        Contact[] contacts =
        [
            new()
            {
                Name = "Ines Caldera",
                Title = "Ms",
                Address = "ines@inn.example",
            },
            new() { Address = "old@inn.example" },
            new() { Name = "Night porter" },
            new() { Address = "dunning@inn.example", Rounds = [RoundKind.Reminders] },
        ];
        var after = ContactList.With(
            contacts,
            RoundKind.Statements,
            new ParcelRecipients(["new@inn.example"], ["INES@inn.example"], ["owner@inn.example"])
        );
        Assert.Equal(
            [
                ("ines@inn.example", ContactRole.Copy, "Ines Caldera"),
                ("", ContactRole.To, "Night porter"),
                ("dunning@inn.example", ContactRole.To, ""),
                ("new@inn.example", ContactRole.To, ""),
                ("owner@inn.example", ContactRole.BlindCopy, ""),
            ],
            after.Select(c => (c.Address, c.Role, c.Name))
        );
    }

    /// <summary>
    /// However contacts were written, messages of the kind go to exactly whom was wanted, and those of other kinds as before.
    /// </summary>
    [Fact]
    public void Messages_of_the_kind_go_to_whom_was_wanted_and_others_are_not_lost()
    {
        var contact = Gen.Select(Gen.Int[0, 3].Array[0, 3], Gen.Enum<ContactRole>(), Gen.Bool)
            .Select(c => new Contact
            {
                Address = string.Join("; ", c.Item1.Select(i => Addresses[i])),
                Role = c.Item2,
                Rounds = c.Item3 ? [] : [RoundKind.Reminders],
            });
        var places = Gen.Int[0, 3].Array[4];
        Gen.Select(contact.Array[0, 4], places)
            .Where(x => x.Item2.Contains(1))
            .Sample(
                (contacts, place) =>
                {
                    IReadOnlyList<string> At(int of) => [.. Addresses.Where((_, i) => place[i] == of)];
                    var wanted = new ParcelRecipients(At(1), At(2), At(3));
                    var after = new Customer
                    {
                        Key = "H1",
                        Name = "Inn",
                        Contacts = ContactList.With(contacts, RoundKind.Statements, wanted),
                    };
                    var got = Recipients.Of(after, RoundKind.Statements);
                    Assert.Equal(wanted.To, got.To.Order());
                    Assert.Equal(wanted.Copies, got.Copies.Order());
                    Assert.Equal(wanted.BlindCopies, got.BlindCopies.Order());
                    Assert.All(contacts.Where(c => !c.Gets(RoundKind.Statements)), c => Assert.Contains(c, after.Contacts));
                },
                iter: 500
            );
    }
}
