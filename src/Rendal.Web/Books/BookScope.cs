using System.Globalization;
using Npgsql;
using Rendal.Store.Books;
using Rendal.Store.Corrections;
using Rendal.Store.Customers;
using Rendal.Store.Dispatch;
using Rendal.Store.Files;
using Rendal.Store.Intake;
using Rendal.Store.Items;
using Rendal.Store.Layouts;
using Rendal.Store.Ledger;
using Rendal.Store.People;
using Rendal.Store.Readings;
using Rendal.Store.Reminders;
using Rendal.Store.Returned;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;
using Rendal.Web.Hosting;
using Rendal.Web.SignIn;

namespace Rendal.Web.Books;

/// <summary>
/// The book that a request is about, with its stores. An endpoint that takes one is only reached by a person who was
/// given the book; to everybody else the book does not exist.
/// </summary>
internal sealed class BookScope(Book book, long person, byte[] session, SessionStore sessions, TimeProvider clock, NpgsqlDataSource source)
{
    public Book Book => book;

    public long Person => person;

    public IntakeStore Intakes => new(source, book.Id);

    public FileStore Files => new(source, book.Id);

    public LedgerStore Ledger => new(source, book.Id);

    public CustomerStore Customers => new(source, book.Id);

    public CorrectionStore Corrections => new(source, book.Id);

    public AccountSumStore AccountSums => new(source, book.Id);

    public ReadingStore Readings => new(source, book.Id);

    public WordingStore Wordings => new(source, book.Id);

    public PictureStore Pictures => new(source, book.Id);

    public SenderStore Senders => new(source, book.Id);

    public RoundStore Rounds => new(source, book.Id);

    public RoundDecisions Decisions => new(source, book.Id);

    public HistoryStore History => new(source, book.Id);

    public ChoiceStore Choices => new(source, book.Id);

    public HoldStore Holds => new(source, book.Id);

    public LayoutStore Layouts => new(source, book.Id);

    public ReminderStore Reminders => new(source, book.Id);

    public ReturnedStore Returned => new(source, book.Id);

    public SettlementStore Settlements => new(source, book.Id);

    public BookPeople People => new(source, book.Id);

    public DispatchLog Log => new(source, book.Id);

    /// <summary>Whether the person still has the book and the session goes on; asked by what goes on after the request was let in.</summary>
    public async Task<bool> GoesOnAsync(CancellationToken cancel) => await sessions.GoesOnAsync(session, clock.GetUtcNow(), cancel) && await People.HasAsync(person, cancel);

    /// <summary>Called by the framework for each endpoint that takes a scope.</summary>
    public static async ValueTask<BookScope?> BindAsync(HttpContext context)
    {
        var person = context.User.PersonId();
        var id = long.Parse((string)context.Request.RouteValues["book"]!, CultureInfo.InvariantCulture);
        var services = context.RequestServices;
        var book = await services.GetRequiredService<BookStore>().FindAsync(id, person, context.RequestAborted) ?? throw Unable.NotFound("This book");
        return new BookScope(book, person, context.User.SessionHash(), services.GetRequiredService<SessionStore>(), services.GetRequiredService<TimeProvider>(), services.GetRequiredService<NpgsqlDataSource>());
    }
}
