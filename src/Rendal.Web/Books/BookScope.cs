using System.Globalization;
using Npgsql;
using Rendal.App;
using Rendal.App.Books;
using Rendal.Store.Books;
using Rendal.Store.People;
using Rendal.Web.SignIn;

namespace Rendal.Web.Books;

/// <summary>
/// The book that a request is about, with its stores. An endpoint that takes one is only reached by a person who was given the book; to
/// everybody else the book does not exist.
/// </summary>
internal sealed class BookScope(Book book, long person, byte[] session, SessionStore sessions, TimeProvider clock, NpgsqlDataSource source)
    : BookStores(book, person, source)
{
    /// <summary>
    /// Whether the person still has the book and the session goes on; asked by what goes on after the request was let in.
    /// </summary>
    public async Task<bool> GoesOnAsync(CancellationToken cancel) =>
        await sessions.GoesOnAsync(session, clock.GetUtcNow(), cancel) && await People.HasAsync(Person, cancel);

    /// <summary>Called by the framework for each endpoint that takes a scope.</summary>
    public static async ValueTask<BookScope?> BindAsync(HttpContext context)
    {
        var person = context.User.PersonId();
        var id = long.Parse((string)context.Request.RouteValues["book"]!, CultureInfo.InvariantCulture);
        var services = context.RequestServices;
        var book = await services.GetRequiredService<BookStore>().FindAsync(id, person, context.RequestAborted)
            ?? throw ProblemException.NotFound("This book");
        return new BookScope(
            book,
            person,
            context.User.SessionHash(),
            services.GetRequiredService<SessionStore>(),
            services.GetRequiredService<TimeProvider>(),
            services.GetRequiredService<NpgsqlDataSource>()
        );
    }
}
