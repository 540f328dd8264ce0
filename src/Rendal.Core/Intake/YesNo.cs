namespace Rendal.Core.Intake;

/// <summary>Words for no in columns that mark something.</summary>
internal static class YesNo
{
    /// <summary>
    /// Whether the cell says no: nothing, <c>no</c>, <c>n</c>, <c>0</c>, <c>false</c> and the like in the languages of the trade.
    /// </summary>
    public static bool IsNo(string written) =>
        HeadingWords.Plain(written)
            is ""
                or "no"
                or "n"
                or "0"
                or "false"
                or "nein"
                or "non"
                or "nee"
                or "falsch"
                or "faux"
                or "falso"
                or "onwaar";
}
