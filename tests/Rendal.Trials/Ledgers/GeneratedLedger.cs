using System.Collections.Immutable;
using System.Globalization;
using Rendal.Core.Intake;

namespace Rendal.Trials.Ledgers;

/// <summary>An item as it is in truth.</summary>
public sealed record TrueItem(
    string Customer,
    string Name,
    string Number,
    DateOnly Date,
    DateOnly Due,
    string Kind,
    decimal Original,
    decimal Open
);

/// <summary>A ledger as some accounting program gives it out, with the truth beside it.</summary>
public sealed class GeneratedLedger
{
    private static readonly string[] Trades =
    [
        "Hotel",
        "Inn",
        "Clinic",
        "Restaurant",
        "Lodge",
        "Spa",
        "Hostel",
        "Manor",
        "House",
        "Ferry",
    ];
    private static readonly string[] Places =
    [
        "Eldwick",
        "Kell",
        "Beacon",
        "Thornby",
        "Marsh",
        "Dunmore",
        "Cabot",
        "Ravensea",
        "Hollow",
        "Orme",
        "Stell",
        "Varn",
    ];
    private static readonly string[] DayForms = ["dd/MM/yyyy", "dd.MM.yyyy", "yyyy-MM-dd", "d.M.yyyy", "dd-MM-yyyy", "dd/MM/yy"];

    private readonly Random random;
    private readonly TradeHeadings words;
    private readonly bool typed;
    private readonly bool comma;
    private readonly string days;
    private readonly List<Column> columns = [];
    private readonly List<TrueItem> items = [];
    private bool isGrouped;
    private bool isUnsigned;

    private GeneratedLedger(int seed, IReadOnlyList<TradeHeadings> headings)
    {
        random = new Random(seed);
        words = headings[random.Next(headings.Count)];
        typed = Chance(0.4);
        comma = words.Language != "en";
        days = words.Language == "en" ? DayForms[Chance(0.3) ? 2 : 0] : DayForms[random.Next(DayForms.Length)];
    }

    /// <summary>The language of its headings.</summary>
    public string Language => words.Language;

    /// <summary>The file.</summary>
    public LedgerTable Table { get; private set; } = new("ledger.csv", null, []);

    /// <summary>The items in truth.</summary>
    public IReadOnlyList<TrueItem> Items => items;

    /// <summary>The headings that the file has for what it needs.</summary>
    public IReadOnlyList<string> Headings { get; private set; } = [];

    /// <summary>Whether the customers are told by codes.</summary>
    public bool HasCodes { get; private set; }

    /// <summary>Whether due dates stand in it; where they do not, they are worked out from terms that it does not tell.</summary>
    public bool HasDue { get; private set; }

    /// <summary>How it is laid out, for messages.</summary>
    public override string ToString() =>
        $"{Language}: {string.Join(" | ", columns.Select(c => c.Heading))}\n"
        + string.Join('\n', Table.Rows.Take(12).Select(r => string.Join(" | ", r.Cells.Select(c => c.Text))));

    /// <summary>Makes one, the same for the same seed.</summary>
    public static GeneratedLedger Of(int seed, IReadOnlyList<TradeHeadings> headings)
    {
        var ledger = new GeneratedLedger(seed, headings);
        ledger.MakeItems();
        ledger.MakeColumns();
        ledger.Table = new LedgerTable("ledger.csv", null, ledger.Rows());
        return ledger;
    }

    private bool Chance(double share) => random.NextDouble() < share;

