using Rendal.Core.Statements;
using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>What can stand in a column of the table of items.</summary>
public static class ItemFields
{
    /// <summary>
    /// Before the heading of a column of the ledger file that has no meaning for the rules: <c>extra:Delivery round</c>.
    /// </summary>
    public const string Extra = "extra:";

    private static readonly Dictionary<
        string,
        (Func<DocumentWords, string> Heading, Func<StatementItem, DocumentWords, SheetCell> Cell, bool IsFigure)
    > Known = new(StringComparer.Ordinal)
    {
        ["number"] = (w => w.Number, (i, _) => SheetCell.Of(i.Row.Number), false),
        ["kind"] = (w => w.Kind, (i, w) => SheetCell.Of(w.Of(i.Row.Kind)), false),
        ["dated"] = (w => w.Dated, (i, _) => SheetCell.Of(i.Row.Date), false),
        ["due"] = (w => w.Due, (i, _) => SheetCell.Of(i.Open > 0 ? i.Row.Due : null), false),
        ["days-over"] = (w => w.DaysOver, (i, _) => SheetCell.Of(i.Open > 0 && i.DaysPastDue > 0 ? i.DaysPastDue : null), true),
        ["original"] = (w => w.Original, (i, _) => SheetCell.Of(i.Row.Original), true),
        ["open"] = (w => w.Open, (i, _) => SheetCell.Of(i.Open), true),
        ["reference"] = (w => w.Reference, (i, _) => SheetCell.Of(i.Row.Reference), false),
        ["unit"] = (w => w.Unit, (i, _) => SheetCell.Of(i.Row.Unit), false),
    };

    /// <summary>The names of the fields that every ledger has.</summary>
    public static IReadOnlyList<string> All { get; } = [.. Known.Keys];

    /// <summary>Whether there is such a field.</summary>
    public static bool IsKnown(string field) =>
        Known.ContainsKey(field) || (field.StartsWith(Extra, StringComparison.Ordinal) && field.Length > Extra.Length);

    /// <summary>Whether its values are figures, which are set to the right.</summary>
    public static bool IsFigure(string field) => Known.TryGetValue(field, out var known) && known.IsFigure;

    /// <summary>The usual heading in a language; that of a column of the file as it stands there.</summary>
    public static string Heading(string field, DocumentWords words) =>
        Known.TryGetValue(field, out var known) ? known.Heading(words) : field[Extra.Length..];

    /// <summary>The value of an item; empty where it has none.</summary>
    public static SheetCell Cell(string field, StatementItem item, DocumentWords words) =>
        Known.TryGetValue(field, out var known)
            ? known.Cell(item, words)
            : SheetCell.Of(item.Row.Extra.TryGetValue(field[Extra.Length..], out var value) ? value : "");

    /// <summary>The value of an item, written in a language; empty where it has none.</summary>
    public static string Value(string field, StatementItem item, Language language, DocumentWords words) =>
        Cell(field, item, words).Written(language, item.Row.Currency);
}
