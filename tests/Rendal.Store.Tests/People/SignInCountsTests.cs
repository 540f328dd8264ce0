using Rendal.Store.People;

namespace Rendal.Store.Tests.People;

public sealed class SignInCountsTests(Postgres postgres)
{
    private static readonly DateTimeOffset Now = new(2026, 11, 2, 9, 0, 0, TimeSpan.Zero);

    private readonly SignInCounts counts = new(postgres.Source);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static SignInPace[] Paces(string person) =>
        [new($"account {person}", 5, TimeSpan.FromMinutes(1)), new($"address {person}", 30, TimeSpan.FromMinutes(15))];

    [Fact]
    public async Task Two_at_the_same_moment_are_both_let_through_whichever_looked_at_the_clock_first()
    {
        var paces = Paces("twice");

        Assert.Null(await counts.BeginAsync(paces, Now, Cancel));
        Assert.Null(await counts.BeginAsync(paces, Now.AddMilliseconds(-5), Cancel));
    }

    [Fact]
    public async Task The_fifth_that_fails_has_the_next_wait_and_one_that_went_well_begins_anew()
    {
        var paces = Paces("five");
        for (var i = 0; i < 5; i++)
        {
            Assert.Null(await counts.BeginAsync(paces, Now.AddSeconds(i), Cancel));
        }

        Assert.Equal(TimeSpan.FromSeconds(1), await counts.BeginAsync(paces, Now.AddSeconds(4), Cancel));

        Assert.Null(await counts.BeginAsync(paces, Now.AddSeconds(5), Cancel));
        await counts.ForgetAsync(paces[0].Subject, [paces[1].Subject], Now.AddSeconds(5), Cancel);
        Assert.Null(await counts.BeginAsync(paces, Now.AddSeconds(5), Cancel));
    }

    [Fact]
    public async Task Many_who_sign_in_from_one_address_at_once_do_not_block_each_other()
    {
        SignInPace[] paces = [new("account many", int.MaxValue, TimeSpan.Zero), new("address many", int.MaxValue, TimeSpan.Zero)];

        await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(async _ =>
                {
                    for (var i = 0; i < 50; i++)
                    {
                        await counts.BeginAsync(paces, Now, Cancel);
                        await counts.ForgetAsync(paces[0].Subject, [paces[1].Subject], Now, Cancel);
                    }
                })
        );

        Assert.Null(await counts.BeginAsync(paces, Now, Cancel));
    }
}