    private void MakeItems()
    {
        var kinds = words.Kinds.Split(';') is var sets ? sets[random.Next(sets.Length)].Split('|') : [];
        var prefix = new[] { "T-", "INV", "R", "", "2026/", "F" }[random.Next(6)];
        var number = random.Next(1_000, 90_000);
        var codes = random.Next(3);
        var terms = new[] { 14, 30, 45, 60 };
        var customers = random.Next(4, 16);
        var usual = terms[random.Next(terms.Length)];
        for (var c = 0; c < customers; c++)
        {
            var place = Places[random.Next(Places.Length)];
            var code = codes switch
            {
                0 => $"{place[..2].ToUpperInvariant()}{c:00}",
                1 => $"{10_000 + (c * 7)}",
                _ => $"C-{c + 101:0000}",
            };
            var name = Chance(0.5)
                ? $"{Trades[random.Next(Trades.Length)]} {place} {c}"
                : $"{place} {Trades[random.Next(Trades.Length)]} {c}";
            for (var i = random.Next(1, 9); i > 0; i--)
            {
                var date = new DateOnly(2026, 10, 28).AddDays(-random.Next(0, 240));
                var kind = random.NextDouble() switch
                {
                    < 0.82 => 0,
                    < 0.93 => 1,
                    _ => 2,
                };
                var original = Math.Round((decimal)(random.NextDouble() * 2_500) + 8, 2) * (kind == 0 ? 1 : -1);
                var open = Chance(0.8) ? original : Math.Round(original * (decimal)random.NextDouble(), 2);
                number += random.Next(1, 40);
                items.Add(
                    new TrueItem(
                        code,
                        name,
                        $"{prefix}{number}",
                        date,
                        date.AddDays(Chance(0.85) ? usual : terms[random.Next(terms.Length)]),
                        kinds[kind],
                        original,
                        open == 0 ? original : open
                    )
                );
            }
        }
    }

    private void MakeColumns()
    {
        HasCodes = Chance(0.85);
        HasDue = Chance(0.9);
        isGrouped = HasCodes && Chance(0.1);
        var withName = !HasCodes || Chance(0.8);
        Add(HasCodes && !isGrouped, words.Code, i => Text(i.Customer));
        Add(withName && !isGrouped, words.Name, i => Text(i.Name));
        Add(true, words.Number, i => Text(i.Number));
        var withKind = Chance(0.6);
        isUnsigned = withKind && Chance(0.15) && items.TrueForAll(i => KindWords.Of(i.Kind) is not null);
        Add(withKind, words.Kind, i => Text(i.Kind));
        Add(true, words.Date, i => Day(i.Date));
        Add(HasDue, words.Due, i => Day(i.Due));
        Add(Chance(0.4), words.Currency, _ => Text("GBP"));
        var layout = random.NextDouble();
        if (layout < 0.15)
        {
            Add(true, words.Debit, i => i.Open > 0 ? Amount(i.Open) : Cell.Empty, true);
            Add(true, words.Credit, i => i.Open < 0 ? Amount(-i.Open) : Cell.Empty, true);
        }
        else
        {
            Add(layout < 0.7, words.Amount, i => Amount(Signed(i.Original)), true);
            Add(true, words.Open, i => Amount(Signed(i.Open)), true);
        }

        Headings = [.. columns.Select(c => c.Heading)];
        Noise();
        if (Chance(0.5))
        {
            Shuffle(columns);
        }
    }

    private decimal Signed(decimal amount) => isUnsigned ? Math.Abs(amount) : amount;

    /// <summary>Columns that nothing depends on, in the words of the trade.</summary>
    private void Noise()
    {
        var noise = new List<Column>
        {
            new("Tel.", i => Text($"01632 {(Sum(i.Customer) % 900_000) + 100_000}")),
            new("PLZ", i => Text($"{10_000 + (Sum(i.Customer) % 80_000)}")),
            new("Order no.", i => Text($"PO{Sum(i.Number) % 100_000:00000}")),
            new("VAT %", _ => Number(20)),
            new("Discount", i => Amount(Math.Round(i.Original * 0.02m, 2))),
            new("Week", i => Number(ISOWeek.GetWeekOfYear(i.Date.ToDateTime(TimeOnly.MinValue)))),
            new("User", i => Text(new[] { "marta", "j.doe", "admin" }[Sum(i.Number) % 3])),
            new("Amount USD", i => Amount(Math.Round(i.Original * 1.31m, 2))),
            new("Sales rep", i => Text(new[] { "North", "South" }[Sum(i.Customer) % 2])),
            new("Days overdue", i => Number(Math.Max(0, new DateOnly(2026, 10, 31).DayNumber - i.Due.DayNumber))),
            new("Description", i => Text($"Linen hire week {ISOWeek.GetWeekOfYear(i.Date.ToDateTime(TimeOnly.MinValue))}")),
        };
        Shuffle(noise);
        columns.AddRange(noise.Take(random.Next(0, 5)));
    }

    private static int Sum(string text) => text.Aggregate(17, (sum, c) => unchecked((sum * 31) + c)) & 0xFFFFF;

