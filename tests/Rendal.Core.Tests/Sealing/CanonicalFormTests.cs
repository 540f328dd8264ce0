using System.Collections.Frozen;
using CsCheck;
using Rendal.Core.Sealing;

namespace Rendal.Core.Tests.Sealing;

public class CanonicalFormTests
{
    private enum Form
    {
        Usual,
        Other,
    }

    private sealed record Before(string Name, decimal Amount);

    private sealed record After(
        string Name,
        decimal Amount,
        string Note = "",
        decimal? Least = null,
        bool IsHeld = false,
        int Count = 0,
        Form Form = Form.Usual,
        IReadOnlyList<string>? Lines = null
    )
    {
        public IReadOnlyList<string> Order { get; init; } = [];

        public IReadOnlySet<string> Units { get; init; } = new HashSet<string>();
    }

    [Fact]
    public void A_member_that_is_added_and_says_nothing_changes_no_hash() =>
        Gen.Select(Gen.String, Gen.Decimal)
            .Sample(
                (name, amount) => Assert.Equal(CanonicalForm.Hash(new Before(name, amount)), CanonicalForm.Hash(new After(name, amount)))
            );

    [Fact]
    public void An_empty_set_says_nothing_of_whatever_kind_it_is() =>
        Assert.Equal(
            CanonicalForm.Hash(new After("Inn at Kell", 10m)),
            CanonicalForm.Hash(new After("Inn at Kell", 10m) { Units = FrozenSet<string>.Empty })
        );

    [Fact]
    public void Whatever_a_member_says_changes_the_hash()
    {
        var nothing = new After("Inn at Kell", 10m);
        After[] something =
        [
            nothing with
            {
                Note = "x",
            },
            nothing with
            {
                Least = 0m,
            },
            nothing with
            {
                IsHeld = true,
            },
            nothing with
            {
                Count = 1,
            },
            nothing with
            {
                Form = Form.Other,
            },
            nothing with
            {
                Lines = [],
            },
            nothing with
            {
                Lines = [""],
            },
            nothing with
            {
                Order = [""],
            },
            nothing with
            {
                Units = new HashSet<string> { "" },
            },
            nothing with
            {
                Amount = 0m,
            },
            nothing with
            {
                Name = "",
            },
        ];
        var hashes = something.Append(nothing).Select(n => Convert.ToHexString(CanonicalForm.Hash(n))).ToList();
        Assert.Equal(hashes.Count, hashes.Distinct().Count());
    }
}
