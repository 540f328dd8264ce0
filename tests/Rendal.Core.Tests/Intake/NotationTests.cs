using System.Globalization;
using CsCheck;
using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

/// <summary>Whatever way a file writes its amounts and dates, the same values come out of it.</summary>
public class NotationTests
{
    private static readonly string[] Thousands = ["", ",", ".", "'", "’", " ", "\u00A0", "\u202F"];
    private static readonly string[] Signs = ["-{0}", "\u2212{0}", "{0}-", "({0})", "{0} CR", "- {0}"];
    private static readonly string[] Currencies = ["{0}", "£ {0}", "£{0}", "GBP {0}", "{0} GBP", "{0} £"];

    [Fact]
    public void Amounts_in_every_notation_come_back_the_same() =>
        Gen.Select(
                Gen.Long[-99_999_999, 99_999_999].Array[1, 12],
                Gen.Bool,
                Gen.Int[0, Thousands.Length - 1],
                Gen.Int[0, Signs.Length - 1],
                Gen.Int[0, Currencies.Length - 1]
            )
            .Sample(
                (pence, comma, thousands, sign, currency) =>
                {
                    var mark = comma ? "," : ".";
                    var group = Thousands[thousands] == mark ? "" : Thousands[thousands];
                    var amounts = pence.Select(p => p / 100m).ToList();
                    var read = Tables.Read(
                        Tables.Of([
                            "Account|Date|Balance",
                            .. amounts.Select(a => $"H1|2026-10-01|{Written(a, mark, group, Signs[sign], Currencies[currency])}"),
                        ])
                    );
                    Assert.Equal(amounts, read.Rows.Select(r => r.Open));
                }
            );

    [Fact]
    public void Dates_in_every_notation_come_back_the_same() =>
        Gen.Select(Gen.Int[0, 29_000].Array[1, 12], Gen.Int[0, 17])
            .Sample(
                (numbers, notation) =>
                {
                    var days = numbers.Select(n => new DateOnly(2000, 1, 1).AddDays(n)).ToList();
                    var order = notation is >= 12 and < 16 ? DateOrder.MonthFirst : DateOrder.DayFirst;
                    var read = Tables.Read(
                        Tables.Of(["Account|Date|Balance", .. days.Select(d => $"H1|{Notation(d, notation)}|1.00")]),
                        Tables.Settings with
                        {
                            Order = order,
                        }
                    );
                    Assert.Equal(days, read.Rows.Select(r => r.Date!.Value));
                }
            );

    [Fact]
    public void Shuffling_rows_and_columns_changes_nothing_but_the_row_numbers() =>
        Gen.Select(
                Gen.Select(Gen.Int[1, 4], Gen.Int[-9_999, 9_999], Gen.Int[0, 300], Gen.Int[0, 6]).Array[1, 15],
                Gen.Shuffle(Enumerable.Range(0, 7).ToArray()),
                Gen.Int
            )
            .Sample(
                (items, order, seed) =>
                {
                    string[] headings = ["Account", "Name", "Kind", "Number", "Date", "Balance", "Van"];
                    var rows = items
                        .Select(
                            (i, n) =>
                                new[]
                                {
                                    $"H{i.Item1}",
                                    $"Inn {i.Item1}",
                                    i.Item2 < 0 ? "CRN" : "INV",
                                    $"T-{n % 5}",
                                    Day(i.Item3),
                                    (i.Item2 / 100m).ToString("F2", CultureInfo.InvariantCulture),
                                    i.Item4 == 0 ? "" : $"N{i.Item4}",
                                }
                        )
                        .ToArray();
                    var plain = Tables.Read(Tables.Of([string.Join('|', headings), .. rows.Select(r => string.Join('|', r))]));
                    var chance = new Random(seed);
                    var mixed = rows.ToArray();
                    chance.Shuffle(mixed);
                    var shuffled = Tables.Read(
                        Tables.Of([
                            string.Join('|', order.Select(o => headings[o])),
                            .. mixed.Select(r => string.Join('|', order.Select(o => r[o]))),
                        ])
                    );
                    Assert.Equal(Values(plain), Values(shuffled));
                    Assert.Equal(Counts(plain), Counts(shuffled));
                }
            );

    private static IEnumerable<string> Values(Tables.ReadFile file) =>
        file
            .Rows.Select(r =>
                $"{r.Customer} {r.CustomerName} {r.Kind} {r.Number} {r.Date} {r.Due} {r.Open} {r.Extra.GetValueOrDefault("Van")}"
            )
            .Order(StringComparer.Ordinal);

    private static IEnumerable<(string, int)> Counts(Tables.ReadFile file) =>
        file.Findings.GroupBy(f => f.Code).Select(g => (g.Key, g.Count())).Order();

    private static string Day(int n) => new DateOnly(2026, 1, 1).AddDays(n).ToString("dd/MM/yyyy", CultureInfo.InvariantCulture);

    private static string Written(decimal amount, string mark, string group, string sign, string currency)
    {
        var format = new NumberFormatInfo { NumberDecimalSeparator = mark, NumberGroupSeparator = group };
        var written = string.Format(CultureInfo.InvariantCulture, currency, Math.Abs(amount).ToString("N2", format));
        return amount < 0 ? string.Format(CultureInfo.InvariantCulture, sign, written) : written;
    }

    private static string Notation(DateOnly day, int notation)
    {
        string[] formats =
        [
            "yyyy-MM-dd",
            "yyyyMMdd",
            "dd/MM/yyyy",
            "d.M.yyyy",
            "dd-MM-yyyy",
            "d M yyyy",
            "dd/MM/yy",
            "d MMM yyyy",
            "d MMMM yyyy",
            "MMM d, yyyy",
            "dd-MMM-yy",
            "yyyy/M/d",
            "MM/dd/yyyy",
            "M-d-yyyy",
            "M.d.yyyy",
            "MM/dd/yy",
            "yyyy-MM-ddTHH:mm:ss",
            "dddd",
        ];
        var name = formats[notation];
        return name == "dddd"
            ? (day.DayNumber - new DateOnly(1899, 12, 30).DayNumber).ToString(CultureInfo.InvariantCulture)
            : day.ToDateTime(TimeOnly.MinValue).ToString(name, CultureInfo.InvariantCulture);
    }
}
