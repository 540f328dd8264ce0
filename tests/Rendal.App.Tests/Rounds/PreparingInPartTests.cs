using System.Text.RegularExpressions;
using CsCheck;
using Npgsql;
using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.App.Rounds;
using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Wordings;
using Rendal.Store.Books;
using Rendal.Store.Senders;
using Rendal.Store.Tests;
using Rendal.Store.Wordings;

namespace Rendal.App.Tests.Rounds;

/// <summary>A decision about one customer makes up what it touches, and that comes to what making up everything comes to.</summary>
public sealed partial class PreparingInPartTests(Postgres postgres)
{
    private static readonly string[] Customers = ["AB01", "BE02", "CA01", "DU04", "EL05", "FE06"];
    private static readonly string?[] OfCustomers = ["held", "removed", "put-in", null];
    private static readonly string?[] OfItems = ["out", "in", null];

    // EL05 and FE06 belong to DU04, whose statements list theirs as well; CA01 has a row that could not be read; FE06 owes in two
    // currencies.
    private static readonly string[] Ledger =
    [
        "Code|Name|Kind|Number|Date|Due|Currency|Outstanding|E-mail",
        "AB01|Abbot’s Table|Invoice|T-1|2026-09-01|2026-10-01|GBP|10.00|a@abbot.example",
        "AB01|Abbot’s Table|Credit|C-1|2026-09-11|2026-10-01|GBP|-4.00|a@abbot.example",
        "BE02|Beacon Lodge|Invoice|T-2|2026-09-01|2026-10-01|GBP|20.00|b@beacon.example",
        "BE02|Beacon Lodge|Invoice|T-3|2026-10-20|2026-11-20|GBP|30.00|b@beacon.example",
        "CA01|Cabot House|Invoice|T-4|2026-09-01|2026-10-01|GBP|40.00|c@cabot.example",
        "CA01|Cabot House|Invoice|T-5|2026-09-01|soon|GBP|nothing|c@cabot.example",
        "DU04|Dunmore Group|Invoice|T-6|2026-08-01|2026-09-01|GBP|50.00|d@dunmore.example",
        "EL05|Elm Court|Invoice|T-7|2026-09-01|2026-10-01|GBP|60.00|e@elm.example",
        "EL05|Elm Court|Invoice|T-8|2026-11-20|2026-12-01|GBP|5.00|e@elm.example",
        "FE06|Fern Hall|Invoice|T-9|2026-09-01|2026-10-01|GBP|70.00|",
        "FE06|Fern Hall|Invoice|T-10|2026-09-01|2026-10-01|EUR|80.00|",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static TimeProvider Clock => TimeProvider.System;

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task Whatever_is_decided_in_whatever_order_comes_to_what_making_up_everything_comes_to(bool isOfReminders)
    {
        var (stores, round) = await RoundAsync(isOfReminders);
        var step = Gen.Select(Gen.Int[0, Customers.Length - 1], Gen.Int[0, OfCustomers.Length + OfItems.Length - 1], Gen.Int[0, 9]);
        await step.Array[1, 12]
            .SampleAsync(
                async steps =>
                {
                    foreach (var (customer, what, item) in steps)
                    {
                        await DecideAsync(stores, round, Customers[customer], what, item);
                    }

                    var inPart = await StateAsync(stores.Source, round);
                    await new PrepareRound(stores, Clock).RunAsync(round, new ProgressMeter(), Cancel);
                    Assert.Equal(await StateAsync(stores.Source, round), inPart);
                },
                iter: 25,
                threads: 1
            );
    }

    [Fact]
    public async Task What_a_decision_does_not_touch_is_not_made_up_again()
    {
        var (stores, round) = await RoundAsync(isOfReminders: false);
        await using var mark = stores.Source.CreateCommand("update parcel set items = 99 where customer = 'BE02'");
        await mark.ExecuteNonQueryAsync(Cancel);
        await DecideAsync(stores, round, "AB01", Array.IndexOf(OfCustomers, "removed"), 0);
        await DecideAsync(stores, round, "AB01", Array.IndexOf(OfCustomers, null), 0);
        await DecideAsync(stores, round, "EL05", OfCustomers.Length, 0);

        // Decided the same again, as by a second click, or by somebody whose decision another's making took in.
        await DecideAsync(stores, round, "EL05", OfCustomers.Length, 0);
        await DecideAsync(stores, round, "AB01", Array.IndexOf(OfCustomers, null), 0);
        await new PrepareRound(stores, Clock).CatchUpAsync(round, Cancel);
        Assert.Equal(99, (await stores.Rounds.ParcelsAsync(round, Cancel)).Single(p => p.Customer == "BE02").Items);
        Assert.False((await stores.Rounds.FindAsync(round, Cancel))!.IsBehind(await stores.BookNowAsync(Cancel)));

        // Where something changed that all are made from, all are made up.
        var card = (await stores.Customers.FindAsync("AB01", Cancel))!;
        await stores.Customers.UpdateAsync(
            card with
            {
                Name = "Abbot’s Kitchen",
            },
            (await stores.Customers.VersionAsync("AB01", Cancel))!.Value,
            stores.Person,
            Clock.GetUtcNow(),
            Cancel
        );
        await DecideAsync(stores, round, "AB01", Array.IndexOf(OfCustomers, "removed"), 0);
        Assert.Equal(2, (await stores.Rounds.ParcelsAsync(round, Cancel)).Single(p => p.Customer == "BE02").Items);
    }

    [Fact]
    public async Task Several_who_decide_and_make_up_the_same_round_at_the_same_time_come_to_what_one_comes_to()
    {
        var (stores, round) = await RoundAsync(isOfReminders: false);
        string?[] decisions = ["held", "removed", null];
        for (var time = 0; time < 5; time++)
        {
            // As two people do in two processes, beside pages that have it made up by themselves.
            await Task.WhenAll([
                .. Customers
                    .Take(3)
                    .Select(c =>
                        Task.Run(() => DecideAsync(stores, round, c, Array.IndexOf(OfCustomers, decisions[time % decisions.Length]), 0))
                    ),
                .. Enumerable
                    .Range(0, 2)
                    .Select(_ => Task.Run(() => new PrepareRound(stores, Clock).RunAsync(round, new ProgressMeter(), Cancel))),
            ]);

            Assert.False((await stores.Rounds.FindAsync(round, Cancel))!.IsBehind(await stores.BookNowAsync(Cancel)));
            var together = await StateAsync(stores.Source, round);
            await new PrepareRound(stores, Clock).RunAsync(round, new ProgressMeter(), Cancel);
            Assert.Equal(await StateAsync(stores.Source, round), together);
        }
    }

    [Fact]
    public async Task However_often_somebody_is_taken_out_and_put_back_there_is_room_in_the_list()
    {
        var (stores, round) = await RoundAsync(isOfReminders: false);
        for (var i = 0; i < 15; i++)
        {
            foreach (var customer in new[] { "BE02", "EL05" })
            {
                await DecideAsync(stores, round, customer, Array.IndexOf(OfCustomers, "removed"), 0);
                await DecideAsync(stores, round, customer, Array.IndexOf(OfCustomers, null), 0);
            }
        }

        var parcels = await stores.Rounds.ParcelsAsync(round, Cancel);
        Assert.Equal(
            parcels.OrderBy(p => p.Name, StringComparer.OrdinalIgnoreCase).Select(p => p.Customer),
            parcels.Select(p => p.Customer)
        );
    }

    private async Task<(BookStores Stores, long Round)> RoundAsync(bool isOfReminders)
    {
        var source = await postgres.NewDatabaseAsync();
        var book = await Postgres.NewBookAsync(source);
        var intake = await book.UploadAsync("as below");
        Assert.True(await book.KeepAsync(intake, TestBook.Now, Ledger));
        await new WordingStore(source, book.Id).AddAsync(
            new Wording("Month end", "en", "Statement", "<p>Please find it enclosed.</p>"),
            book.Person,
            Cancel
        );
        await new SenderStore(source, book.Id).AddAsync(
            new Sender(0, "Tarnbrook", "accounts@tarnbrook.example", "127.0.0.1", 2525, "none", "", null),
            book.Person,
            Cancel
        );
        var stores = new BookStores((await new BookStore(source).FindAsync(book.Id, Cancel))!, book.Person, source);
        foreach (
            var (key, change) in new (string, Func<Customer, Customer>)[]
            {
                ("DU04", c => c with { Groups = GroupStatements.Both }),
                ("EL05", c => c with { HeadOffice = "DU04" }),
                ("FE06", c => c with { HeadOffice = "DU04" }),
            }
        )
        {
            await stores.Customers.UpdateAsync(
                change((await stores.Customers.FindAsync(key, Cancel))!),
                (await stores.Customers.VersionAsync(key, Cancel))!.Value,
                book.Person,
                TestBook.Now,
                Cancel
            );
        }

        var round = await new MakeRound(stores, Clock).RunAsync(
            "October",
            new DateOnly(2026, 10, 31),
            isOfReminders ? RoundKind.Reminders : RoundKind.Statements,
            Cancel
        );
        await new PrepareRound(stores, Clock).RunAsync(round, new ProgressMeter(), Cancel);
        return (stores, round);
    }

    private static async Task DecideAsync(BookStores stores, long round, string customer, int what, int item)
    {
        var revision = (await stores.Rounds.FindAsync(round, Cancel))!.Revision;
        if (what < OfCustomers.Length)
        {
            await new DecideCustomers(stores, Clock).RunAsync(round, revision, [customer], OfCustomers[what], "asked to", Cancel);
            return;
        }

        var intake = (await stores.Rounds.FindAsync(round, Cancel))!.IntakeId;
        var items = (await stores.Ledger.RowsAsync(intake, [customer], Cancel)).ConvertAll(r => ItemKey.Of(r).Text);
        await new DecideItem(stores, Clock).RunAsync(
            round,
            revision,
            customer,
            items[item % items.Count],
            OfItems[what - OfCustomers.Length],
            "asked to",
            Cancel
        );
    }

    /// <summary>All that making up a round writes, save for the moment and for positions, whose order counts.</summary>
    private static async Task<string> StateAsync(NpgsqlDataSource source, long round)
    {
        await using var command = source.CreateCommand(
            """
            select jsonb_pretty(jsonb_build_object(
                'round', (select to_jsonb(r) - 'prepared_at' from round r where id = $1),
                'parcels', (select jsonb_agg(to_jsonb(p) - '{id,position}'::text[] order by position) from parcel p where round_id = $1),
                'left out', (select jsonb_agg(to_jsonb(l) - 'position' order by position) from left_out l where round_id = $1),
                'proof', (select jsonb_agg(to_jsonb(p) order by currency) from round_proof p where round_id = $1),
                'items left out', (select jsonb_agg(to_jsonb(i) order by currency, reason) from round_item_left_out i where round_id = $1),
                'accounts', (select jsonb_agg(to_jsonb(a) order by customer, currency) from round_account a where round_id = $1)))
            """
        );
        command.Parameters.Add(new() { Value = round });
        return Scale().Replace((string)(await command.ExecuteScalarAsync(Cancel))!, "$1$2");
    }

    // 0.00 and 0 are the same amount.
    [GeneratedRegex(@"(\d)\.0+\b|(\.\d*?[1-9])0+\b")]
    private static partial Regex Scale();
}
