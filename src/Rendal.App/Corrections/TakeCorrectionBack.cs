using Rendal.App.Books;

namespace Rendal.App.Corrections;

/// <summary>Takes a correction back: what stands in the source holds again.</summary>
public sealed class TakeCorrectionBack(BookStores stores, TimeProvider clock)
{
    /// <summary>Ends a correction by its number; files that were kept under it stay as they were kept.</summary>
    /// <exception cref="ProblemException">There is none of this number that holds.</exception>
    public async Task RunAsync(long id, CancellationToken cancel)
    {
        var correction = (await stores.Corrections.ListAsync(cancel)).Find(c => c.Correction.Id == id)?.Correction
            ?? throw ProblemException.NotFound("This correction");
        if (!await stores.Corrections.TakeBackAsync(correction, stores.Person, clock.GetUtcNow(), cancel))
        {
            throw ProblemException.NotFound("This correction");
        }
    }
}
