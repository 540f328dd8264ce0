using Rendal.App.Books;
using Rendal.Core.Enclosures;

namespace Rendal.App.Enclosures;

/// <summary>Says what a file is a copy of. It holds for later rounds, too.</summary>
public sealed class SettleCopy(BookStores stores)
{
    /// <summary>
    /// Says that a file is the copy of a document of the ledger that holds. Other files that were taken for a copy of it by their number
    /// alone are copies of nothing from then on.
    /// </summary>
    /// <param name="file">The file.</param>
    /// <param name="customer">Whose document it is.</param>
    /// <param name="numbers">The numbers, as the ledger writes them; several where one file is the copy of several.</param>
    /// <param name="intake">The intake that the documents are in.</param>
    /// <param name="cancel">Stops it; nothing is said then.</param>
    /// <exception cref="ProblemException">The file is no copy, or the customer has no document of such a number.</exception>
    public async Task RunAsync(long file, string customer, IReadOnlyList<string> numbers, long intake, CancellationToken cancel)
    {
        var ledger = await LedgerNumbers.OfAsync(stores, intake, cancel);
        var keys = numbers.Select(DocumentNumber.Key).Distinct(StringComparer.Ordinal).ToList();
        if (keys.Find(key => !ledger.Of(key).Any(d => d.Customer == customer)) is not null)
        {
            throw ProblemException.Invalid($"{customer} has no document {string.Join(", ", numbers)} in the ledger.");
        }

        var said = new List<(long, CopyOf?)> { (file, new CopyOf(customer, keys)) };
        said.AddRange(
            (await stores.Enclosures.CopiesOfAsync(keys, cancel))
                .Where(f => f.Id != file && f.ByHand is null && keys.Contains(f.Recognised.Number))
                .Select(f => (f.Id, (CopyOf?)CopyOf.Nothing))
        );
        await SayAsync(said, cancel);
    }

    /// <summary>Says that files are copies of nothing.</summary>
    /// <exception cref="ProblemException">One of them is no copy.</exception>
    public Task NothingAsync(IReadOnlyList<long> files, CancellationToken cancel) =>
        SayAsync([.. files.Select(f => (f, (CopyOf?)CopyOf.Nothing))], cancel);

    /// <summary>Takes back what was said about files: their names and texts count again.</summary>
    /// <exception cref="ProblemException">One of them is no copy.</exception>
    public Task TakeBackAsync(IReadOnlyList<long> files, CancellationToken cancel) =>
        SayAsync([.. files.Select(f => (f, (CopyOf?)null))], cancel);

    private async Task SayAsync(IReadOnlyList<(long, CopyOf?)> said, CancellationToken cancel)
    {
        if (!await stores.Enclosures.SayAsync(said, stores.Person, cancel))
        {
            throw ProblemException.NotFound("One of these copies");
        }
    }
}
