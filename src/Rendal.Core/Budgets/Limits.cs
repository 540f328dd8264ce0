using System.Collections.Frozen;

namespace Rendal.Core.Budgets;

/// <summary>
/// The most that work of one kind may use up. Each is far above what the work needs in practice and far below what would keep a machine
/// busy: it tells a mistake or an attack from a large file.
/// </summary>
public sealed class Limits
{
    private readonly FrozenDictionary<Cost, long> most;

    private Limits(string remedy, TimeSpan time, params (Cost Cost, long Most)[] most) =>
        (Remedy, Time, this.most) = (remedy, time, most.ToFrozenDictionary(m => m.Cost, m => m.Most));

    /// <summary>One document of one customer. 2,000 pages are about 80,000 items.</summary>
    public static Limits Document { get; } =
        new(
            "Choose fewer items for this customer, or enclose them as a workbook.",
            TimeSpan.FromSeconds(30),
            (Cost.Pages, 2_000),
            (Cost.Characters, 20_000_000)
        );

    /// <summary>One sheet of a workbook. Its rows end where the formats of spreadsheets do.</summary>
    public static Limits Sheet { get; } =
        new(
            "Save what you need of it as CSV, and take that in.",
            TimeSpan.FromSeconds(300),
            (Cost.Rows, 1_048_576),
            (Cost.Cells, 20_000_000),
            (Cost.Characters, 250_000_000)
        );

    /// <summary>A text file with separated cells: a ledger of a million rows is a very large one.</summary>
    public static Limits Text { get; } =
        new(
            "Leave out what was settled long ago, and take in the rest.",
            TimeSpan.MaxValue,
            (Cost.Rows, 3_000_000),
            (Cost.Cells, 200_000_000)
        );

    /// <summary>A text with markup: a wording, a text of a layout, a message that was received.</summary>
    public static Limits Markup { get; } =
        new(
            "Shorten it, or take formatting out.",
            TimeSpan.MaxValue,
            (Cost.Characters, 200_000),
            (Cost.Elements, 5_000),
            (Cost.Levels, 60),
            (Cost.Slots, 300)
        );

    /// <summary>A letter brought along as DOCX.</summary>
    public static Limits Letter { get; } =
        new(
            "Save it anew in your word processor, without what is nested or repeated in it.",
            TimeSpan.FromSeconds(20),
            (Cost.Elements, 200_000),
            (Cost.Levels, 200),
            (Cost.Bytes, 100_000_000)
        );

    /// <summary>A PDF of up to thousands of pages that somebody gave in. Its bytes are those of one of its streams.</summary>
    public static Limits Pdf { get; } =
        new("Print it to PDF anew, or give it in in several files.", TimeSpan.FromSeconds(120), (Cost.Bytes, 50_000_000));

    /// <summary>A message that came back. Its characters are those of a header.</summary>
    public static Limits Mail { get; } =
        new(
            "Delete it, or open it in your mail program.",
            TimeSpan.MaxValue,
            (Cost.Bytes, 50_000_000),
            (Cost.Characters, 1_000_000),
            (Cost.Parts, 10_000),
            (Cost.Levels, 30)
        );

    /// <summary>What a person can do about it: a sentence.</summary>
    public string Remedy { get; }

    /// <summary>How long the work may take; <see cref="TimeSpan.MaxValue"/> where what is counted bounds it.</summary>
    public TimeSpan Time { get; }

    /// <summary>The most of something. <see cref="long.MaxValue"/> where it is not limited.</summary>
    public long Most(Cost cost) => most.GetValueOrDefault(cost, long.MaxValue);
}
