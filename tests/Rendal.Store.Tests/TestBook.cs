using System.Text;
using Npgsql;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Intake;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Store.Files;
using Rendal.Store.Intake;
using Rendal.Store.Ledger;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;

namespace Rendal.Store.Tests;

/// <summary>A book with short ways to bring it into the state that a test begins with.</summary>
public sealed record TestBook(NpgsqlDataSource Source, long Id, long Person)
{
    public static readonly DateTimeOffset Now = new(2026, 11, 2, 8, 14, 0, TimeSpan.Zero);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>The reading that is remembered where a test does not care which.</summary>
    public static readonly SavedReading Remembered = new([new SavedColumn("Code", ColumnMeaning.CustomerCode)]);

    public IntakeStore Intakes => new(Source, Id);

    public LedgerStore Ledger => new(Source, Id);

    public RoundStore Rounds => new(Source, Id);

    public RoundRelease Release => new(Source, Id);

    public RoundDispatch Dispatch => new(Source, Id);

    public RoundDecisions Decisions => new(Source, Id);

    public RoundChanges Changes => new(Source, Id);

    /// <summary>Holds the parcel of a customer, by who saw the round as it was prepared first.</summary>
    public Task<DecisionUpdate> HoldAsync(long round, string customer) =>
        Decisions.DecideAsync(round, 1, [customer], "held", "", Person, Cancel);

    /// <summary>Uploads a file of lines and notes it as looked at.</summary>
    public async Task<long> UploadAsync(params string[] lines)
    {
        using var content = new MemoryStream(Encoding.UTF8.GetBytes(string.Join('\n', lines)));
        var file = await new FileStore(Source, Id).StoreAsync("ledger.csv", content, Cancel);
        return await Intakes.BeginAsync(file, IntakeKind.Ledger, ReadingChange.None, Person, Cancel);
    }

    /// <summary>Keeps an uploaded intake whose rows are those of <paramref name="lines"/>, cells parted by bars.</summary>
    public Task<bool> KeepAsync(long intake, DateTimeOffset now, params string[] lines) =>
        Intakes.KeepAsync(intake, Reader(Rows(lines)), new HashSet<string>(), Remembered, now, Cancel);

    /// <summary>Uploads and keeps one invoice of 100.00 for each customer.</summary>
    public async Task<long> LedgerOfAsync(params string[] customers)
    {
        var intake = await UploadAsync("as below");
        Assert.True(
            await KeepAsync(
                intake,
                Now,
                [
                    "Code|Kind|Number|Date|Due|Outstanding|E-mail",
                    .. customers.Select((c, i) => $"{c}|Invoice|T-{i}|2026-09-01|2026-10-01|100.00|{c}@inn.example"),
                ]
            )
        );
        return intake;
    }

    public static LedgerReader Reader(IEnumerable<FileRow> rows)
    {
        var settings = new ReadingSettings(Currency.Of("GBP"));
        var table = new LedgerTable("ledger.csv", null, rows);
        return new LedgerReader(table, Recognition.Recognise(table, settings, ReadingChange.None)!, settings);
    }

    public static IEnumerable<FileRow> Rows(params string[] lines) =>
        lines.Select((line, i) => new FileRow(i + 1, [.. line.Split('|').Select(Cell.Of)]));

    /// <summary>A round of one ready parcel for each customer, released.</summary>
    public async Task<ReleasedRound> ReleasedAsync(params string[] customers)
    {
        var prepared = await PreparedAsync(customers);
        await ReleaseAsync(prepared);
        return prepared;
    }

    /// <summary>Releases all of a round that was prepared.</summary>
    public async Task ReleaseAsync(ReleasedRound prepared)
    {
        var parcels = await Rounds.ParcelsAsync(prepared.Round, Cancel);
        Assert.True(
            await Release.ReleaseAsync(
                prepared.Round,
                1,
                [
                    [.. parcels.Select(p => Frozen(p.Id, p.Customer))],
                ],
                ByHand.Nothing,
                StatementRules.Default,
                Person,
                Now,
                Now,
                Channel.Mail,
                Cancel
            )
        );
    }

    public static FrozenParcel Frozen(long parcel, string customer) =>
        new(
            parcel,
            "Statement",
            "<p>Statement</p>",
            new Customer { Key = customer, Name = customer },
            new Firm("Tarnbrook Linen Hire", ["14 Tenter Lane"], [], []),
            new SentAs("Tarnbrook", "accounts@tarnbrook.example", "", CopyToSelf: false)
        );

    /// <summary>A round of one ready parcel for each customer.</summary>
    public async Task<ReleasedRound> PreparedAsync(params string[] customers)
    {
        var intake = await LedgerOfAsync(customers);
        var wording = await new WordingStore(Source, Id).AddAsync(
            new Wording("First", "en", "Statement", "<p>Statement</p>"),
            Person,
            Cancel
        );
        var sender = await new SenderStore(Source, Id).AddAsync(
            new Sender(0, "Tarnbrook", "accounts@tarnbrook.example", "127.0.0.1", 2525, "none", "", null),
            Person,
            Cancel
        );
        var choice = new Choice { AsOf = new DateOnly(2026, 10, 31) };
        var round = await Rounds.MakeAsync(
            intake,
            new RoundSettings("October", choice, wording, sender, null),
            StatementRules.Default,
            Person,
            Cancel
        );
        Assert.True(
            await Rounds.PutPreparedAsync(
                round,
                new PreparedState(1, 0, Now),
                [.. customers.Select(Parcel)],
                [],
                await ChosenAsync(intake, choice),
                new RoundBasis(choice, ByHand.Nothing, StatementRules.Default),
                Cancel
            )
        );
        return new ReleasedRound(round, sender);
    }

    public async Task<ChosenRound> ChosenAsync(long intake, Choice choice) =>
        Choosing.Choose(
            await Ledger.RowsAsync(intake, Cancel),
            [],
            choice,
            SettlementRule.None,
            StatementRules.Default,
            _ => new Reachability(false, true, null)
        );

    public static ParcelRecord Parcel(string customer) =>
        new(
            0,
            customer,
            customer,
            [new ParcelAccount(customer, customer)],
            ParcelState.Prepared,
            [$"{customer}@inn.example"],
            "",
            [new ParcelSum("GBP", 100m, 100m, [0m, 100m, 0m, 0m, 0m], 0m)],
            1,
            ""
        )
        {
            ReminderLevel = 1,
        };

    /// <summary>The states of a round's parcels by customer.</summary>
    public async Task<Dictionary<string, ParcelState>> StatesAsync(long round) =>
        (await Rounds.ParcelsAsync(round, Cancel)).ToDictionary(p => p.Customer, p => p.State);
}

/// <summary>A round with its sender.</summary>
public sealed record ReleasedRound(long Round, long Sender);
