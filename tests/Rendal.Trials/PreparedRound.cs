using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Rendal.App.Books;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Intake;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Store.Files;
using Rendal.Store.Intake;
using Rendal.Store.Ledger;
using Rendal.Store.People;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;

namespace Rendal.Trials;

/// <summary>A round of many parcels in a book of its own, ready to be released: each customer with ten invoices and an address.</summary>
internal sealed class PreparedRound
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);

    private static readonly Firm Letterhead = new("Tarnbrook Linen Hire", ["14 Tenter Lane"], [], ["By transfer"]);

    private PreparedRound(NpgsqlDataSource source, long book, long id, long sender, long person) =>
        (Rounds, Release, Dispatch, Senders, Book, Id, Sender, Person) = (
            new RoundStore(source, book),
            new RoundRelease(source, book),
            new RoundDispatch(source, book),
            new SenderStore(source, book),
            book,
            id,
            sender,
            person
        );

    public RoundStore Rounds { get; }

    public RoundRelease Release { get; }

    public RoundDispatch Dispatch { get; }

    public SenderStore Senders { get; }

    public long Book { get; }

    public long Id { get; }

    public long Sender { get; }

    /// <summary>Who made it.</summary>
    public long Person { get; }

    /// <summary>Makes a book and prepares the round.</summary>
    /// <param name="services">Those of a host.</param>
    /// <param name="parcels">How many.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task<PreparedRound> MakeAsync(IServiceProvider services, int parcels, CancellationToken cancel)
    {
        var source = services.GetRequiredService<NpgsqlDataSource>();
        var person = await services.GetRequiredService<PersonStore>().AddAsync($"person {Guid.NewGuid():N}", "no password", cancel);
        var book = await services.GetRequiredService<MakeBook>().RunAsync(Letterhead, Currency.Of("GBP"), "Europe/London", person, cancel);
        var sender = (await new SenderStore(source, book).ListAsync(person, cancel))[0];
        var intake = await TakeInAsync(source, book, person, parcels, cancel);
        var wording = await new WordingStore(source, book).AddAsync(
            new Wording("Trial", "en", "Statement", "<p>Your statement is enclosed.</p>"),
            person,
            cancel
        );
        var rounds = new RoundStore(source, book);
        var choice = new Choice { AsOf = AsOf };
        var round = await rounds.MakeAsync(
            intake,
            new RoundSettings("Trial", choice, wording, sender.Id, null),
            StatementRules.Default,
            person,
            cancel
        );
        var rows = await new LedgerStore(source, book).RowsAsync(intake, cancel);
        var chosen = Choosing.Choose(rows, [], choice, SettlementRule.None, StatementRules.Default, _ => new Reachability(
            false,
            true,
            null
        ));
        var made = chosen
            .Statements.Select(s => new ParcelRecord(
                0,
                s.Customer,
                s.Customer,
                [new ParcelAccount(s.Customer, s.Customer)],
                ParcelState.Prepared,
                [$"{s.Customer}@inn.example"],
                "",
                [ParcelSum.Of(s)],
                s.Items.Count,
                ""
            ))
            .ToList();
        await rounds.PutPreparedAsync(
            round,
            new PreparedState(1, 0, DateTimeOffset.UtcNow),
            made,
            [],
            chosen,
            new RoundBasis(choice, ByHand.Nothing, StatementRules.Default),
            cancel
        );
        return new PreparedRound(source, book, round, sender.Id, person);
    }

    /// <summary>Releases all its parcels.</summary>
    public async Task ReleaseAsync(CancellationToken cancel)
    {
        var sentAs = (await Senders.FindAsync(Sender, cancel))!.SentAs;
        var frozen = (await Rounds.ParcelsAsync(Id, cancel))
            .Select(p => new FrozenParcel(
                p.Id,
                "Statement",
                "<p>Your statement is enclosed.</p>",
                new Customer { Key = p.Customer, Name = p.Customer },
                Letterhead,
                sentAs
            ))
            .ToList();
        if (
            !await Release.ReleaseAsync(
                Id,
                1,
                [frozen],
                ByHand.Nothing,
                StatementRules.Default,
                Person,
                DateTimeOffset.UtcNow,
                DateTimeOffset.UtcNow,
                Channel.Mail,
                cancel
            )
        )
        {
            throw new InvalidOperationException("The round could not be released.");
        }
    }

    /// <summary>Whether parcels still wait for their turn.</summary>
    public async Task<bool> IsUnderWayAsync(CancellationToken cancel) =>
        (await Dispatch.CountsAsync(Id, cancel)).Keys.Any(s => s is "released" or "sending" or "to-be-retried");

    private static async Task<long> TakeInAsync(NpgsqlDataSource source, long book, long person, int customers, CancellationToken cancel)
    {
        using var content = new MemoryStream("as below"u8.ToArray());
        var intakes = new IntakeStore(source, book);
        var intake = await intakes.BeginAsync(
            await new FileStore(source, book).StoreAsync("trial.csv", content, cancel),
            IntakeKind.Ledger,
            ReadingChange.None,
            person,
            cancel
        );
        var lines = Enumerable
            .Range(0, customers)
            .SelectMany(c =>
                Enumerable
                    .Range(0, 10)
                    .Select(i => $"C{c:00000}|Invoice|T-{c}-{i}|2026-09-{i + 1:00}|2026-10-{i + 1:00}|{100 + i}.50|c{c}@inn.example")
            );
        var rows = lines
            .Prepend("Code|Kind|Number|Date|Due|Outstanding|E-mail")
            .Select((line, i) => new FileRow(i + 1, [.. line.Split('|').Select(Cell.Of)]));
        var table = new LedgerTable("trial.csv", null, rows);
        var settings = new ReadingSettings(Currency.Of("GBP"));
        var recognised = Recognition.Recognise(table, settings, ReadingChange.None)!;
        await intakes.KeepAsync(
            intake,
            new LedgerReader(table, recognised, settings),
            new HashSet<string>(),
            SavedReading.Of(recognised.Reading, ReadingChange.None),
            DateTimeOffset.UtcNow,
            cancel
        );
        return intake;
    }
}
