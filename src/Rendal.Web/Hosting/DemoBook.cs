using Microsoft.AspNetCore.Identity;
using Npgsql;
using Rendal.Core.Intake;
using Rendal.Files.Csv;
using Rendal.Store.Customers;
using Rendal.Store.Files;
using Rendal.Store.Intake;
using Rendal.Store.People;
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
        var person = await people.AddAsync(Person, services.GetRequiredService<PasswordHasher<Person>>().HashPassword(null!, Password), cancel);
        var book = await services.GetRequiredService<BookMaking>().MakeAsync(Tarnbrook, person, cancel);
        var customers = CustomerListReader.Read(CsvLedger.Open("customers.csv", () => Open("customers.csv")))!;
        await new CustomerStore(source, book).TakeInAsync(customers.Customers, cancel);
        await TakeInAsync(source, book, person, services.GetRequiredService<TimeProvider>(), cancel);
    }

    private static async Task TakeInAsync(NpgsqlDataSource source, long book, long person, TimeProvider clock, CancellationToken cancel)
    {
        const string name = "ledger-2026-10.csv";
        var files = new FileStore(source, book);
        var intakes = new IntakeStore(source, book);
        await using var content = Open(name);
        var file = await files.StoreAsync(name, content, cancel);
        var id = await intakes.BeginAsync(file, person, cancel);
        var settings = new ReadingSettings(Core.Money.Currency.Of(Tarnbrook.Currency));
        var table = CsvLedger.Open(name, () => files.Open(file));
        var customers = new CustomerStore(source, book);
        var terms = await customers.TermsAsync(cancel);
        var reader = new LedgerReader(table, Recognition.Recognise(table, settings, ReadingChange.None)!, settings, key => terms.TryGetValue(key, out var days) ? days : null);
        await intakes.KeepAsync(id, reader, await customers.ReachableAsync(cancel), clock.GetUtcNow(), cancel);
    }

    private static Stream Open(string name) => typeof(DemoBook).Assembly.GetManifestResourceStream($"demo/{name}")!;
}
