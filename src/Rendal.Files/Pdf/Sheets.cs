using Rendal.Core.Budgets;
using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>
/// The sheets of one document while it is set: what is to be drawn on each, and how far down the last one is filled. Measures are points
/// of 1/72 inch from the upper left corner.
/// </summary>
internal sealed class Sheets
{
    private const float PointsPerMillimetre = 72 / 25.4f;
    private const float UsualTextSize = 9;

    // From above the capitals to below the tails of letters, in sizes of the text.
    private const float Line = 1.3f;

    private readonly List<List<Action<Page>>> sheets = [];
    private readonly Budget budget;
    private readonly List<PlacedOrigin>? places;
    private long characters;

    /// <summary>Begins with one empty sheet.</summary>
    /// <param name="layout">How large they are.</param>
    /// <param name="budget">What the document may take.</param>
    /// <param name="places">Gets where what was taken from somewhere stands; null where nobody asks for it.</param>
    public Sheets(Layout layout, Budget budget, List<PlacedOrigin>? places = null)
    {
        (this.budget, this.places) = (budget, places);
        (Width, Height) = layout.Paper == PaperSize.A4 ? (595.28f, 841.89f) : (612f, 792f);
        (Left, Top, Right, Bottom) = (
            Points(layout.Margins.Left),
            Points(layout.Margins.Top),
            Width - Points(layout.Margins.Right),
            Height - Points(layout.Margins.Bottom)
        );
        Scale = (float)layout.TextSize / UsualTextSize;
        TurnOver();
    }

    /// <summary>The width of a sheet, in points.</summary>
    public float Width { get; }

    /// <summary>Its height, in points.</summary>
    public float Height { get; }

    /// <summary>Where lines begin.</summary>
    public float Left { get; }

    /// <summary>Where the first line of a sheet begins.</summary>
    public float Top { get; }

    /// <summary>Where lines end.</summary>
    public float Right { get; }

    /// <summary>How far down, in points, the last line may end: above the foot of the page.</summary>
    public float Bottom { get; }

    /// <summary>How much larger than usual everything is, by the size of text of the layout; 1 for the usual one.</summary>
    public float Scale { get; }

    /// <summary>The size of text in the table, in points.</summary>
    public float TextSize => UsualTextSize * Scale;

    /// <summary>The height of a row of the table, in points.</summary>
    public float RowHeight => 15.5f * Scale;

    /// <summary>From one line of text to the next, in points.</summary>
    public float LineHeight => 12.5f * Scale;

    /// <summary>The same within a row of the table.</summary>
    public float RowLine => 11 * Scale;

    /// <summary>Whether somebody asks where things stand.</summary>
    public bool IsTraced => places is not null;

    /// <summary>How many sheets there are.</summary>
    public int Count => sheets.Count;

    /// <summary>How far down the last sheet the next thing goes, in points.</summary>
    public float Y { get; set; }

    /// <summary>Millimetres as points.</summary>
    public static float Points(decimal millimetres) => (float)millimetres * PointsPerMillimetre;

    /// <summary>Goes on on a new sheet.</summary>
    public void TurnOver()
    {
        budget.Spend(Cost.Pages);
        sheets.Add([]);
        Y = Top;
    }

    /// <summary>Goes on on a new sheet where so much does not fit any more.</summary>
    public void Room(float needed)
    {
        if (Y + needed > Bottom)
        {
            TurnOver();
        }
    }

    /// <summary>Throws away what was set: the document is set anew.</summary>
    public void Discard()
    {
        budget.GiveBack(Cost.Pages, sheets.Count);
        budget.GiveBack(Cost.Characters, characters);
    }

    /// <summary>Has something drawn on the last sheet.</summary>
    public void Add(Action<Page> draw) => sheets[^1].Add(draw);

    /// <summary>Writes text on the last sheet.</summary>
    public void Text(Font font, float size, string text, float x, float baseline, SKColor ink, Origin? from = null)
    {
        Set(font, text);
        Place(font, size, text, x, baseline, from);
        Add(page => page.Text(font, size, text, x, baseline, ink));
    }

    /// <summary>Writes text that ends at a place on the last sheet.</summary>
    public void TextRight(Font font, float size, string text, float right, float baseline, SKColor ink, Origin? from = null)
    {
        Set(font, text);
        Place(font, size, text, right - (from is null ? 0 : font.Set(text).Width * size), baseline, from);
        Add(page => page.TextRight(font, size, text, right, baseline, ink));
    }

    /// <summary>Draws a sheet, from 0.</summary>
    public void Draw(int sheet, Page page)
    {
        budget.Continue();
        sheets[sheet].ForEach(draw => draw(page));
    }

    private void Place(Font font, float size, string text, float x, float baseline, Origin? from)
    {
        if (places is not null && from is not null && text.Length > 0)
        {
            places.Add(new PlacedOrigin(from, Count, SKRect.Create(x, baseline - size, font.Set(text).Width * size, size * Line)));
        }
    }

    /// <summary>Texts are set before any is drawn, so that the reduced fonts have all their glyphs.</summary>
    private void Set(Font font, string text)
    {
        budget.Continue();
        budget.Spend(Cost.Characters, text.Length);
        characters += text.Length;
        font.Set(text);
    }
}
