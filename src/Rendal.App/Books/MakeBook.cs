using Npgsql;
using Rendal.App.Senders;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Store.Books;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;

namespace Rendal.App.Books;

/// <summary>Makes books that can be tried at once: with first wordings, and a sender that goes to the postroom.</summary>
/// <param name="books">All books.</param>
/// <param name="source">The database.</param>
/// <param name="practice">The postroom.</param>
public sealed class MakeBook(BookStore books, NpgsqlDataSource source, IPracticeServer practice)
{
    /// <summary>Makes a book and gives it to a person.</summary>
    /// <param name="firm">The firm as it stands on letters.</param>
    /// <param name="currency">The currency of rows that name none.</param>
    /// <param name="timeZone">The IANA name of its zone.</param>
    /// <param name="person">Who has it.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Its number.</returns>
    public async Task<long> RunAsync(Firm firm, Currency currency, string timeZone, long person, CancellationToken cancel)
    {
        var id = await books.MakeAsync(firm, currency, timeZone, person, cancel);
        var wordings = new WordingStore(source, id);
        await wordings.UseAsync(
            Purposes.Statement,
            "",
            await wordings.AddAsync(Ready(Purposes.Statement), person, cancel),
            person,
            cancel
        );
        var levels = new List<ReminderLevel>();
        foreach (var (i, level) in ReminderRules.Default.Levels.Index())
        {
            levels.Add(level with { Wording = await wordings.AddAsync(Ready(Purposes.OfLevel(i + 1)), person, cancel) });
        }

        var made = (await books.FindAsync(id, cancel))!;
        await books.UpdateRulesAsync(id, made.Rules with { Reminders = new ReminderRules(levels) }, made.TermsDays, person, cancel);
        await new SenderStore(source, id).AddAsync(
            new Sender(0, firm.Name, "accounts@practice.example", "127.0.0.1", practice.MailPort, "none", practice.UserName(id), null),
            person,
            cancel
        );
        return id;
    }

    private static Wording Ready(string purpose) => ReadyMadeWording.Find(purpose, Language.English.Code)!;
}
