using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Money;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Store.Cluster;
using Rendal.Store.Files;
using Rendal.Store.Intake;
using Rendal.Store.Ledger;
using Rendal.Store.Migrations;
using Rendal.Store.People;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Bench;

/// <summary>
/// Released parcels until the last is in the dispatch log, the statement printed and enclosed on the way and every step
/// written down first, against smtp-source of Debian's postfix that pumps ready-made messages of the same size into the same sink.
/// </summary>
internal static class SendingBench
{
    private const int Messages = 1_000;
    private const int Sessions = 2;
    private const int MessageSize = 45_000;

    public static async Task<IReadOnlyList<Measurement>> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("rendal-bench-").FullName;
        try
        {
            await using var cluster = await LocalCluster.StartAsync(folder, forTests: false, CancellationToken.None);
            var database = await cluster.DatabaseAsync("rendal", CancellationToken.None);
            Schema.Upgrade(database);
            var mailPort = FreePort();
            await using var app = RendalHost.Build(new HostParts(database, folder, 0, mailPort, Role.All, null, null));
            await app.StartAsync();
            using var sink = Sink.Start();
            var rate = await SendAsync(app, sink?.Port ?? mailPort);
            var pumped = sink is null ? null : Pumped(sink.Port);
            return
            [
                new Measurement(
                    $"{Messages:N0} messages with a statement, printed, enclosed, sent and logged", $"{rate:0} a second",
                    pumped is { } p ? $"smtp-source {p:0} a second" : "smtp-source is not installed (Debian package postfix)", rate / pumped, "≥ 0.25"),
            ];
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task<double> SendAsync(WebApplication app, int port)
    {
        var cancel = CancellationToken.None;
        var source = app.Services.GetRequiredService<NpgsqlDataSource>();
        var person = await app.Services.GetRequiredService<PersonStore>().AddAsync("bench", "no password", cancel);
        var book = await app.Services.GetRequiredService<BookMaking>().MakeAsync(new NewBook("Tarnbrook Linen Hire", "GBP", ["14 Tenter Lane"], [], ["By transfer"]), person, cancel);
        var senders = new SenderStore(source, book);
        var sender = (await senders.ListAsync(cancel))[0];
        await senders.UpdateAsync(sender with { Port = port, UserName = "", ProtectedPassword = null }, DateOnly.FromDateTime(DateTime.UtcNow), cancel);
        var intake = await TakeInAsync(source, book, person);
        var wording = await new WordingStore(source, book).AddAsync(new Wording("Bench", "en", "Statement", "<p>Your statement is enclosed.</p>"), cancel);
        var rounds = new RoundStore(source, book);
        var choice = new Choice { AsOf = BenchLedger.AsOf };
        var round = await rounds.MakeAsync("Bench", intake, choice, StatementRules.Default, wording, sender.Id, person, cancel);
        var rows = await new LedgerStore(source, book).RowsAsync(intake, cancel).ToListAsync(cancel);
        var chosen = Choosing.Choose(rows, [], choice, SettlementRule.None, StatementRules.Default, _ => new Reachability(false, true, null));
        var parcels = chosen.Statements.Select(s => new ParcelRecord(0, s.Customer, s.Customer, [new ParcelAccount(s.Customer, s.Customer)], Core.Dispatch.ParcelState.Prepared, [$"{s.Customer}@inn.example"], "", Web.Rounds.ParcelMaking.Sums([s]), s.Items.Count, "")).ToList();
        await rounds.PutPreparedAsync(round, parcels, chosen, new RoundBasis(choice, ByHand.Nothing, StatementRules.Default), DateTimeOffset.UtcNow, cancel);
        var stored = await rounds.ParcelsAsync(round, cancel);
        var frozen = stored.Select(p => new FrozenParcel(p.Id, "Statement", "<p>Your statement is enclosed.</p>", new Customer { Key = p.Customer, Name = p.Customer })).ToList();

        var watch = Stopwatch.StartNew();
        await rounds.ReleaseAsync(round, frozen, ByHand.Nothing, StatementRules.Default, person, DateTimeOffset.UtcNow, cancel);
        while (true)
        {
            var counts = await rounds.CountsAsync(round, cancel);
            if (counts.GetValueOrDefault("sent") == Messages)
            {
                return Messages / watch.Elapsed.TotalSeconds;
            }

            if (counts.Keys.FirstOrDefault(s => s is not ("released" or "sending" or "sent")) is { } other)
            {
                throw new InvalidOperationException($"A parcel is {other}: what was measured did not come out right.");
            }

            await Task.Delay(50, cancel);
        }
    }

    private static async Task<long> TakeInAsync(NpgsqlDataSource source, long book, long person)
    {
        var cancel = CancellationToken.None;
        using var content = new MemoryStream("as below"u8.ToArray());
        var intakes = new IntakeStore(source, book);
        var intake = await intakes.BeginAsync(await new FileStore(source, book).StoreAsync("bench.csv", content, cancel), IntakeKind.Ledger, ReadingChange.None, person, cancel);
        var lines = Enumerable.Range(0, Messages).SelectMany(c => Enumerable.Range(0, 10).Select(i => $"C{c:00000}|Invoice|T-{c}-{i}|2026-09-{i + 1:00}|2026-10-{i + 1:00}|{100 + i}.50|c{c}@inn.example"));
        var rows = lines.Prepend("Code|Kind|Number|Date|Due|Outstanding|E-mail").Select((line, i) => new FileRow(i + 1, [.. line.Split('|').Select(Cell.Of)]));
        var table = new LedgerTable("bench.csv", null, rows);
        var settings = new ReadingSettings(Currency.Of("GBP"));
        var recognised = Recognition.Recognise(table, settings, ReadingChange.None)!;
        await intakes.KeepAsync(intake, new LedgerReader(table, recognised, settings), new HashSet<string>(), SavedReading.Of(recognised.Reading, ReadingChange.None), DateTimeOffset.UtcNow, cancel);
        return intake;
    }

    private static double? Pumped(int port)
    {
        var seconds = Enumerable.Range(0, 3).Select(_ => Rounds.Seconds(() => Sink.Pump(port, Messages, Sessions, MessageSize))).ToList();
        return Messages / Rounds.Median(seconds);
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
