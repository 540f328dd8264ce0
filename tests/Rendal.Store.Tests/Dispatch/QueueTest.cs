using System.Security.Cryptography;
using System.Text;
using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Core.Tests;
using Rendal.Store.Dispatch;
using Rendal.Store.Senders;

namespace Rendal.Store.Tests.Dispatch;

/// <summary>The queue is one for all books, so each test of it has a database of its own.</summary>
public abstract class QueueTest(Postgres postgres) : IAsyncLifetime
{
    protected static Outcome Accepted { get; } =
        new(OutcomeKind.Accepted, "250 2.0.0 kept", [new RecipientAnswer("AB01@inn.example", true, "250 2.1.5 ok")]);

    protected static DateOnly Today => DateOnly.FromDateTime(TestBook.Now.UtcDateTime);

    protected static CancellationToken Cancel => TestContext.Current.CancellationToken;

    protected string Folder { get; } = Directory.CreateTempSubdirectory("rendal-given-").FullName;

    private protected NpgsqlDataSource Source { get; private set; } = null!;

    private protected DispatchQueue Queue { get; private set; } = null!;

    private protected EndOfDataJournal Given { get; private set; } = null!;

    private protected TestBook Book { get; private set; } = null!;

    private protected Postgres Postgres { get; } = postgres;

    public async ValueTask InitializeAsync()
    {
        Source = await Postgres.NewDatabaseAsync();
        Queue = new DispatchQueue(Source);
        Given = new EndOfDataJournal(Folder, await Queue.DatabaseAsync(CancellationToken.None));
        Book = await Rendal.Store.Tests.Postgres.NewBookAsync(Source);
    }

    public async ValueTask DisposeAsync()
    {
        await Source.DisposeAsync();
        Directory.Delete(Folder, recursive: true);
        GC.SuppressFinalize(this);
    }

    protected static OutgoingMessage Message(ClaimedParcel parcel)
    {
        var bytes = Encoding.UTF8.GetBytes($"message to {parcel.Recipients[0]}");
        var id = $"{parcel.Book}.{parcel.Parcel}.{parcel.MessageIndex}@tarnbrook.example";
        return new OutgoingMessage(id, parcel.Subject, bytes, SHA256.HashData(bytes));
    }

    protected async Task SendAsync(ClaimedParcel parcel, long worker, Outcome outcome)
    {
        var dispatchTry = (
            await Queue.BeginAttemptAsync(parcel, worker, parcel.Message is null ? Message(parcel) : null, null, TestBook.Now)
        )!.Value;
        Assert.True(await Queue.MarkEndingAsync(parcel, worker, dispatchTry, TestBook.Now));
        await Queue.EndAttemptAsync(
            parcel,
            worker,
            dispatchTry,
            outcome,
            NextStep.Following(outcome, parcel.Attempts, NextStep.DefaultPauses),
            TestBook.Now
        );
    }

    protected async Task<ClaimedParcel?> ClaimAsync(WorkerConnection worker, DateTimeOffset now) =>
        (await Queue.ClaimAsync(worker.Number, 1, [], now, Cancel)).SingleOrDefault();

    protected async Task<ClaimedParcel?> ClaimAsync()
    {
        await using var worker = await Queue.RegisterAsync(Cancel);
        return await ClaimAsync(worker, TestBook.Now);
    }

    protected async Task DrainAsync()
    {
        await using var worker = await Queue.RegisterAsync(Cancel);
        while (await ClaimAsync(worker, TestBook.Now.AddDays(1)) is { } parcel)
        {
            await SendAsync(parcel, worker.Number, Accepted);
        }
    }

    /// <summary>Ends the server's side of a worker's connection, as a crash of the worker's machine would.</summary>
    protected async Task KillAsync(WorkerConnection worker)
    {
        await using var command = Source.CreateCommand(
            "select count(pg_terminate_backend(pid)) from pg_locks where locktype = 'advisory' and objid = $1 and objsubid = "
                + "2 and database = (select oid from pg_database where datname = current_database())"
        );
        command.Parameters.Add(new() { Value = worker.Number });
        Assert.Equal(1L, await command.ExecuteScalarAsync(Cancel));
        await Assert.ThrowsAnyAsync<NpgsqlException>(() => worker.WaitAsync(TimeSpan.FromMinutes(1), Cancel));
    }

    /// <summary>Recovers until as many parcels were seen to: the server needs a moment to end a connection.</summary>
    protected async Task RecoverAsync(int parcels)
    {
        var seenTo = 0;
        await Eventually.HoldsAsync(async () => (seenTo += await Queue.RecoverAsync(Given, TestBook.Now, Cancel)) >= parcels);

        Assert.Equal(parcels, seenTo);
    }

    protected async Task AllowAsync(ReleasedRound released, int? aMinute, int? aDay)
    {
        var senders = new SenderStore(Source, Book.Id);
        Assert.True(
            await senders.UpdateAsync(
                (await senders.FindAsync(released.Sender, Cancel))! with
                {
                    AMinute = aMinute,
                    ADay = aDay,
                },
                Book.Person,
                Today,
                Cancel
            )
        );
    }

    protected static async Task RunAsync(NpgsqlDataSource source, string sql)
    {
        await using var command = source.CreateCommand(sql);
        await command.ExecuteNonQueryAsync(Cancel);
    }
}
