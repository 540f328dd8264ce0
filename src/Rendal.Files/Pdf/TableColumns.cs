using Rendal.Core.Layouts;

namespace Rendal.Files.Pdf;

/// <summary>
/// How wide the columns of a table are. Each gets the width that the layout says, else what its widest cell wants, up to a limit for text;
/// what is left over goes to the second column of text. Where there is too little room, the widest columns of text give way first, then
/// the whole table is set smaller.
/// </summary>
internal sealed class TableColumns
{
    private const float Gap = 12;
    private const float MostForText = 150;
    private const float LeastForText = 40;

    private readonly StatementDocument document;
    private readonly Font regular;
    private readonly float[] edges;

    /// <summary>Divides the width between the columns by what stands in them.</summary>
    /// <param name="document">What stands in them.</param>
    /// <param name="regular">The font of the rows.</param>
    /// <param name="strong">The font of headings and totals.</param>
    /// <param name="textSize">The size of text, in points.</param>
    /// <param name="available">The width that there is, in points.</param>
    public TableColumns(StatementDocument document, Font regular, Font strong, float textSize, float available)
    {
        (this.document, this.regular, TextSize) = (document, regular, textSize);
        var widths = new float[document.Columns.Count];
        for (var i = 0; i < widths.Length; i++)
        {
            widths[i] = Wanted(i, strong, textSize);
        }

        GiveWay(widths, available);
        var needed = widths.Sum();
        if (needed > available)
        {
            TextSize *= available / needed;
            widths = [.. widths.Select(w => w * available / needed)];
        }
        else if (
            Enumerable
                .Range(0, widths.Length)
                .Where(i => !document.Columns[i].IsFigure && document.Columns[i].Width is null)
                .Take(2)
                .LastOrDefault(-1)
            is var open
                and >= 0
        )
        {
            widths[open] += available - needed;
        }

        edges = new float[widths.Length + 1];
        for (var i = 0; i < widths.Length; i++)
        {
            edges[i + 1] = edges[i] + widths[i];
        }
    }

    /// <summary>The size of the text in the table, in points: smaller where the columns would not find room.</summary>
    public float TextSize { get; }

    /// <summary>Where the text of a column begins, from the left edge of the table.</summary>
    public float LeftOf(int column) => edges[column];

    /// <summary>Where the figures of a column end.</summary>
    public float RightOf(int column) => edges[column + 1] - (column == document.Columns.Count - 1 ? 0 : Gap);

    /// <summary>A cell on as many lines as it needs; a figure is never broken.</summary>
    public IReadOnlyList<string> Lines(int column, string cell) =>
        document.Columns[column].IsFigure ? [cell] : Pdf.Lines.Wrapped(regular, TextSize, cell, edges[column + 1] - edges[column] - Gap);

    private float Wanted(int column, Font strong, float textSize)
    {
        var of = document.Columns[column];
        var widest =
            document
                .Sections.SelectMany(s => s.Rows)
                .Select(row => Width(row[column], of.IsFigure, textSize))
                .Append(strong.Set(of.Heading).Width)
                .Max() * textSize
            + Gap;
        return of.Width is { } said ? Math.Max(Sheets.Points(said), of.IsFigure ? widest : strong.Set(of.Heading).Width * textSize + Gap)
            : of.IsFigure ? widest
            : Math.Min(widest, MostForText);
    }

    /// <summary>How wide a cell is at size 1; of a text, no more than a column of text can be.</summary>
    private float Width(string cell, bool isFigure, float textSize) =>
        isFigure || Pdf.Lines.Fits(regular, cell, MostForText / textSize) ? regular.Set(cell).Width : MostForText / textSize;

    private void GiveWay(float[] widths, float available)
    {
        while (widths.Sum() is var needed && needed > available)
        {
            var widest = Enumerable
                .Range(0, widths.Length)
                .Where(i => !document.Columns[i].IsFigure && widths[i] > LeastForText)
                .OrderByDescending(i => widths[i])
                .Cast<int?>()
                .FirstOrDefault();
            if (widest is not { } at)
            {
                return;
            }

            widths[at] = Math.Max(LeastForText, widths[at] - Math.Max(1, needed - available) / 2);
        }
    }
}
