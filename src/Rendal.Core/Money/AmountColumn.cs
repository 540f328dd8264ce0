namespace Rendal.Core.Money;

/// <summary>
/// Decides the decimal mark of one column from all its values. Values are shown to it one after another;
/// memory does not grow with the number of rows.
/// </summary>
public sealed class AmountColumn
{
    private readonly (int Count, int FirstRow, string? First)[] evidence = new (int, int, string?)[2];
    private int ambiguous;

    /// <summary>Whether some values could be read either way and no value decided: a finding says that the setting was used.</summary>
    public bool RestsOnSetting => ambiguous > 0 && evidence[0].Count == evidence[1].Count;

    /// <summary>
    /// Shows one text value of the column, with its row as a spreadsheet counts it. What is no amount is passed over here and reported on
    /// its row later.
    /// </summary>
    public void Show(string text, int row)
    {
        if (!WrittenAmount.TryTake(text, out var amount))
        {
            return;
        }

        if (amount.Evidence() is { } mark)
        {
            ref var seen = ref evidence[(int)mark];
            seen = seen.Count == 0 ? (1, row, text.Trim()) : seen with { Count = seen.Count + 1 };
        }
        else if (amount.IsAmbiguous)
        {
            ambiguous++;
        }
    }

    /// <summary>The mark that more values call for; <paramref name="setting"/> where none or as many on both sides do.</summary>
    public DecimalMark Decide(DecimalMark setting) =>
        evidence[0].Count == evidence[1].Count ? setting
        : evidence[0].Count > evidence[1].Count ? DecimalMark.Point
        : DecimalMark.Comma;

    /// <summary>The reason in plain words, for example <c>decimal point: “1,204.00” in row 5</c>.</summary>
    public string Reason(DecimalMark setting)
    {
        var mark = Decide(setting);
        var (count, row, first) = evidence[(int)mark];
        var name = mark == DecimalMark.Point ? "decimal point" : "decimal comma";
        return count > 0 ? $"{name}: “{first}” in row {row}"
            : RestsOnSetting ? $"{name}, as set"
            : "whole amounts";
    }
}
