using Rendal.App.Books;
using Rendal.Store.Senders;

namespace Rendal.App.Senders;

/// <summary>A sender under which a person may send.</summary>
public static class UsableSender
{
    /// <summary>The sender of a number, if the person may send under it.</summary>
    /// <exception cref="ProblemException">It is not there, or it is somebody else's own: to others that does not exist.</exception>
    public static async Task<Sender> FindAsync(long id, BookStores stores, CancellationToken cancel) =>
        await stores.Senders.FindAsync(id, cancel) is { } sender && sender.IsFor(stores.Person)
            ? sender
            : throw ProblemException.NotFound("This sender");
}
