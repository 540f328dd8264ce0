using System.Globalization;
using System.Text;

namespace Rendal.Demo;

/// <summary>
/// Tarnbrook Linen Hire at the end of October 2026: weekly hire invoices, credit notes for short deliveries, payments on account,
/// disputes, part payments, a few accounts in euro, missing and bad addresses, two spellings, credit balances, and items long overdue. All
/// names and addresses are made up.
/// </summary>
internal static class SampleFirm
{
    private static readonly DateOnly LastDay = new(2026, 10, 31);

    // Code, name, title, contact, language, currency, unit, town and postcode, weight of a weekly invoice in pounds.
    private static readonly string[] Customers =
    [
        "AB01|Abbot’s Table|Mr|Owen Farrow|en|GBP|Northgate|Kelby KB2 4RT|90",
        "AS01|Ashdown Care Home|Ms|Ruth Amadi|en|GBP|Northgate|Marl Cross KB9 1AA|210",
        "BE02|Beacon Lodge|Mrs|Helen Stroud|en|GBP|Harbour|Saltness SN1 3QD|180",
        "BR04|Bridge Street Dental|Dr|Anil Mehta|en|GBP|Northgate|Kelby KB1 7PL|60",
        "BL01|Blackthorn Inn|Mr|Peter Nye|en|GBP|Northgate|Upper Dene KB7 2HB|75",
        "CA01|Carrow House Hotel|Ms|Joan Whitlock|en|GBP|Harbour|Carrow SN4 8EE|320",
        "CE01|Cedar Day Clinic|Ms|Laura Finch|en|GBP|Northgate|Kelby KB1 9ZT|140",
        "CL02|Clock Tower Café|Mr|Ben Ashby|en|GBP|Northgate|Kelby KB1 1CT|45",
        "CO01|Coldwell Spa|Ms|Petra Lindqvist|en|GBP|Northgate|Coldwell KB8 5SP|260",
        "CR01|Crown at Dene|Mr|Giles Horton|en|GBP|Northgate|Upper Dene KB7 2AA|110",
        "DU04|Dunmore Clinic|Dr|Sheila Grant|en|GBP|Northgate|Dunmore KB5 5DC|95",
        "DR01|Drovers Rest|Mr|Colin Pike|en|GBP|Northgate|Hallow KB6 3DR|70",
        "EA01|East Quay Apartments|Ms|Nadia Rahman|en|GBP|Harbour|Saltness SN1 2EQ|230",
        "EL01|Elm Grove Nursing|Mrs|Gwen Parry|en|GBP|Northgate|Marl Cross KB9 4EG|275",
        "FA01|Fairlight Guest House|Mrs|Ida Brooks|en|GBP|Harbour|Fairlight SN6 1FG|50",
        "FE01|Fernlea Hotels|Ms|Ines Caldera|en|GBP|Harbour|Saltness SN1 1FH|410",
        "FE02|Fernlea Quay House|Mr|Luis Caldera|en|GBP|Harbour|Saltness SN1 1QH|280",
        "FE03|Fernlea Hill|Ms|Mona Reed|en|GBP|Northgate|Coldwell KB8 1FH|240",
        "FL01|Ferry Line Aster|Mr|Rolf Brandt|en|GBP|Harbour|Saltness SN1 0FL|640",
        "FL02|Ferry Line Aster, Dover Strait|Ms|Carla Wynn|en|GBP|Harbour|Saltness SN1 0FL|520",
        "GL01|Glasshouse Restaurant|Ms|Tess Obi|en|GBP|Northgate|Kelby KB1 3GR|130",
        "GR02|Granary Bistro|Mr|Max Tolley|en|GBP|Northgate|Kelby KB2 2GB|65",
        "HA01|Harbour Rest|Mr|Ivor Dunn|en|GBP|Harbour|Saltness SN2 7HR|190",
        "HI01|Highmoor Lodge|Mrs|Anne Sefton|en|GBP|Northgate|Highmoor KB9 9HL|85",
        "HL01|Hotel Łabędź|Mr|Marek Wójcik|en|GBP|Harbour|Saltness SN1 5HL|150",
        "HO03|Holm Surgery|Dr|Kate Mallory|en|GBP|Northgate|Holm KB4 4HS|40",
        "IN01|Inn at Kell|Ms|Dora Kell|en|GBP|Northgate|Kell KB6 6IK|55",
        "IS01|Islay Court|Mr|Hamish Orr|en|GBP|Harbour|Carrow SN4 2IC|160",
        "JU01|Juniper Spa|Ms|Vera Holt|en|GBP|Northgate|Coldwell KB8 2JS|120",
        "KE01|Kestrel Court|Mr|Adam Shaw|en|GBP|Northgate|Kelby KB3 8KC|300",
        "KI02|Kiln Lane Kitchen|Ms|Rosa Bell|en|GBP|Northgate|Kelby KB2 9KL|58",
        "LA01|Lantern Café|Ms|Joy Ekwueme|en|GBP|Harbour|Saltness SN1 8LC|42",
        "LI01|Linden Physio|Mr|Paul Rusk|en|GBP|Northgate|Kelby KB1 6LP|36",
        "LO01|Lock Keeper’s Inn|Mr|Ted Cutler|en|GBP|Northgate|Hallow KB6 1LK|88",
        "MA01|Marine Parade Hotel|Ms|Stella Quinn|en|GBP|Harbour|Saltness SN1 4MP|370",
        "ME01|Meadowbank Care|Mrs|Olive Grady|en|GBP|Northgate|Marl Cross KB9 2MB|205",
        "MI01|Millrace Tavern|Mr|Dan Frost|en|GBP|Northgate|Tarnbrook KB1 2MT|66",
        "MO01|Moorcroft Surgery|Dr|Ellen Voss|en|GBP|Northgate|Highmoor KB9 7MS|48",
        "NO01|North Pier Hotel|Mr|Simon Leigh|en|GBP|Harbour|Saltness SN1 6NP|430",
        "OL01|Old Mill Inn|||en|GBP|Northgate|Tarnbrook KB1 2OM|72",
        "OS01|Osprey Bistro|Ms|Fay Linton|en|GBP|Harbour|Carrow SN4 6OB|44",
        "OR01|Orchard House|Mrs|Beth Crane|en|GBP|Northgate|Dunmore KB5 2OH|135",
        "PI01|Pinfold Arms|Mr|Ray Coates|en|GBP|Northgate|Hallow KB6 8PA|62",
        "PR01|Priory Guest Rooms|Ms|Agnes Lowe|en|GBP|Harbour|Fairlight SN6 4PG|52",
        "QU01|Quarry View|Mr|Neil Barrow|en|GBP|Northgate|Upper Dene KB7 7QV|78",
        "RA01|Railway Hotel|Mr|Hugh Mercer|en|GBP|Northgate|Kelby KB1 0RH|215",
        "RI01|Riverside Dialysis|Dr|Omar Aziz|en|GBP|Northgate|Kelby KB3 3RD|175",
        "RO02|Rose & Anchor|Ms|Lily Dray|en|GBP|Harbour|Saltness SN2 2RA|92",
        "SA01|Sandpiper Suites|Ms|Nora Blythe|en|GBP|Harbour|Fairlight SN6 9SS|145",
        "SE01|Seven Stars|Mr|Jack Rudd|en|GBP|Northgate|Holm KB4 1SS|57",
        "SH01|Shepherd’s Hall|Mrs|Mary Gale|en|GBP|Northgate|Highmoor KB9 3SH|115",
        "SN01|Snug Coffee|Ms|Pia Dale|en|GBP|Northgate|Kelby KB1 5SC|28",
        "ST01|St Brannoc’s Hospice|Sister|Clare Doyle|en|GBP|Northgate|Marl Cross KB9 8SB|195",
        "SU01|Summerhouse Catering|Mr|Leo Varga|en|GBP|Harbour|Saltness SN3 3SC|84",
        "TI01|Tidewater Inn|Mr|Frank Moss|en|GBP|Harbour|Carrow SN4 1TI|98",
        "TO01|Tollgate Restaurant|Ms|Eve Sharpe|en|GBP|Northgate|Dunmore KB5 9TR|105",
        "UN01|Union Street Rooms|Mr|Sam Keane|en|GBP|Northgate|Kelby KB2 7US|64",
        "VI01|Vine House Hotel|Mrs|Grace Alder|en|GBP|Northgate|Tarnbrook KB1 8VH|225",
        "WA01|Watermill Weddings|Ms|Zoe Hart|en|GBP|Northgate|Kell KB6 2WW|155",
        "WE01|Westcliff Veterinary|Dr|Ian Boyd|en|GBP|Harbour|Fairlight SN6 7WV|38",
        "WI02|Willow Tree Inn|Mr|Tom Hale|en|GBP|Northgate|Hallow KB6 5WT|82",
        "YA01|Yarrow Yoga Retreat|Ms|Mia Stone|en|GBP|Northgate|Coldwell KB8 8YY|46",
        "ZE01|Zephyr Sailing Club|Mr|Roy Pell|en|GBP|Harbour|Saltness SN1 9ZS|54",
        "EU01|Gasthof Krone|Frau|Anke Weber|de|EUR|Harbour|12345 Krondorf|190",
        "EU02|Hotel Zur Mühle|Herr|Jens Kolb|de|EUR|Harbour|54321 Mühlau|160",
        "EU03|Auberge du Phare|Madame|Lise Roux|fr|EUR|Harbour|29000 Port-Aubin|140",
        "EU04|Pension Seeblick|||de|EUR|Harbour|99999 Seedorf|75",
        "EU05|Hostal Bahía|Señora|Elena Prats|es|EUR|Harbour|03000 Villamar|120",
    ];

