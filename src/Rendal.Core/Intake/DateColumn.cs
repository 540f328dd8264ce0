namespace Rendal.Core.Intake;

/// <summary>Decides the order of day and month of one column from all its values, without keeping them.</summary>
public sealed class DateColumn
{
    private readonly (int Count, int FirstRow, string? First)[] evidence = new (int, int, string?)[2];
    private readonly Memo<WrittenDate?> written = new(text => WrittenDate.TryTake(text, out var date) ? date : null);
    private int ambiguous;
    private int withShortYear;
    private int withLongYear;

    /// <summary>
    /// Whether some values could be read either way and the values did not decide: a finding says that the setting was used.
    /// </summary>
    public bool RestsOnSetting => ambiguous > 0 && evidence[0].Count == evidence[1].Count;

    /// <summary>
    /// Shows one text value of the column with its row. What is no date is passed over here and reported on its row later.
    /// </summary>
    public void Show(string text, int row)
    {
        if (written.Of(text) is not { } date)
        {
            return;
        }

        withShortYear += date.HasShortYear ? 1 : 0;
        withLongYear += date.HasShortYear || date.IsSettled ? 0 : 1;
        if (date.Evidence() is { } order)
        {
            ref var seen = ref evidence[(int)order];
            seen = seen.Count == 0 ? (1, row, text.Trim()) : seen with { Count = seen.Count + 1 };
        }
        else if (date.IsAmbiguous)
        {
            ambiguous++;
        }
    }

    /// <summary>
    /// The order that more values call for; <paramref name="setting"/> where none or as many on both sides do. Year first is only ever a
    /// setting, and holds where no value has its year written in four figures at the end.
    /// </summary>
    public DateOrder Decide(DateOrder setting) =>
        setting == DateOrder.YearFirst && withShortYear > 0 && withLongYear == 0 ? setting
        : evidence[0].Count == evidence[1].Count ? setting
        : evidence[0].Count > evidence[1].Count ? DateOrder.DayFirst
        : DateOrder.MonthFirst;

    /// <summary>The reason in plain words, for example <c>day first: “23/10/2026” in row 14</c>.</summary>
    public string Reason(DateOrder setting)
    {
        var order = Decide(setting);
        var name = order switch
        {
            DateOrder.DayFirst => "day first",
            DateOrder.MonthFirst => "month first",
            _ => "year first",
        };
        if (order != DateOrder.YearFirst && evidence[(int)order] is { Count: > 0 } decided)
        {
            return $"{name}: “{decided.First}” in row {decided.FirstRow}";
        }

        return RestsOnSetting ? $"{name}, as set" : "clear dates";
    }
}
