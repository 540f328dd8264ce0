using Rendal.Core.Intake;
using Rendal.Core.Ledger;

namespace Rendal.Core.Tests.Intake;

/// <summary>Files for tests, written as text with bars between the cells.</summary>
internal static class Tables
{
    public static readonly ReadingSettings Settings = new(Ledgers.Pounds);

    public static LedgerTable Of(params string[] lines) =>
        new("ledger.csv", null, lines.Select((line, i) => new FileRow(i + 1, [.. line.Split('|').Select(Cell.Of)])));

    /// <summary>Recognises and reads in one go.</summary>
    public static ReadFile Read(
        LedgerTable table,
        ReadingSettings? settings = null,
        ReadingChange? change = null,
        IReadOnlyList<Correction>? corrections = null
    )
    {
        var recognised = Recognition.Recognise(table, settings ?? Settings, change ?? ReadingChange.None, corrections);
        Assert.NotNull(recognised);
        Assert.Empty(recognised.Reading.Lacks());
        var reader = new LedgerReader(table, recognised, settings ?? Settings, change: change);
        var rows = reader.Rows().ToList();
        return new ReadFile(
            recognised.Reading,
            [.. rows.Where(r => r.Row is not null).Select(r => r.Row!)],
            [.. rows.Where(r => r.SetAside is not null).Select(r => r.SetAside!)],
            reader
        );
    }

    internal sealed record ReadFile(Reading Reading, List<LedgerRow> Rows, List<RowSetAside> SetAside, LedgerReader Reader)
    {
        public IReadOnlyList<Finding> Findings => Reader.Findings.Listed();
    }
}
