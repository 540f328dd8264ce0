using Rendal.App.Books;
using Rendal.Core.Layouts;
using Rendal.Files.Docx;
using Rendal.Files.Pdf;
using Rendal.Html;
using Rendal.Store.Layouts;

namespace Rendal.App.Layouts;

/// <summary>
/// Stores a layout, as far as it can stand on paper: markup that cannot is dropped, and a letter has the slots that are really in it.
/// </summary>
public sealed class StoreLayout(BookStores stores, TimeProvider clock)
{
    /// <summary>Adds a layout to the book.</summary>
    /// <returns>Its number.</returns>
    /// <exception cref="ProblemException">It cannot be printed, which is said in words.</exception>
    public Task<long> AddAsync(Layout layout, CancellationToken cancel) =>
        stores.Layouts.AddAsync(Checked(layout), stores.Person, clock.GetUtcNow(), cancel);

    /// <summary>Makes another version of a layout; documents that were made by an earlier one can be made again.</summary>
    /// <param name="from">The version that was changed.</param>
    /// <param name="layout">What it is to be.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">It is not there, cannot be printed, or somebody else changed it since.</exception>
    public async Task ChangeAsync(LayoutRef from, Layout layout, CancellationToken cancel)
    {
        var now = await stores.Layouts.FindAsync(from.Id, cancel) ?? throw ProblemException.NotFound("This layout");
        if (!await stores.Layouts.UpdateAsync(from, Checked(layout), stores.Person, clock.GetUtcNow(), cancel))
        {
            throw ProblemException.Conflict($"{now.MadeBy} changed this layout meanwhile. Look at what it is now before you change it.");
        }
    }

    /// <summary>Takes a layout out of the list; its versions stay for what was sent by them.</summary>
    /// <exception cref="ProblemException">It is still used.</exception>
    public async Task TakeAwayAsync(long id, CancellationToken cancel)
    {
        if (await stores.Layouts.TakeAwayAsync(id, stores.Person, cancel) is { } used)
        {
            throw ProblemException.Conflict($"This layout is still used {used}.");
        }
    }

    /// <summary>A layout that is not stored, made ready to be looked at.</summary>
    /// <exception cref="ProblemException">It cannot be printed, which is said in words.</exception>
    public static LayoutTemplate Ready(Layout layout)
    {
        var template = LayoutReader.Read(layout with { Letter = Looked(layout.Letter) });
        return DocumentRenderer.Problem(template) is { } problem ? throw ProblemException.Invalid(problem) : template;
    }

    private static Layout Checked(Layout given)
    {
        var layout = Ready(given).Layout;
        return layout with { Name = layout.Name.Trim(), Parts = [.. layout.Parts.Select(Sanitised)] };
    }

    private static DocxTemplate? Looked(DocxTemplate? letter) =>
        letter is null ? null
        : letter.Bytes.Length > DocxTemplate.Largest
            ? throw ProblemException.Invalid($"The letter is larger than {DocxTemplate.Largest / 1_000_000} MB.")
        : letter with { FileName = Path.GetFileName(letter.FileName), Slots = DocxInspection.At(letter.Bytes).Slots };

    private static LayoutPart Sanitised(LayoutPart part) =>
        part switch
        {
            TextPart text => text with { Text = WordingReader.Sanitised(text.Text) },
            SlipPart slip => slip with { Text = WordingReader.Sanitised(slip.Text) },
            _ => part,
        };
}
