using Rendal.Core.Parcels;
using Rendal.Store.People;
using Rendal.Store.Rounds;

namespace Rendal.Store.Tests.Rounds;

public sealed class ParcelChangeStoreTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_change_is_kept_until_it_is_taken_back_and_its_parcel_is_to_be_made_up_anew()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02");
        var changes = new ParcelChangeStore(book.Source, book.Id);
        var change = new ParcelChange
        {
            Recipients = new ParcelRecipients(["own@inn.example"], ["copy@inn.example"], []),
            DocumentNote = "as agreed",
        };
        Assert.Equal(RoundUpdateResult.Done, (await changes.PutAsync(prepared.Round, 1, "AB01", change, book.Person, Cancel)).Result);
        var kept = await changes.OfAsync(prepared.Round, null, Cancel);
        Assert.Equal(["copy@inn.example"], Assert.Single(kept).Value.Recipients!.Copies);
        Assert.Empty(await changes.OfAsync(prepared.Round, ["BE02"], Cancel));
        var round = (await new RoundStore(book.Source, book.Id).FindAsync(prepared.Round, Cancel))!;
        Assert.Equal(["AB01"], round.Awaiting);
        Assert.Equal(2, round.Revision);

        await changes.PutAsync(prepared.Round, 2, "AB01", new ParcelChange(), book.Person, Cancel);
        Assert.Empty(await changes.OfAsync(prepared.Round, null, Cancel));
    }

    [Fact]
    public async Task Of_two_people_who_change_one_parcel_the_second_is_told_and_of_two_parcels_both_changes_stand()
    {
        var book = await postgres.NewBookAsync();
        var prepared = await book.PreparedAsync("AB01", "BE02");
        var colleague = await new PersonStore(book.Source).AddAsync($"kell-{Guid.NewGuid():N}", "hash", Cancel);
        var changes = new ParcelChangeStore(book.Source, book.Id);
        var note = new ParcelChange { DocumentNote = "as agreed" };
        await changes.PutAsync(prepared.Round, 1, "AB01", note, colleague, Cancel);
        var second = await changes.PutAsync(prepared.Round, 1, "AB01", note with { DocumentNote = "otherwise" }, book.Person, Cancel);
        Assert.Equal((RoundUpdateResult.Contested, "parcel", "AB01"), (second.Result, second.Other!.About, second.Other.Subject));
        Assert.Equal(RoundUpdateResult.Done, (await changes.PutAsync(prepared.Round, 1, "BE02", note, book.Person, Cancel)).Result);
        Assert.Equal(["as agreed", "as agreed"], (await changes.OfAsync(prepared.Round, null, Cancel)).Values.Select(c => c.DocumentNote));
    }
}
