using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.Core.Intake;
using Rendal.Store.Intake;

namespace Rendal.App.Intake;

/// <summary>Has a file read in another way before it is kept.</summary>
public sealed class ChangeReading(BookStores stores, OpenedFiles files)
{
    /// <summary>Changes how it is read. A sheet or an encoding that is not there is refused before it is remembered.</summary>
    /// <exception cref="ProblemException">There is no intake of this number, or it was kept.</exception>
    /// <exception cref="Files.FileRefused">It cannot be opened like that.</exception>
    public async Task RunAsync(long id, ReadingChange change, CancellationToken cancel)
    {
        var intake = await TheIntake.ToReadAsync(stores, id, cancel);
        if (change.Opening != intake.Change.Opening)
        {
            files.Open(stores, intake, change.Opening, new ProgressMeter(), cancel);
        }

        await stores.Intakes.ChangeAsync(id, change with { SaidBefore = intake.Change.SaidBefore, Taught = intake.Change.Taught }, cancel);
    }

    /// <summary>Reads it as another file was read, of which that was saved.</summary>
    /// <param name="id">The intake.</param>
    /// <param name="reading">How the other one was read.</param>
    /// <param name="from">The name of the file that says so.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">There is no intake of this number, it was kept, or it lacks a column that the reading
    /// names.</exception>
    public async Task LikeAsync(long id, SavedReading reading, string from, CancellationToken cancel)
    {
        var intake = await TheIntake.ToReadAsync(stores, id, cancel);
        var change = reading.For(files.Open(stores, intake, reading.Opening, new ProgressMeter(), cancel), out var missing);
        if (missing.Count > 0)
        {
            throw ProblemException.Invalid($"{intake.FileName} has no column “{missing[0]}”, which the reading in {from} names.");
        }

        await stores.Intakes.ChangeAsync(id, change with { Taught = intake.Change.Taught }, cancel);
    }

    /// <summary>How it is read, to be saved for another file.</summary>
    /// <exception cref="ProblemException">It has no row of headings.</exception>
    public SavedReading Saved(IntakeRecord intake, CancellationToken cancel)
    {
        var table = files.Open(stores, intake, intake.Change.Opening, new ProgressMeter(), cancel);
        return intake.Kind == IntakeKind.Customers
            ? SavedReading.Of(CardReading.Of(table, intake.Change) ?? throw NoHeadings(), intake.Change)
            : SavedReading.Of(Recognition.Outline(table, intake.Change) ?? throw NoHeadings(), intake.Change);

        static ProblemException NoHeadings() => ProblemException.Conflict("No row of headings was found, so there is no reading to save.");
    }
}
