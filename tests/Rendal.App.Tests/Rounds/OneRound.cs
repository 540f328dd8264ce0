using System.Collections.Concurrent;
using Microsoft.Extensions.Logging.Abstractions;
using Npgsql;
using Rendal.App.Books;
using Rendal.App.Delivery;
using Rendal.App.Ledger;
using Rendal.App.Progress;
using Rendal.App.Rounds;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Files.Pdf;
using Rendal.Store.Books;
using Rendal.Store.Dispatch;
using Rendal.Store.People;
using Rendal.Store.Senders;
using Rendal.Store.Tests;
using Rendal.Store.Wordings;

namespace Rendal.App.Tests.Rounds;

/// <summary>
/// One round with the two people who are at it, and a worker. What each of them was shown last is remembered; what was let go by it, and
/// arrived, is compared with that.
/// </summary>
internal sealed class OneRound : IDisposable
{
    private static readonly string[] Customers = ["AB01", "BE02", "CA01", "DU04"];

    private readonly TestBook book;
    private readonly long[] people;
    private readonly DocumentRenderer press = new();
    private readonly ReleaseOrder?[] seen = new ReleaseOrder?[2];
    private readonly Dictionary<long, ShownParcel>[] shown =
    [
        [],
        [],
    ];
    private readonly ConcurrentDictionary<long, ShownParcel> released = [];
    private readonly string notes = Directory.CreateTempSubdirectory("rendal-given-").FullName;
    private readonly long round;

    private OneRound(TestBook book, long colleague, long round) =>
        (this.book, people, this.round) = (book, [book.Person, colleague], round);

    /// <summary>How many messages went.</summary>
    public int Sent { get; private set; }

    /// <summary>How many releases were refused because something was not as it had been shown.</summary>
    public int Refused { get; private set; }

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static string Slot(string name) => $"<span data-slot=\"{name}\"></span>";

    private static TimeProvider Clock => TimeProvider.System;

    /// <summary>Makes it, in a book of its own.</summary>
    public static async Task<OneRound> MakeAsync(NpgsqlDataSource source)
    {
        var book = await Postgres.NewBookAsync(source);
        var colleague = await new PersonStore(source).AddAsync($"colleague-{Guid.NewGuid():N}", "hash", Cancel);
        await book.LedgerOfAsync(Customers);
        await new WordingStore(source, book.Id).AddAsync(
            new Wording(
                "Month end",
                "en",
                $"Statement at {Slot("statement.date")}",
                $"<p>Your account stands at {Slot("statement.total")}.</p><p>{Slot("statement.table")}</p>"
            ),
            book.Person,
            Cancel
        );
        await new SenderStore(source, book.Id).AddAsync(
            new Sender(0, "Tarnbrook", "accounts@tarnbrook.example", "127.0.0.1", 2525, "none", "", null),
            book.Person,
            Cancel
        );
        var stores = new BookStores((await new BookStore(source).FindAsync(book.Id, Cancel))!, book.Person, source);
        var round = await new MakeRound(stores, Clock).RunAsync("October", new DateOnly(2026, 10, 31), RoundKind.Statements, Cancel);
        await new PrepareRound(stores, Clock).RunAsync(round, new ProgressMeter(), Cancel);
        return new OneRound(book, colleague, round);
    }

    /// <summary>One person looks through what would be let go, or through one parcel of it.</summary>
    public async Task LookAsync(int who, bool atOne)
    {
        var stores = await StoresAsync(who);
        var summed = await new SummariseRelease(stores, Clock).RunAsync(round, null, Cancel);
        IReadOnlyList<long>? wanted = atOne ? [.. summed.Ready.Parcels.Take(1).Select(p => p.Id)] : null;
        summed = wanted is null ? summed : await new SummariseRelease(stores, Clock).RunAsync(round, wanted, Cancel);
        shown[who].Clear();
        foreach (var parcel in summed.Ready.Parcels)
        {
            shown[who][parcel.Id] = await ShownParcel.OfAsync(parcel.Id, stores, press, Cancel);
        }

        // Who has looked through all of it has seen what changed; who looks at one parcel is told of the others.
        if (wanted is null)
        {
            await stores.Rounds.LookedAtAsync(round, (await stores.Rounds.FindAsync(round, Cancel))!.PreparedAt!.Value, null, Cancel);
        }

        seen[who] = new ReleaseOrder(
            wanted,
            summed.Revision,
            summed.Ready.Seen,
            null,
            Channel.Mail,
            DespiteLedger: false,
            SeenChanges: wanted is not null && summed.Changed.Length > 0
        );
    }