    private static readonly Dictionary<string, string> Countries = new()
    {
        ["EU01"] = "Germany",
        ["EU02"] = "Germany",
        ["EU03"] = "France",
        ["EU04"] = "Germany",
        ["EU05"] = "Spain",
    };

    /// <summary>The files by name: the customer list, and the ledger as the accounting program gives it out.</summary>
    public static IReadOnlyDictionary<string, string> Files() =>
        new Dictionary<string, string> { ["customers.csv"] = CustomerList(), ["ledger-2026-10.csv"] = Ledger() };

    private static string CustomerList()
    {
        var csv = new StringBuilder(
            "Code,Name,Title,Contact,E-mail,Language,Street,Town,Country,Terms,On hold,Business unit,Head office,Sent by\n"
        );
        for (var i = 0; i < Customers.Length; i++)
        {
            var c = Customers[i].Split('|');
            var street =
                $"{3 + (i * 7 % 88)} "
                + $"{new[] { "Tenter Lane", "Quay Street", "Mill Road", "Church Walk", "Station Road", "High Street" }[i % 6]}";
            Line(
                csv,
                c[0],
                c[1],
                c[2],
                c[3],
                Address(c),
                c[4],
                c[0] == "OL01" ? "" : street,
                c[7],
                Countries.GetValueOrDefault(c[0], ""),
                c[0] is "FL01" or "FL02" ? "45"
                    : c[0].StartsWith("EU", StringComparison.Ordinal) ? "14"
                    : "",
                c[0] == "ZE01" ? "yes" : "",
                c[6],
                c[0] is "FE02" or "FE03" ? "FE01"
                    : c[0] == "FL02" ? "FL01"
                    : "",
                c[0] switch
                {
                    "OR01" => "post",
                    "ST01" => "e-mail and post",
                    _ => "",
                }
            );
        }

        return csv.ToString();
    }

