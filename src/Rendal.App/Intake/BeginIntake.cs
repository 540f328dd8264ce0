using System.Globalization;
using System.Text;
using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.Core.Intake;
using Rendal.Files;
using Rendal.Store.Intake;

namespace Rendal.App.Intake;

/// <summary>The number of an intake that was begun.</summary>
/// <param name="KnownReading">Whether the reading of an earlier file with the same headings was found.</param>
public sealed record BegunIntake(long Id, bool KnownReading);

/// <summary>Takes a file in, to be looked at.</summary>
public sealed class BeginIntake(BookStores stores, OpenedFiles files, TimeProvider clock)
{
    /// <summary>
    /// Stores a file, refuses it at once where it is nothing that can be read, and looks for the reading of a file like it.
    /// </summary>
    /// <param name="name">The name of the file.</param>
    /// <param name="open">Opens it; called twice.</param>
    /// <param name="kind">What it is taken in for.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="FileRefused">It is nothing that can be read.</exception>
    public async Task<BegunIntake> RunAsync(string name, Func<Stream> open, IntakeKind kind, CancellationToken cancel)
    {
        FileSignature.Of(name, open);
        await using var content = open();
        var stored = await stores.Files.StoreAsync(name, content, cancel);
        var id = await stores.Intakes.BeginAsync(stored, kind, ReadingChange.None, stores.Person, cancel);
        var readings = await stores.Readings.ListAsync(kind, cancel);
        if (readings.Count == 0)
        {
            return new BegunIntake(id, false);
        }

        var table = files.Open(stores, await TheIntake.OfAsync(stores, id, cancel), FileOpening.Unsaid, new ProgressMeter(), cancel);
        if (readings.Find(r => r.Fits(table)) is not { } known)
        {
            return new BegunIntake(id, false);
        }

        await stores.Intakes.ChangeAsync(id, known.For(table, out _), cancel);
        return new BegunIntake(id, true);
    }

    /// <summary>Takes in cells that were copied from a spreadsheet, as a file that is named after the moment.</summary>
    /// <param name="text">The cells: a line for each row, parted by tabs.</param>
    /// <param name="kind">What they are taken in for.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">There are none.</exception>
    /// <exception cref="FileRefused">They are nothing that can be read.</exception>
    public Task<BegunIntake> PasteAsync(string text, IntakeKind kind, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            throw ProblemException.Invalid(
                "Nothing was pasted. Copy the cells in your spreadsheet, headings included, and paste them here."
            );
        }

        var content = Encoding.UTF8.GetBytes(text);
        return RunAsync(
            string.Create(CultureInfo.InvariantCulture, $"Pasted {stores.Book.ByItsClock(clock.GetUtcNow()):d MMM yyyy HH.mm}.tsv"),
            () => new MemoryStream(content),
            kind,
            cancel
        );
    }

    /// <summary>
    /// Takes the same file in once more, to put something right in it; it is kept in place of the first when that is done.
    /// </summary>
    /// <exception cref="ProblemException">There is no intake of this number.</exception>
    public async Task<BegunIntake> AgainAsync(long id, CancellationToken cancel)
    {
        var intake = await TheIntake.OfAsync(stores, id, cancel);
        return new BegunIntake(await stores.Intakes.BeginAsync(intake.FileId, intake.Kind, intake.Change, stores.Person, cancel), true);
    }
}
