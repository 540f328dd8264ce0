using Rendal.Core.Dispatch;
using Rendal.Store.Rounds;

namespace Rendal.Store.Tests.Rounds;

public class ParcelListingTests(Postgres postgres)
{
    private static readonly string[] Customers = ["AB01", "BE02", "CA03", "DU04", "EL05", "FO06", "GR07"];
    private static readonly string[] States = ["prepared", "held", "released", "sending", "sent", "refused", "unsure", "returned"];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public async Task The_pages_of_a_list_are_all_parcels_in_its_order_wherever_they_stand(int seed)
    {
        var random = new Random(seed);
        var (book, round) = await ReleasedAsync();
        foreach (var customer in Customers)
        {
            var state = States[random.Next(States.Length)];
            await StandAsync(round, customer, state, state is "prepared" or "held" && random.Next(2) == 0 ? "salutation is empty" : "");
        }

        var listing = new ParcelListing(postgres.Source, book.Id);
        var inOrder = (await book.Rounds.ParcelsAsync(round, Cancel))
            .OrderBy(p => ParcelStatus.ListOrder.Index().Single(s => s.Item == p.Status).Index)
            .Select(p => p.Customer)
            .ToList();
        var groups = (await book.Rounds.ParcelsAsync(round, Cancel))
            .GroupBy(p => p.Status)
            .Select(g => new ParcelGroup(g.Key, g.Count()))
            .OrderBy(g => ParcelStatus.ListOrder.Index().Single(s => s.Item == g.Status).Index)
            .ToList();
        for (var size = 1; size <= Customers.Length + 1; size++)
        {
            var pages = new List<string>();
            for (var from = 0; from < Customers.Length + 2; from += size)
            {
                var part = await listing.PartAsync(round, "", from, size, Cancel);
                Assert.Equal(groups, part.Groups);
                pages.AddRange(part.Parcels.Select(p => p.Customer));
            }

            Assert.Equal(inOrder, pages);
        }

        var found = await listing.PartAsync(round, "be0", 0, 100, Cancel);
        Assert.Equal(inOrder.Where(c => c.StartsWith("BE0", StringComparison.Ordinal)), found.Parcels.Select(p => p.Customer));
        Assert.Equal(found.Parcels.Count, found.Groups.Sum(g => g.Count));
        Assert.Empty((await listing.PartAsync(round, "not there", 0, 100, Cancel)).Groups);
        foreach (var (place, customer) in inOrder.Index())
        {
            Assert.Equal(place, await listing.PlaceAsync(round, "", customer, Cancel));
            Assert.Equal(0, await listing.PlaceAsync(round, customer.ToLowerInvariant(), customer, Cancel));
        }

        Assert.Null(await listing.PlaceAsync(round, "", "ZZ99", Cancel));
        Assert.Null(await listing.PlaceAsync(round, "AB01", "BE02", Cancel));
    }

    [Fact]
    public async Task No_parcel_is_missing_on_a_page_while_they_are_sent()
    {
        var (book, round) = await ReleasedAsync();
        var listing = new ParcelListing(postgres.Source, book.Id);
        using var over = CancellationTokenSource.CreateLinkedTokenSource(Cancel);
        var sending = Task.Run(
            async () =>
            {
                for (var i = 0; !over.IsCancellationRequested; i++)
                {
                    await StandAsync(round, Customers[i % Customers.Length], States[i % States.Length], "");
                }
            },
            Cancel
        );
        for (var i = 0; i < 200; i++)
        {
            Assert.Equal(
                Customers,
                (await listing.PartAsync(round, "", 0, 100, Cancel)).Parcels.Select(p => p.Customer).Order(StringComparer.Ordinal)
            );
        }

        await over.CancelAsync();
        await sending;
    }

    [Fact]
    public async Task The_next_that_changed_is_looked_for_after_a_place_and_then_from_the_first()
    {
        var (book, round) = await ReleasedAsync();
        var listing = new ParcelListing(postgres.Source, book.Id);
        Assert.Null(await listing.NextChangedAsync(round, -1, Cancel));
        await RunAsync($"update parcel set changed = '{{wording}}' where round_id = {round} and customer in ('BE02', 'EL05')");
        await StandAsync(round, "EL05", "unsure", "");

        // The unsure one comes first in the list, then all others by name.
        Assert.Equal("EL05", await listing.NextChangedAsync(round, -1, Cancel));
        Assert.Equal("BE02", await listing.NextChangedAsync(round, 0, Cancel));
        Assert.Equal("EL05", await listing.NextChangedAsync(round, 2, Cancel));
        Assert.Equal("EL05", await listing.NextChangedAsync(round, 6, Cancel));
    }

    private async Task<(TestBook Book, long Round)> ReleasedAsync()
    {
        var book = await postgres.NewBookAsync();
        return (book, (await book.ReleasedAsync(Customers)).Round);
    }

    private Task StandAsync(long round, string customer, string state, string problem) =>
        RunAsync(
            $"update parcel set state = '{state}', problem = '{problem}', worker = {(state == "sending" ? "1" : "null")} where "
                + $"round_id = {round} and customer = '{customer}'"
        );

    private async Task RunAsync(string sql)
    {
        await using var command = postgres.Source.CreateCommand(sql);
        await command.ExecuteNonQueryAsync(Cancel);
    }
}
