using Rendal.Core.Layouts;
using Rendal.Store.Books;

namespace Rendal.App.Books;

/// <summary>Changes how the firm stands on its letters.</summary>
public sealed class ChangeFirm(BookStores stores, BookStore books)
{
    /// <summary>Changes the letterhead of the book. What was released keeps the one it was released with.</summary>
    /// <param name="firm">The firm.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">It has no name.</exception>
    public Task RunAsync(Firm firm, CancellationToken cancel) =>
        string.IsNullOrWhiteSpace(firm.Name)
            ? throw ProblemException.Invalid("Say the firm’s name.")
            : books.UpdateFirmAsync(stores.Book.Id, firm with { Name = firm.Name.Trim() }, stores.Person, cancel);
}