    /// <summary>One person lets go what they were shown last.</summary>
    public async Task ReleaseAsync(int who)
    {
        if (seen[who] is not { } order)
        {
            return;
        }

        try
        {
            await new ReleaseRound(await StoresAsync(who), Clock).RunAsync(round, order, Cancel);
            foreach (var (parcel, content) in shown[who])
            {
                released[parcel] = content;
            }
        }
        catch (ProblemException e) when (e.Reason == ProblemReason.Conflict)
        {
            Refused++;
        }
    }

    /// <summary>One person changes something; where that comes too late, they are told.</summary>
    public async Task ChangeAsync(int what, int who, int to)
    {
        var stores = await StoresAsync(who);
        var customer = Customers[to % Customers.Length];
        try
        {
            await (
                what switch
                {
                    0 => WordsAsync(stores, to),
                    1 => new BookStore(book.Source).UpdateFirmAsync(
                        book.Id,
                        new Firm("Tarnbrook Linen Hire", ["14 Tenter Lane"], [], [$"By transfer to account {to:00000000}"]),
                        stores.Person,
                        Cancel
                    ),
                    2 => CardAsync(stores, customer, c => c with { Name = $"{customer} of {to}" }),
                    3 => CardAsync(stores, customer, c =>
                        c with
                        {
                            Contacts = [new Contact { Address = to % 2 == 0 ? $"desk{to}@inn.example" : "desk@@inn" }],
                        }
                    ),
                    4 => ChoiceAsync(stores, to),
                    5 => DecideAsync(stores, customer, "held"),
                    6 => DecideAsync(stores, customer, "removed"),
                    7 => DecideAsync(stores, customer, null),
                    8 => new PrepareRound(stores, Clock).RunAsync(round, new ProgressMeter(), Cancel),
                    9 => IdentityAsync(stores, to),
                    10 => ParcelAsync(stores, customer, to),
                    _ => stores.Release.StopAsync(round, stores.Person, DateTimeOffset.UtcNow, Cancel),
                }
            );
        }
        catch (ProblemException)
        {
            // They are told; nothing of it was done.
        }
    }

    /// <summary>
    /// Changes whatever a message could be made from and no person of the round changes by the other ways: layout, rules, ledger, holds.
    /// </summary>
    public async Task ChangeTheBookAsync()
    {
        var stores = await StoresAsync(0);
        var layout = ReadyMade.All[0].Layout;
        await stores.Layouts.UseAsync(
            Purposes.Statement,
            "",
            await stores.Layouts.AddAsync(layout with { Name = "Another" }, stores.Person, DateTimeOffset.UtcNow, Cancel),
            stores.Person,
            Cancel
        );
        await new BookStore(book.Source).UpdateRulesAsync(
            book.Id,
            new StatementRules(new AgeingRule([5, 10], AgeBy.Document), StatementForm.BroughtForward, SettlementRule.Oldest),
            90,
            stores.Person,
            Cancel
        );
        var item = ItemKey
            .Of((await stores.Ledger.RowsAsync((await TheLedger.OfAsync(stores, Cancel)).Id, [Customers[0]], Cancel))[0])
            .Text;
        await stores.Holds.HoldAsync(Customers[0], new ItemHold(item, "asked", null), stores.Person, DateTimeOffset.UtcNow, Cancel);
        await book.LedgerOfAsync("ZZ99");
    }

    /// <summary>The worker sends as many parcels, and each is what was shown to who let it go.</summary>
    public async Task SendAsync(int most)
    {
        var queue = new DispatchQueue(book.Source);
        await using var worker = await queue.RegisterAsync(Cancel);
        using var given = new EndOfDataJournal(notes, await queue.DatabaseAsync(Cancel)).Begin(worker.Number);
        using var maker = new MessageMaker(book.Source, given, Clock, NullLogger.Instance);
        for (
            var sent = 0;
            sent < most && (await queue.ClaimAsync(worker.Number, 1, [], DateTimeOffset.UtcNow, Cancel)).SingleOrDefault() is { } claimed;
            sent++
        )
        {
            var made = Assert.Single(await maker.MakeAsync(claimed, () => Task.FromResult<ClaimedParcel?>(null), Cancel));
            Assert.Equal("", made.Problem);
            var attempt = (await queue.BeginAttemptAsync(claimed, worker.Number, made.Message, made.Letter, DateTimeOffset.UtcNow))!.Value;
            Assert.True(await queue.MarkEndingAsync(claimed, worker.Number, attempt, DateTimeOffset.UtcNow));
            var accepted = new Outcome(
                OutcomeKind.Accepted,
                "250 2.0.0 kept",
                [.. claimed.Recipients.Select(r => new RecipientAnswer(r, true, "250 2.1.5 ok"))]
            );
            await queue.EndAttemptAsync(
                claimed,
                worker.Number,
                attempt,
                accepted,
                NextStep.Following(accepted, claimed.Attempts, NextStep.DefaultPauses),
                DateTimeOffset.UtcNow
            );
            await CheckAsync(claimed);
            Sent++;
        }
    }

