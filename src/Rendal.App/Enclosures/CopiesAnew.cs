using Rendal.App.Books;
using Rendal.Core.Enclosures;

namespace Rendal.App.Enclosures;

/// <summary>
/// Looks once more at the copies that are of no document yet when a newer ledger holds: the invoice may be in that.
/// </summary>
internal static class CopiesAnew
{
    private const int Batch = 500;

    /// <summary>Looks at those that were not looked at by the numbers of an intake.</summary>
    public static async Task RecogniseAsync(BookStores stores, long intake, CancellationToken cancel)
    {
        for (long after = 0; ; )
        {
            var files = await stores.Enclosures.UnrecognisedAsync(intake, after, Batch, cancel);
            if (files.Count == 0)
            {
                return;
            }

            var recognition = new CopyRecognition(
                await LedgerNumbers.OfAsync(stores, intake, cancel),
                await FilePattern.OfAsync(stores, intake, [], cancel)
            );
            await stores.Enclosures.RecogniseAsync(
                files.ConvertAll(f => (f.Id, recognition.Of(Path.GetFileNameWithoutExtension(f.Name), f.Text))),
                intake,
                cancel
            );
            after = files[^1].Id;
        }
    }
}
