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
        return await ReadAsBeforeAsync(
            await stores.Intakes.BeginAsync(stored, kind, ReadingChange.None, stores.Person, cancel),
            kind,
            cancel
        );
    }

    /// <summary>Looks for the reading of a file like it, and for what is known of its headings.</summary>
    private async Task<BegunIntake> ReadAsBeforeAsync(long id, IntakeKind kind, CancellationToken cancel)
    {
        var readings = await stores.Readings.ListAsync(kind, cancel);
        if (readings.Count == 0)
        {
            return new BegunIntake(id, false);
        }

        var taught = ReadingChange.None with { Taught = TaughtHeadings.Of(readings) };
        var table = files.Open(stores, await TheIntake.OfAsync(stores, id, cancel), FileOpening.Unsaid, new ProgressMeter(), cancel);
        if (readings.Find(r => r.Fits(table)) is not { } known)
        {
            await stores.Intakes.ChangeAsync(id, taught, cancel);
            return new BegunIntake(id, false);
        }

        await stores.Intakes.ChangeAsync(id, known.For(table, out _) with { Taught = taught.Taught }, cancel);
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
    /// Takes the same file in once more: to put something right in it, and it is kept in place of the first when that is done; or for
    /// something else than it was given for.
    /// </summary>
    /// <param name="id">The intake.</param>
    /// <param name="kind">What it is taken in for; null for the same.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">There is no intake of this number.</exception>
    public async Task<BegunIntake> AgainAsync(long id, IntakeKind? kind, CancellationToken cancel)
    {
        var intake = await TheIntake.OfAsync(stores, id, cancel);
        if (kind is { } other && other != intake.Kind)
        {
            return await ReadAsBeforeAsync(
                await stores.Intakes.BeginAsync(intake.FileId, other, ReadingChange.None, stores.Person, cancel),
                other,
                cancel
            );
        }

        return new BegunIntake(await stores.Intakes.BeginAsync(intake.FileId, intake.Kind, intake.Change, stores.Person, cancel), true);
    }
}