    /// <summary>
    /// Sends the rest, and looks at the whole: what is on record is what was let go, and nothing that was held or taken out.
    /// </summary>
    public async Task EndAsync()
    {
        await SendAsync(int.MaxValue);
        var stores = await StoresAsync(0);
        var kept = (await stores.Decisions.OfCustomersAsync(round, Cancel))
            .Where(d => d.Decision is "held" or "removed")
            .Select(d => d.Customer)
            .ToList();
        var sent = (await stores.Rounds.ParcelsAsync(round, Cancel)).Where(p => p.State == ParcelState.Sent).ToList();
        Assert.DoesNotContain(sent, p => kept.Contains(p.Customer));
        Assert.Equal(Sent, sent.Count);
        Assert.All(sent, p => Assert.Contains(p.Id, released.Keys));
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        press.Dispose();
        Directory.Delete(notes, recursive: true);
    }

    private async Task CheckAsync(ClaimedParcel claimed)
    {
        var recorded = ShownParcel.Of((await new DispatchLog(book.Source, book.Id).MessageAsync(claimed.Parcel, 0, Cancel))!);
        var wanted = released[claimed.Parcel];
        Assert.Equal(
            (wanted.From, wanted.To, wanted.Copies, wanted.Subject),
            (recorded.From, recorded.To, recorded.Copies, recorded.Subject)
        );
        Assert.Equal(wanted.Html, recorded.Html);
        Assert.Equal(wanted.Documents, recorded.Documents);
    }

    private async Task<BookStores> StoresAsync(int who) =>
        new((await new BookStore(book.Source).FindAsync(book.Id, Cancel))!, people[who], book.Source);

    private static async Task WordsAsync(BookStores stores, int to)
    {
        var wording = (await stores.Wordings.ListAsync(Cancel))[0];
        await stores.Wordings.UpdateAsync(
            wording.Id,
            wording.Version,
            wording.Wording with
            {
                Body = $"<p>{Slot("customer.name")}: your account stands at {Slot("statement.total")}, and so do {to} others.</p>",
            },
            stores.Person,
            DateTimeOffset.UtcNow,
            Cancel
        );
    }

    private static async Task CardAsync(BookStores stores, string key, Func<Customer, Customer> change)
    {
        var card = (await stores.Customers.FindAsync(key, Cancel))!;
        await stores.Customers.UpdateAsync(
            change(card),
            (await stores.Customers.VersionAsync(key, Cancel))!.Value,
            stores.Person,
            DateTimeOffset.UtcNow,
            Cancel
        );
    }

    private async Task ChoiceAsync(BookStores stores, int to)
    {
        var now = (await stores.Rounds.FindAsync(round, Cancel))!;
        var customers = Customers.Take(1 + (to % Customers.Length)).ToHashSet(StringComparer.Ordinal);
        await new ChangeRound(stores, Clock).RunAsync(
            round,
            now.Revision,
            now.Settings with
            {
                Choice = now.Choice with { Customers = customers },
            },
            new ProgressMeter(),
            Cancel
        );
    }

    private async Task ParcelAsync(BookStores stores, string customer, int to)
    {
        var parcels = await stores.Rounds.ParcelsAsync(round, Cancel);
        if (parcels.Find(p => p.Customer == customer) is not { } parcel)
        {
            return;
        }

        await new ChangeParcel(stores, Clock).RunAsync(
            parcel.Id,
            (await stores.Rounds.FindAsync(round, Cancel))!.Revision,
            new ParcelChange
            {
                Recipients = to % 3 == 0 ? null : new ParcelRecipients([$"own{to}@inn.example"], [$"copy{to}@inn.example"], []),
                Words = to % 2 == 0 ? null : new ParcelWords($"For {customer}", $"<p>As agreed: {Slot("statement.total")}, {to}.</p>"),
                DocumentNote = to % 5 == 0 ? "" : $"as agreed on the telephone, {to}",
            },
            Cancel
        );
    }

    private async Task DecideAsync(BookStores stores, string customer, string? decision)
    {
        var revision = (await stores.Rounds.FindAsync(round, Cancel))!.Revision;
        await new DecideCustomers(stores, Clock).RunAsync(round, revision, [customer], decision, "asked to", Cancel);
        Assert.Equal(decision, (await stores.Decisions.OfCustomersAsync(round, Cancel)).Find(d => d.Customer == customer)?.Decision);
    }

    private static async Task IdentityAsync(BookStores stores, int to)
    {
        var sender = (await stores.Senders.ListAsync(stores.Person, Cancel))[0];
        await stores.Senders.UpdateAsync(sender with { Name = $"Tarnbrook {to}" }, stores.Person, new DateOnly(2026, 11, 2), Cancel);
    }
}
