using Microsoft.AspNetCore.Identity;
using Npgsql;
using Rendal.App.Books;
using Rendal.App.Intake;
using Rendal.App.Progress;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Store.Books;
using Rendal.Store.Intake;
using Rendal.Store.People;
using Rendal.Store.Wordings;
using Rendal.Web.Books;

namespace Rendal.Web.Hosting;

/// <summary>The sample firm, taken in by the same means as any other.</summary>
internal static class DemoBook
{
    /// <summary>The name that one signs in with in the sample firm.</summary>
    public const string Person = "marta";

    /// <summary>The password of that person.</summary>
    public const string Password = "hire-and-launder";

    private static readonly NewBook Tarnbrook = new(
        "Tarnbrook Linen Hire",
        "GBP",
        ["Northgate Laundry, 14 Tenter Lane", "Kelby KB1 2LH"],
        ["accounts@tarnbrook.example", "VAT GB 000 0000 00"],
        [
            "By transfer to Bank of Kelby, sort code 00-00-00, account 12345678.",
            "Please quote your account number and the numbers of the invoices.",
        ]
    );

    /// <summary>Makes the sample book where there is nobody yet: its customers and its ledger.</summary>
    public static async Task EnsureAsync(IServiceProvider services, CancellationToken cancel)
    {
        var people = services.GetRequiredService<PersonStore>();
        if (await people.AnyAsync(cancel))
        {
            return;
        }

        var source = services.GetRequiredService<NpgsqlDataSource>();
        var person = await people.AddFirstAsync(
            Person,
            services.GetRequiredService<PasswordHasher<Person>>().HashPassword(null!, Password),
            cancel
        ) ?? throw new InvalidOperationException("Somebody was first.");
        var book = await Tarnbrook.MakeAsync(services.GetRequiredService<MakeBook>(), person, cancel);
        var clock = services.GetRequiredService<TimeProvider>();
        await AddWordingsAsync(source, book, person, cancel);
        var stores = new BookStores(
            await new BookStore(source).FindAsync(book, cancel) ?? throw new InvalidOperationException("The book is gone."),
            person,
            source
        );
        var files = services.GetRequiredService<OpenedFiles>();
        await TakeInAsync(stores, files, "customers.csv", IntakeKind.Customers, clock, cancel);
        await TakeInAsync(stores, files, "ledger-2026-10.csv", IntakeKind.Ledger, clock, cancel);
    }

    /// <summary>Some customers read German, French or Spanish; their statements say so.</summary>
    private static async Task AddWordingsAsync(NpgsqlDataSource source, long book, long person, CancellationToken cancel)
    {
        var wordings = new WordingStore(source, book);
        foreach (
            var ready in ReadyMadeWording.All.Where(r => r.Purpose == Purposes.Statement && r.Wording.Language != Language.English.Code)
        )
        {
            await wordings.UseAsync(
                ready.Purpose,
                ready.Wording.Language,
                await wordings.AddAsync(ready.Wording, person, cancel),
                person,
                cancel
            );
        }
    }

    private static async Task TakeInAsync(
        BookStores stores,
        OpenedFiles files,
        string name,
        IntakeKind kind,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var begun = await new BeginIntake(stores, files, clock).RunAsync(name, () => Open(name), kind, cancel);
        await new KeepIntake(stores, files, clock).RunAsync(begun.Id, sure: true, emptyClears: false, new ProgressMeter(), cancel);
    }

    private static Stream Open(string name) => typeof(DemoBook).Assembly.GetManifestResourceStream($"demo/{name}")!;
}