    private static string Address(string[] customer) =>
        customer[0] switch
        {
            "MO01" or "OR01" or "SN01" => "",
            "BR04" => "reception@bridgestreet",
            "FE01" => "accounts@fernlea.example; manager@fernlea-harbour.example",
            "RA01" => "bookkeeping@railwayhotel.example; office@@railwayhotel",
            _ => $"{(customer[0][0] < 'M' ? "accounts" : "office")}@{Slug(customer[1])}.example",
        };

    private static string Slug(string name)
    {
        var slug = new StringBuilder();
        foreach (
            var c in name.Replace('Ł', 'L')
                .Replace('ł', 'l')
                .Normalize(NormalizationForm.FormD)
                .ToLowerInvariant()
                .Where(char.IsAsciiLetter)
        )
        {
            slug.Append(c);
        }

        return slug.ToString();
    }

    private static string Ledger()
    {
        var dice = new Dice(20261031);
        var rows = new List<(DateOnly Date, string Number, string[] Cells)>();
        var number = 20_101;
        var credit = 401;
        var receipt = 3_301;
        foreach (var text in Customers)
        {
            var c = text.Split('|');
            var weekly = int.Parse(c[8], CultureInfo.InvariantCulture);
            var weeks = 8 + dice.Below(9) + (c[0] is "KE01" or "GL01" or "BR04" ? 14 : 0);
            for (var week = weeks; week > 0; week--)
            {
                var date = LastDay.AddDays((-7 * week) + 4 + (c[0] == "SE01" && week == 1 ? 7 : 0));
                var due = date.AddDays(
                    c[0].StartsWith("FL", StringComparison.Ordinal) ? 45
                    : c[0].StartsWith("EU", StringComparison.Ordinal) ? 14
                    : 30
                );
                var amount = weekly + (weekly * (dice.Below(41) - 20) / 100m) + (dice.Below(100) / 100m);
                var part = dice.Percent(7) ? Math.Round(amount * (30 + dice.Below(50)) / 100m, 2) : 0m;
                var disputed = dice.Percent(2) ? "short delivery" : "";
                rows.Add(
                    (
                        date,
                        $"T-{number}",
                        Row(c, "INV", $"T-{number}", date, dice.Percent(8) ? null : due, amount, amount - part, disputed, dice)
                    )
                );
                number++;
                if (dice.Percent(9))
                {
                    var back = -Math.Round(weekly * (5 + dice.Below(20)) / 100m, 2);
                    rows.Add(
                        (
                            date.AddDays(3),
                            $"C-{credit:0000}",
                            Row(c, "CRN", $"C-{credit:0000}", date.AddDays(3), null, back, back, "", dice)
                        )
                    );
                    credit++;
                }
            }

            // Money that came in and was not set against anything yet; for two customers more than they owe.
            if (dice.Percent(18) || c[0] is "PR01" or "YA01")
            {
                var paid = -Math.Round(weekly * (c[0] is "PR01" or "YA01" ? 30m : 1.5m), 2);
                var date = LastDay.AddDays(-dice.Below(20) - 1);
                rows.Add((date, $"P-{receipt}", Row(c, "PAY", $"P-{receipt}", date, null, paid, paid, "", dice)));
                receipt++;
            }
        }

        // One hotel buys in two currencies.
        var both = Customers
            .First(c => c.StartsWith("CA01", StringComparison.Ordinal))
            .Replace("|GBP|", "|EUR|", StringComparison.Ordinal)
            .Split('|');
        rows.Add(
            (
                new DateOnly(2026, 9, 14),
                "T-29001",
                Row(both, "INV", "T-29001", new DateOnly(2026, 9, 14), new DateOnly(2026, 10, 14), 812.40m, 812.40m, "", dice)
            )
        );

        var csv = new StringBuilder(
            "Account,Customer,Type,Document no.,Date,Due,Currency,Amount,Balance,E-mail,Unit,Delivery round,Dispute\n"
        );
        foreach (
            var (_, _, cells) in rows.OrderBy(r => r.Cells[0], StringComparer.Ordinal)
                .ThenBy(r => r.Date)
                .ThenBy(r => r.Number, StringComparer.Ordinal)
        )
        {
            Line(csv, cells);
        }

        return csv.ToString();
    }

    private static string[] Row(
        string[] c,
        string kind,
        string number,
        DateOnly date,
        DateOnly? due,
        decimal amount,
        decimal balance,
        string disputed,
        Dice dice
    )
    {
        var name = c[0] == "HL01" && dice.Percent(40) ? "Hotel Labedz" : c[1];
        var invariant = CultureInfo.InvariantCulture;
        return
        [
            c[0],
            name,
            kind,
            number,
            date.ToString("dd/MM/yyyy", invariant),
            due?.ToString("dd/MM/yyyy", invariant) ?? "",
            c[5],
            amount.ToString("#,##0.00", invariant),
            balance.ToString("#,##0.00", invariant),
            Address(c),
            c[6],
            $"{c[6][0]}{1 + (c[0][1] % 4)}",
            disputed,
        ];
    }

    private static void Line(StringBuilder csv, params string[] cells) =>
        csv.AppendJoin(
                ',',
                cells.Select(c => c.AsSpan().ContainsAny(',', '"') ? $"\"{c.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : c)
            )
            .Append('\n');
}
