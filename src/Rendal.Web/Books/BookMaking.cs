using System.ComponentModel.DataAnnotations;
using Npgsql;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Wordings;
using Rendal.Store.Books;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;
using Rendal.Web.Hosting;
using Rendal.Web.Postroom;

namespace Rendal.Web.Books;

/// <summary>What a new book is made from.</summary>
internal sealed record NewBook([property: StringLength(200)] string Name, [property: StringLength(10)] string Currency, [property: MaxLength(20)] IReadOnlyList<string> AddressLines, [property: MaxLength(20)] IReadOnlyList<string> ContactLines, [property: MaxLength(20)] IReadOnlyList<string> PaymentLines, [property: StringLength(100)] string TimeZone = "Europe/London")
{
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name))
        {
            throw Unable.Invalid("Say the firm’s name.");
        }

        if (!Rendal.Core.Money.Currency.TryParse(Currency, out _))
        {
            throw Unable.Invalid($"“{Currency}” is not a currency code; write three letters such as GBP or EUR.");
        }

        if (!TimeZoneInfo.TryFindSystemTimeZoneById(TimeZone, out _))
        {
            throw Unable.Invalid($"“{TimeZone}” is not a time zone; write one such as Europe/London.");
        }
    }
}

/// <summary>Makes books that can be tried at once: with first wordings, and a sender that goes to the postroom.</summary>
internal sealed class BookMaking(BookStore books, NpgsqlDataSource source, HostParts parts)
{
    public async Task<long> MakeAsync(NewBook book, long person, CancellationToken cancel)
    {
        var firm = new Firm(book.Name.Trim(), Lines(book.AddressLines), Lines(book.ContactLines), Lines(book.PaymentLines));
        var id = await books.MakeAsync(firm, Currency.Of(book.Currency), book.TimeZone, person, cancel);
        var wordings = new WordingStore(source, id);
        await wordings.UseAsync(Purposes.Statement, "", await wordings.AddAsync(Ready(Purposes.Statement), cancel), cancel);
        var levels = new List<ReminderLevel>();
        foreach (var (i, level) in ReminderRules.Default.Levels.Index())
        {
            levels.Add(level with { Wording = await wordings.AddAsync(Ready(Purposes.OfLevel(i + 1)), cancel) });
        }

        var made = (await books.FindAsync(id, cancel))!;
        await books.UpdateRulesAsync(id, made.Rules with { Reminders = new ReminderRules(levels) }, made.TermsDays, cancel);
        await new SenderStore(source, id).AddAsync(
            new Sender(0, firm.Name, "accounts@practice.example", "127.0.0.1", parts.MailPort, "none", BookAccounts.Name(id), null), cancel);
        return id;
    }

    private static Wording Ready(string purpose) => ReadyMadeWording.Find(purpose, Language.English.Code)!;

    private static string[] Lines(IReadOnlyList<string> lines) => [.. lines.Select(l => l.Trim()).Where(l => l.Length > 0)];
}
