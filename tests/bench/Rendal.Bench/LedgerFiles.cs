using System.Globalization;
using MiniExcelLibs;

namespace Rendal.Bench;

/// <summary>Made-up ledger files of any size, the same on every run.</summary>
internal static class LedgerFiles
{
    private static readonly string[] Headings =
    [
        "Customer code",
        "Customer name",
        "Kind",
        "Number",
        "Date",
        "Due date",
        "Currency",
        "Amount",
        "Outstanding",
        "E-mail",
        "Delivery round",
        "Order",
    ];

    public static void WriteCsv(string path, int rows, int customers)
    {
        using var writer = new StreamWriter(path);
        writer.WriteLine(string.Join(',', Headings));
        foreach (var row in Rows(rows, customers))
        {
            writer.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{row.Code},{row.Name},{row.Kind},{row.Number},{row.Date:dd/MM/yyyy},{row.Date.AddDays(30):dd/MM/yyyy},GBP,{row.Amount:F2},{row.Amount:F2},{row.Email},{row.Round},{row.Order}"
                )
            );
        }
    }

    public static void WriteXlsx(string path, int rows, int customers) =>
        MiniExcel.SaveAs(
            path,
            Rows(rows, customers)
                .Select(row => new Dictionary<string, object>
                {
                    [Headings[0]] = row.Code,
                    [Headings[1]] = row.Name,
                    [Headings[2]] = row.Kind,
                    [Headings[3]] = row.Number,
                    [Headings[4]] = row.Date,
                    [Headings[5]] = row.Date.AddDays(30),
                    [Headings[6]] = "GBP",
                    [Headings[7]] = row.Amount,
                    [Headings[8]] = row.Amount,
                    [Headings[9]] = row.Email,
                    [Headings[10]] = row.Round,
                    [Headings[11]] = row.Order,
                })
        );

    private static IEnumerable<FileLine> Rows(int rows, int customers)
    {
        var chance = new Random(20261031);
        for (var i = 0; i < rows; i++)
        {
            var customer = chance.Next(customers);
            var isPayment = chance.Next(10) == 0;
            var amount = chance.Next(1_000, 90_000) / 100m;
            yield return new FileLine(
                $"C{customer:00000}",
                $"Hotel of the number {customer}",
                isPayment ? "Payment" : "Invoice",
                $"T-{i}",
                new DateTime(2026, 10, 31).AddDays(-chance.Next(200)),
                isPayment ? -amount : amount,
                $"accounts@hotel{customer}.example",
                $"N{customer % 12}",
                $"PO {chance.Next(100_000)}"
            );
        }
    }

    private sealed record FileLine(
        string Code,
        string Name,
        string Kind,
        string Number,
        DateTime Date,
        decimal Amount,
        string Email,
        string Round,
        string Order
    );
}