    private void Shuffle(List<Column> list)
    {
        for (var i = list.Count - 1; i > 0; i--)
        {
            var j = random.Next(i + 1);
            (list[i], list[j]) = (list[j], list[i]);
        }
    }

    private void Add(bool has, string headings, Func<TrueItem, Cell> value, bool isSummed = false)
    {
        if (has)
        {
            columns.Add(new Column(TradeHeadings.Pick(headings, random), value, isSummed));
        }
    }

    private List<FileRow> Rows()
    {
        var rows = new List<FileRow>();
        if (Chance(0.4))
        {
            Put(rows, [Text("Tarnbrook Linen Hire")]);
            Put(rows, [Text("31.10.2026")]);
            rows.Add(new FileRow(rows.Count + 1, []));
        }

        PutHeadings(rows);
        if (!isGrouped && Chance(0.3))
        {
            Shuffled();
            PutItems(rows, items);
            return rows;
        }

        var withTotals = !isUnsigned && Chance(0.3);
        foreach (var customer in items.GroupBy(i => i.Customer))
        {
            if (isGrouped)
            {
                Put(rows, [Text($"{customer.Key} – {customer.First().Name}")]);
            }

            PutItems(rows, [.. customer]);
            if (withTotals)
            {
                PutTotal(rows, "Total", [.. customer]);
            }
        }

        if (withTotals)
        {
            PutTotal(rows, "Grand total", items);
        }

        return rows;

        void Shuffled()
        {
            for (var i = items.Count - 1; i > 0; i--)
            {
                var j = random.Next(i + 1);
                (items[i], items[j]) = (items[j], items[i]);
            }
        }
    }

    private void PutHeadings(List<FileRow> rows)
    {
        var isParted = Chance(0.1) && columns.Exists(c => c.Heading.Contains(' ', StringComparison.Ordinal));
        if (isParted)
        {
            Put(rows, columns.Select(c => Text(c.Heading.Contains(' ', StringComparison.Ordinal) ? c.Heading.Split(' ', 2)[0] : "")));
        }

        Put(rows, columns.Select(c => Text(isParted ? c.Heading.Split(' ', 2)[^1] : c.Heading)));
    }

    private void PutItems(List<FileRow> rows, IReadOnlyList<TrueItem> some)
    {
        foreach (var item in some)
        {
            Put(rows, columns.Select(c => c.Value(item)));
        }
    }

    private void PutTotal(List<FileRow> rows, string word, IReadOnlyList<TrueItem> of)
    {
        var at = columns.FindIndex(c => !IsOf(c, words.Date) && !IsOf(c, words.Due) && !c.IsSummed);
        Put(
            rows,
            columns.Select(
                (c, i) =>
                    i == at ? Text(word)
                    : c.IsSummed ? Amount(of.Sum(item => ReadAs(c.Value(item))))
                    : Cell.Empty
            )
        );
    }

    private decimal ReadAs(Cell cell) =>
        cell.IsEmpty
            ? 0
            : cell.Number
                ?? decimal.Parse(
                    comma
                        ? cell.Text.Replace(".", "", StringComparison.Ordinal).Replace(',', '.')
                        : cell.Text.Replace(",", "", StringComparison.Ordinal),
                    CultureInfo.InvariantCulture
                );

    private static bool IsOf(Column column, string headings) => headings.Split('|').Contains(column.Heading);

    private static void Put(List<FileRow> rows, IEnumerable<Cell> cells) =>
        rows.Add(new FileRow(rows.Count + 1, [.. cells.ToImmutableArray()]));

    private static Cell Text(string text) => Cell.Of(text);

    private Cell Number(int number) => typed ? Cell.Of((decimal)number) : Text(number.ToString(CultureInfo.InvariantCulture));

    private Cell Day(DateOnly day) => typed ? Cell.Of(day) : Text(day.ToString(days, CultureInfo.InvariantCulture));

    private Cell Amount(decimal amount)
    {
        if (typed)
        {
            return Cell.Of(amount);
        }

        var written = amount.ToString("#,##0.00", CultureInfo.InvariantCulture);
        return Text(comma ? written.Replace(",", "_", StringComparison.Ordinal).Replace('.', ',').Replace('_', '.') : written);
    }

    private sealed record Column(string Heading, Func<TrueItem, Cell> Value, bool IsSummed = false);
}
