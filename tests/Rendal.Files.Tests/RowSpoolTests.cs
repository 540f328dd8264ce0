using CsCheck;
using Rendal.Core.Intake;

namespace Rendal.Files.Tests;

public class RowSpoolTests
{
    private static readonly Gen<Cell> Cells = Gen.OneOf(
        Gen.Const(Cell.Empty),
        Gen.String.Select(Cell.Of),
        Gen.Decimal.Select(Cell.Of),
        Gen.Int[0, 99_999].Select(n => Cell.Of(n, n.ToString("000000", System.Globalization.CultureInfo.InvariantCulture))),
        Gen.Int[0, 3_652_058].Select(d => Cell.Of(DateOnly.FromDayNumber(d))),
        Gen.Const(Cell.OfError("#N/A"))
    );

    [Fact]
    public void Rows_come_back_as_they_were_however_often_they_are_gone_through() =>
        Gen.Select(Cells, Gen.Bool)
            .Select((cell, isMerged) => isMerged ? cell.Below() : cell)
            .Array[0, 6]
            .Array[0, 40]
            .Sample(
                rows =>
                {
                    var table = rows.Select((cells, i) => new FileRow((i * 3) + 1, [.. cells], i % 3 == 1)).ToList();
                    using var spool = RowSpool.Of(table, _ => { });
                    foreach (var _ in Enumerable.Range(0, 2))
                    {
                        Assert.Equal(
                            table.Select(r => (r.Number, r.IsHidden, string.Join('|', r.Cells.Select(Shown)))),
                            spool.Select(r => (r.Number, r.IsHidden, string.Join('|', r.Cells.Select(Shown))))
                        );
                    }
                },
                iter: 200
            );

    [Fact]
    public void It_can_be_read_from_any_row_on()
    {
        using var spool = RowSpool.Of(Enumerable.Range(0, 2_000).Select(i => new FileRow((i * 2) + 1, [Cell.Of(i)])), _ => { });
        Assert.Equal((2_000, 3_999), (spool.Count, spool.LastRow));
        foreach (var row in new[] { 1, 2, 512, 513, 514, 3_998, 3_999 })
        {
            Assert.Equal(row % 2 == 0 ? row + 1 : row, spool.From(row).First().Number);
        }

        Assert.Empty(spool.From(4_000));
    }

    [Fact]
    public void Stopping_leaves_nothing_behind()
    {
        var before = Directory.GetFiles(Path.GetTempPath(), "rendal-rows-*").Length;
        Assert.Throws<OperationCanceledException>(() => RowSpool.Of(Enumerable.Range(1, 10).Select(i => new FileRow(i, [])), row =>
            {
                if (row == 5)
                {
                    throw new OperationCanceledException();
                }
            }));
        Assert.Equal(before, Directory.GetFiles(Path.GetTempPath(), "rendal-rows-*").Length);
    }

    private static string Shown(Cell cell) => $"{cell.Text}·{cell.Number}·{cell.Date}·{cell.ShownAs}·{cell.IsError}·{cell.IsMerged}";
}
