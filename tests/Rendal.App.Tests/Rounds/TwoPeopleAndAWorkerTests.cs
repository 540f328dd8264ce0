using CsCheck;
using Rendal.Store.Tests;

namespace Rendal.App.Tests.Rounds;

/// <summary>
/// Two people and a worker at one round, in any order and at the same moment: what is on record as sent is what the person who let it go
/// was shown, nothing held ever goes, and every decision is kept or refused.
/// </summary>
public sealed class TwoPeopleAndAWorkerTests(Postgres postgres)
{
    private const int Changes = 12,
        Look = 12,
        Release = 13,
        Send = 14,
        ReleaseAndChange = 15,
        ReleaseAndRelease = 16;

    [Fact]
    public async Task What_is_sent_is_what_was_shown_whatever_others_change_meanwhile()
    {
        var (sent, refused) = (0, 0);

        // To look and to let go come more often than one of many changes, so that most sequences come to something.
        var kind = Gen.Frequency(
            (5, Gen.Int[0, Changes - 1]),
            (3, Gen.Const(Look)),
            (2, Gen.Const(Release)),
            (2, Gen.Const(Send)),
            (2, Gen.Const(ReleaseAndChange)),
            (1, Gen.Const(ReleaseAndRelease))
        );
        var steps = Gen.Select(kind, Gen.Int[0, 1], Gen.Int[0, 99]).Array[6, 24];
        await steps.SampleAsync(
            async all =>
            {
                await using var source = await postgres.NewDatabaseAsync();
                using var round = await OneRound.MakeAsync(source);
                foreach (var (what, who, to) in all)
                {
                    await (
                        what switch
                        {
                            Look => round.LookAsync(who, atOne: to % 4 == 0),
                            Release => round.ReleaseAsync(who),
                            Send => round.SendAsync(to % 3),
                            ReleaseAndChange => Task.WhenAll(round.ReleaseAsync(who), round.ChangeAsync(to % Changes, 1 - who, to)),
                            ReleaseAndRelease => Task.WhenAll(round.ReleaseAsync(0), round.ReleaseAsync(1)),
                            _ => round.ChangeAsync(what, who, to),
                        }
                    );
                }

                await round.EndAsync();
                (sent, refused) = (sent + round.Sent, refused + round.Refused);
            },
            iter: 30,
            threads: 1
        );

        // It would show nothing if nothing ever went, or nothing was ever refused.
        Assert.True(sent > 10 && refused > 5, $"{sent} sent, {refused} refused");
    }
}
