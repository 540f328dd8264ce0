using Microsoft.AspNetCore.Identity;
using Npgsql;
using Rendal.App.Books;
using Rendal.Core.Intake;
using Rendal.Core.Uses;
using Rendal.Core.Wordings;
using Rendal.Files;
using Rendal.Store.Customers;
using Rendal.Store.Files;
using Rendal.Store.Intake;
using Rendal.Store.People;
using Rendal.Store.Wordings;
using Rendal.Web.Books;

namespace Rendal.Web.Hosting;

/// <summary>The sample firm, taken in by the same means as any other.</summary>
internal static class DemoBook
{
    public const string Person = "marta";

    public const string Password = "hire-and-launder";

    private static readonly NewBook Tarnbrook = new(
        "Tarnbrook Linen Hire",
        "GBP",
        ["Northgate Laundry, 14 Tenter Lane", "Kelby KB1 2LH"],
        ["accounts@tarnbrook.example", "VAT GB 000 0000 00"],
        ["By transfer to Bank of Kelby, sort code 00-00-00, account 12345678.", "Please quote your account number and the numbers of the invoices."]);

    /// <summary>Makes the sample book where there is nobody yet: its customers and its ledger.</summary>
    public static async Task EnsureAsync(IServiceProvider services, CancellationToken cancel)
    {
        var people = services.GetRequiredService<PersonStore>();
        if (await people.AnyAsync(cancel))
        {
            return;
        }

        var source = services.GetRequiredService<NpgsqlDataSource>();
        var person = await people.AddFirstAsync(Person, services.GetRequiredService<PasswordHasher<Person>>().HashPassword(null!, Password), cancel) ?? throw new InvalidOperationException("Somebody was first.");
        var book = await Tarnbrook.MakeAsync(services.GetRequiredService<MakeBook>(), person, cancel);
        var clock = services.GetRequiredService<TimeProvider>();
        await AddWordingsAsync(source, book, person, cancel);
        await TakeInCustomersAsync(source, book, person, clock, cancel);
        await TakeInLedgerAsync(source, book, person, clock, cancel);
    }

    /// <summary>Some customers read German, French or Spanish; their statements say so.</summary>
    private static async Task AddWordingsAsync(NpgsqlDataSource source, long book, long person, CancellationToken cancel)
    {
        var wordings = new WordingStore(source, book);
        foreach (var ready in ReadyMadeWording.All.Where(r => r.Purpose == Purposes.Statement && r.Wording.Language != Language.English.Code))
        {
            await wordings.UseAsync(ready.Purpose, ready.Wording.Language, await wordings.AddAsync(ready.Wording, person, cancel), person, cancel);
        }
    }

    private static async Task TakeInCustomersAsync(NpgsqlDataSource source, long book, long person, TimeProvider clock, CancellationToken cancel)
    {
        var (id, table) = await UploadAsync(source, book, person, "customers.csv", IntakeKind.Customers, cancel);
        var reading = CardReading.Of(table, ReadingChange.None)!;
        await new IntakeStore(source, book).KeepCustomersAsync(id, CustomerListReader.Read(table, reading), null, false, [], SavedReading.Of(reading, ReadingChange.None), clock.GetUtcNow(), cancel);
    }

    private static async Task TakeInLedgerAsync(NpgsqlDataSource source, long book, long person, TimeProvider clock, CancellationToken cancel)
    {
        var (id, table) = await UploadAsync(source, book, person, "ledger-2026-10.csv", IntakeKind.Ledger, cancel);
        var settings = new ReadingSettings(Core.Money.Currency.Of(Tarnbrook.Currency));
        var customers = new CustomerStore(source, book);
        var terms = await customers.TermsAsync(cancel);
        var recognised = Recognition.Recognise(table, settings, ReadingChange.None)!;
        var reader = new LedgerReader(table, recognised, settings, key => terms.TryGetValue(key, out var own) ? own : null);
        await new IntakeStore(source, book).KeepAsync(id, reader, await customers.ReachableAsync(cancel), SavedReading.Of(recognised.Reading, ReadingChange.None), clock.GetUtcNow(), cancel);
    }

    private static async Task<(long Id, LedgerTable Table)> UploadAsync(NpgsqlDataSource source, long book, long person, string name, IntakeKind kind, CancellationToken cancel)
    {
        var files = new FileStore(source, book);
        await using var content = Open(name);
        var file = await files.StoreAsync(name, content, cancel);
        return (await new IntakeStore(source, book).BeginAsync(file, kind, ReadingChange.None, person, cancel), TableFile.Open(name, () => files.Open(file), FileOpening.Unsaid));
    }

    private static Stream Open(string name) => typeof(DemoBook).Assembly.GetManifestResourceStream($"demo/{name}")!;
}
