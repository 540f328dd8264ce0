using System.Security.Cryptography;
using Rendal.Core.Sealing;

namespace Rendal.Core.Tests.Sealing;

public class ChangedSinceTests
{
    private static readonly SealPart[] All = Enum.GetValues<SealPart>();

    [Fact]
    public void Nothing_is_nothing()
    {
        var changed = new ChangedSince("Since this round was prepared");
        changed.Compare(Seal(), Seal(), needsYou: false);
        Assert.True(changed.IsNothing);
    }

    [Fact]
    public void Each_thing_that_changed_is_named_with_how_many_parcels_it_is_of()
    {
        var changed = new ChangedSince("Since this round was prepared");
        changed.Compare(Seal(), Seal(SealPart.Wording), needsYou: false);
        Assert.False(changed.IsNothing);
        Assert.Equal("Since this round was prepared, the wording (one parcel) changed.", changed.ToString());

        changed.Compare(Seal(), Seal(SealPart.Wording, SealPart.Figures), needsYou: true);
        changed.Compare(Seal(), null, needsYou: false);
        Assert.Equal(
            "Since this round was prepared, the figures (one parcel) and the wording (2 parcels) changed; one parcel came to "
                + "need you; one parcel fell out of it.",
            changed.ToString()
        );
    }

    [Fact]
    public void Of_a_parcel_that_was_not_sealed_all_may_have_changed()
    {
        Assert.Equal(All, Seal().Differing(null));
        var changed = new ChangedSince("Since this round was prepared");
        changed.Compare(null, Seal(), needsYou: false);
        Assert.False(changed.IsNothing);
    }

    private static ParcelSeal Seal(params SealPart[] changed) =>
        ParcelSeal.Of(p => SHA256.HashData([changed.Contains(p) ? (byte)1 : (byte)0]));
}
