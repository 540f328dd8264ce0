using CsCheck;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Trials.Ledgers;

namespace Rendal.Core.Tests.Intake.Columns;

/// <summary>
/// What is read does not depend on the order of the columns, on columns that a ledger can do without, or on columns that nothing depends
/// on.
/// </summary>
public sealed class OtherColumnsTests
{
    private static readonly ReadingSettings Settings = new(Currency.Of("GBP"));

    private static readonly (string[] Headings, Func<LedgerRow, string> Value)[] Noise =
    [
        (["Telephone", "Telefon", "Tél.", "Teléfono"], r => $"01632 {(Hash(r.Customer) % 900_000) + 100_000}"),
        (["Post code", "PLZ", "Code postal", "CAP"], r => $"{(Hash(r.Customer) % 80_000) + 10_000}"),
        (["Order number", "Bestellnr.", "N° commande", "Pedido"], r => $"PO{Hash(r.Number) % 100_000:00000}"),
        (["VAT rate", "MwSt-Satz", "Taux TVA", "IVA %"], _ => "20"),
        (["Discount", "Skonto", "Remise", "Descuento"], r => Plain(Math.Round(r.Open * 0.02m, 2))),
        (["Week", "KW", "Semaine", "Semana"], r => $"{((r.Date?.DayOfYear ?? 1) / 7) + 1}"),
        (["User", "Benutzer", "Utilisateur", "Usuario"], r => new[] { "marta", "j.doe", "admin" }[Hash(r.Number) % 3]),
        (["Amount USD", "Betrag USD", "Montant USD", "Importe USD"], r => Plain(Math.Round(r.Original * 1.31m, 2))),
    ];

    [Fact]
    public void Columns_in_any_order_with_others_between_are_read_the_same() =>
        Gen.Select(Gen.Int[1, 1_000_000], Gen.Int[1, 1_000_000])
            .Where(seeds =>
                LedgerTrial.Of(seeds.Item1, TradeHeadings.Listed) is { IsRight: true } trial && HasOneLineOfHeadings(trial.Ledger)
            )
            .Sample(
                seeds =>
                {
                    var table = GeneratedLedger.Of(seeds.Item1, TradeHeadings.Listed).Table;
                    var (reading, rows) = Read(table);
                    var random = new Random(seeds.Item2);
                    var changed = Changed(table, reading, rows, random);
                    var read = Read(changed);
                    Assert.True(Told(rows).SequenceEqual(Told(read.Rows)), $"{Taken(read.Reading)}\n{Shown(changed)}");
                },
                iter: 600
            );

    private static (Reading Reading, List<LedgerRow> Rows) Read(LedgerTable table)
    {
        var recognised = Recognition.Recognise(table, Settings, ReadingChange.None)!;
        Assert.True(recognised.Reading.Lacks().Count == 0, $"{string.Join(' ', recognised.Reading.Lacks())}\n{Shown(table)}");
        return (recognised.Reading, [.. new LedgerReader(table, recognised, Settings).Rows().Select(r => r.Row).OfType<LedgerRow>()]);
    }

    private static List<(string Customer, string Number, DateOnly? Date, DateOnly Due, decimal Open)> Told(List<LedgerRow> rows) =>
        rows.ConvertAll(r => (r.Customer, r.Number, r.Date, r.Due, r.Open));

    private static LedgerTable Changed(LedgerTable table, Reading reading, List<LedgerRow> rows, Random random)
    {
        // What a ledger can do without: a currency that all rows share, and the name where there is a code.
        var spare = reading.Columns.Where(c =>
            c.Meaning == ColumnMeaning.Currency || (c.Meaning == ColumnMeaning.CustomerName && reading.Has(ColumnMeaning.CustomerCode))
        );
        var left = spare.Where(_ => random.Next(2) == 0).Select(c => c.Index).ToHashSet();
        var columns = reading.Columns.Select(c => c.Index).Where(i => !left.Contains(i)).ToList();
        var noise = Noise.Where(_ => random.Next(2) == 0).Select(n => (Heading: n.Headings[random.Next(4)], n.Value)).ToList();
        var order = Enumerable.Range(0, columns.Count + noise.Count).ToArray();
        random.Shuffle(order);
        var byRow = rows.ToDictionary(r => r.Source.Row);
        return table with { Rows = [.. table.Rows.Select(Row)] };

        FileRow Row(FileRow row) =>
            row.Cells.Length < 2
                ? row
                : row with
                {
                    Cells = [.. order.Select(i => i < columns.Count ? row[columns[i]] : Beside(row, noise[i - columns.Count]))],
                };

        Cell Beside(FileRow row, (string Heading, Func<LedgerRow, string> Value) of) =>
            row.Number == reading.HeadingRow ? Cell.Of(of.Heading)
            : byRow.TryGetValue(row.Number, out var item) ? Cell.Of(of.Value(item))
            : Cell.Empty;
    }

    // A word over several columns is over others when they change places.
    private static bool HasOneLineOfHeadings(GeneratedLedger ledger)
    {
        var row = Recognition.Outline(ledger.Table, ReadingChange.None)!.HeadingRow;
        return !ledger.Table.Rows.Any(r => r.Number == row - 1 && !r.IsBlank);
    }

    private static string Taken(Reading reading) =>
        $"headings in row {reading.HeadingRow}: "
        + string.Join(", ", reading.Columns.Select(c => $"{c.Heading} is {c.Meaning} ({c.Reason})"));

    private static string Shown(LedgerTable table) =>
        string.Join('\n', table.Rows.Take(12).Select(r => string.Join(" | ", r.Cells.Select(c => c.Text))));

    private static int Hash(string text) => text.Aggregate(17, (sum, c) => unchecked((sum * 31) + c)) & 0xFFFFF;

    private static string Plain(decimal amount) => amount.ToString(System.Globalization.CultureInfo.InvariantCulture);
}
