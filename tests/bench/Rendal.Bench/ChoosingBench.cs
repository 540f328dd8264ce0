using System.Diagnostics;
using Npgsql;
using Rendal.App.Books;
using Rendal.App.Rounds;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Store.Books;
using Rendal.Store.Intake;
using Rendal.Store.Ledger;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;

namespace Rendal.Bench;

/// <summary>Choosing among all customers of a large ledger: what a choice comes to, told from PostgreSQL.</summary>
internal static class ChoosingBench
{
    private const int Choices = 100;

    /// <summary>Measures on the database in which a ledger was taken in last.</summary>
    public static async Task<Measurement> RunAsync(string database)
    {
        var cancel = CancellationToken.None;
        await using var source = NpgsqlDataSource.Create(database);
        var book = await source.CreateCommand("select max(id) from book").ExecuteScalarAsync(cancel) is long id ? id : 0;
        var stores = new BookStores((await new BookStore(source).FindAsync(book, cancel))!, 1, source);
        var intake = (await new IntakeStore(source, book).CurrentAsync(cancel))!;
        var wording = await new WordingStore(source, book).AddAsync(
            new Wording("Bench", "en", "Statement", "<p>Statement</p>"),
            1,
            cancel
        );
        var sender = await new SenderStore(source, book).AddAsync(
            new Sender(0, "Bench", "bench@bench.example", "127.0.0.1", 2525, "none", "", null),
            1,
            cancel
        );
        var rounds = new RoundStore(source, book);
        var choice = new Choice { AsOf = BenchLedger.AsOf };
        var round = await rounds.MakeAsync(
            intake.Id,
            new RoundSettings("Bench", choice, wording, sender, null),
            StatementRules.Default,
            1,
            cancel
        );
        var (accounts, rows) = await PrepareAsync(source, book, round, intake.Id, choice);
        var chance = new Random(20261031);
        var times = new List<double>();
        for (var i = 0; i < Choices; i++)
        {
            var wanted = choice with
            {
                LeastBalance = chance.Next(1, 50) * 100,
                OverdueDays = chance.Next(1, 90),
                NotWithinDays = i % 3 == 0 ? 7 : null,
            };
            var watch = Stopwatch.StartNew();
            var count = await new CountChoice(stores).RunAsync(round, wanted, cancel)
                ?? throw new InvalidOperationException("The sums of the round were not found.");
            times.Add(watch.Elapsed.TotalMilliseconds);
            if (count.Parcels + count.LeftOut.Sum(l => l.Customers) != accounts)
            {
                throw new InvalidOperationException("What was measured did not come out right.");
            }
        }

        times.Sort();
        return new Measurement(
            $"choosing over {accounts:N0} customers of {rows:N0} rows: count, sums and reasons, 95 of 100 within",
            $"{times[(Choices * 95 / 100) - 1]:0} ms",
            "–",
            null,
            "≤ 300 ms"
        );
    }

    private static async Task<(int Accounts, int Rows)> PrepareAsync(
        NpgsqlDataSource source,
        long book,
        long round,
        long intake,
        Choice choice
    )
    {
        var rows = await new LedgerStore(source, book).RowsAsync(intake, CancellationToken.None);
        var chosen = Choosing.Choose(rows, [], choice, SettlementRule.None, StatementRules.Default, _ => new Reachability(
            false,
            true,
            null
        ));
        await new RoundStore(source, book).PutPreparedAsync(
            round,
            new PreparedState(1, 0, DateTimeOffset.UtcNow),
            [],
            [],
            chosen with
            {
                LeftOut = [],
            },
            new RoundBasis(choice, ByHand.Nothing, StatementRules.Default),
            CancellationToken.None
        );
        return (chosen.Accounts.Count, rows.Count);
    }
}
