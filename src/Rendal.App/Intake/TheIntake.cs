using Rendal.App.Books;
using Rendal.Store.Intake;

namespace Rendal.App.Intake;

/// <summary>An intake that somebody asks for.</summary>
public static class TheIntake
{
    /// <summary>The intake of a number, whatever has become of it.</summary>
    /// <exception cref="ProblemException">There is none of this number.</exception>
    public static async Task<IntakeRecord> OfAsync(BookStores stores, long id, CancellationToken cancel) =>
        await stores.Intakes.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This file");

    /// <summary>The intake of a number whose reading can still be changed.</summary>
    /// <exception cref="ProblemException">There is none of this number, or it was kept.</exception>
    public static async Task<IntakeRecord> ToReadAsync(BookStores stores, long id, CancellationToken cancel)
    {
        var intake = await OfAsync(stores, id, cancel);
        return intake.State == "looked-at"
            ? intake
            : throw ProblemException.Conflict("This file was kept already; take it in again to read it in another way.");
    }
}
