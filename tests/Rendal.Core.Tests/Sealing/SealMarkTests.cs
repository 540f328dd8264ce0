using System.Security.Cryptography;
using CsCheck;
using Rendal.Core.Sealing;

namespace Rendal.Core.Tests.Sealing;

public class SealMarkTests
{
    private static readonly SealPart[] All = Enum.GetValues<SealPart>();

    private static readonly Gen<ParcelSeal> Seals = Gen.Int[0, 1]
        .Array[All.Length]
        .Select(parts => ParcelSeal.Of(p => SHA256.HashData([(byte)parts[(int)p]])));

    [Fact]
    public void What_changes_by_itself_is_marked_until_it_is_again_what_was_seen()
    {
        var first = SealMark.After(null, Seal(), byItself: false);
        Assert.Empty(first.Changed);
        var reworded = SealMark.After(first, Seal(SealPart.Wording), byItself: true);
        Assert.Equal([SealPart.Wording], reworded.Changed);
        var both = SealMark.After(reworded, Seal(SealPart.Wording, SealPart.Letterhead), byItself: true);
        Assert.Equal([SealPart.Wording, SealPart.Letterhead], both.Changed);
        Assert.Empty(SealMark.After(both, Seal(), byItself: true).Changed);
    }

    [Fact]
    public void What_people_choose_marks_nothing_and_what_is_marked_stays_so()
    {
        var chosen = SealMark.After(SealMark.After(null, Seal(), byItself: false), Seal(SealPart.Round), byItself: false);
        Assert.Empty(chosen.Changed);
        var marked = SealMark.After(chosen, Seal(SealPart.Round, SealPart.Card), byItself: true);
        Assert.Equal(
            [SealPart.Figures, SealPart.Card],
            SealMark.After(marked, Seal(SealPart.Round, SealPart.Card, SealPart.Figures), byItself: false).Changed
        );
    }

    [Fact]
    public void Who_comes_in_by_itself_is_new_and_who_is_chosen_is_not()
    {
        var came = SealMark.After(null, Seal(), byItself: true);
        Assert.True(SealMark.IsNew(came.Changed));
        Assert.True(SealMark.IsNew(SealMark.After(came, Seal(SealPart.Card), byItself: false).Changed));
        Assert.Empty(SealMark.After(null, Seal(), byItself: false).Changed);
    }

    [Fact]
    public void Unmarked_is_only_what_is_as_it_was_seen_or_was_chosen_since() =>
        Seals
            .Array[1, 6]
            .Select(Gen.Bool.Array[6])
            .Sample(
                (seals, itself) =>
                {
                    SealMark? mark = null;
                    ParcelSeal? seen = null;
                    foreach (var (i, seal) in seals.Index())
                    {
                        // A second reckoning: who looks sees the parcel as it is; what people chose while nothing is marked counts as
                        // looking.
                        seen = !itself[i] && (mark is null || seen?.Value == mark.Now.Value) ? seal : seen;
                        mark = SealMark.After(mark, seal, itself[i]);
                        Assert.Equal(seen?.Value == seal.Value, mark.Changed.Count == 0);
                    }
                }
            );

    private static ParcelSeal Seal(params SealPart[] changed) =>
        ParcelSeal.Of(p => SHA256.HashData([changed.Contains(p) ? (byte)1 : (byte)0]));
}
