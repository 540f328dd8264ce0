using Rendal.Store.Tests;

namespace Rendal.App.Tests.Rounds;

public sealed class SealedMessageTests(Postgres postgres)
{
    [Fact]
    public async Task A_message_is_what_was_sealed_though_everything_in_the_book_is_changed_before_it_is_made()
    {
        await using var source = await postgres.NewDatabaseAsync();
        using var round = await OneRound.MakeAsync(source);
        await round.LookAsync(0, atOne: false);
        await round.ReleaseAsync(0);
        Assert.Equal(0, round.Refused);
        await round.SendAsync(1);
        for (var what = 0; what < 11; what++)
        {
            await round.ChangeAsync(what, who: 1, to: 40 + what);
        }

        await round.ChangeTheBookAsync();
        await round.EndAsync();
        Assert.Equal(4, round.Sent);
    }
}
