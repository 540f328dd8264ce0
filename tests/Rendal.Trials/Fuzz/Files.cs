using System.Text;

namespace Rendal.Trials.Fuzz;

/// <summary>Files to upload: some that can be read, some that cannot.</summary>
internal static class Files
{
    private const string Ledger =
        "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail,Delivery round\nAB01,Inn at "
        + "Kell,Invoice,T-1,2026-09-01,2026-10-01,120.50,a@inn.example,N7\nBE02,Bell "
        + "Inn,Invoice,T-2,2026-09-02,2026-10-02,80.00,b@inn.example,N8\n";

    private static readonly (string Name, byte[] Bytes)[] All =
    [
        ("ledger.csv", Encoding.UTF8.GetBytes(Ledger)),
        ("ledger.csv", Encoding.UTF8.GetBytes(Ledger.Replace("T-1", new string('9', 9_000), StringComparison.Ordinal))),
        ("ledger.csv", Encoding.UTF8.GetBytes(Ledger.Replace("AB01", new string('A', 5_000), StringComparison.Ordinal))),
        (
            "ledger.csv",
            Encoding.UTF8.GetBytes(
                Ledger.Replace("2026-10-01", "", StringComparison.Ordinal).Replace("2026-09-01", "9999-12-31", StringComparison.Ordinal)
            )
        ),
        ("ledger.csv", Encoding.UTF8.GetBytes(Ledger.Replace("120.50", "79228162514264337593543950335", StringComparison.Ordinal))),
        ("list.csv", Encoding.UTF8.GetBytes("Code;Name;E-mail;Terms;Language\nAB01;Inn at Kell;a@inn.example;999999999 days;en\n")),
        ("empty.csv", []),
        ("letter.docx", [0x50, 0x4B, 0x03, 0x04, 0, 0]),
        ("mail.eml", Encoding.ASCII.GetBytes("From: a@inn.example\r\nSubject: x\r\n\r\nhello\r\n")),
        (
            "mail.eml",
            Encoding.ASCII.GetBytes(
                "Content-Type: multipart/mixed; boundary=b\r\n\r\n"
                    + string.Concat(Enumerable.Repeat("--b\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n", 500))
            )
        ),
        ("reading.json", "{\"columns\":[null]}"u8.ToArray()),
        ("reading.json", "{\"columns\":[{\"heading\":\"\\u0000\",\"meaning\":7}]}"u8.ToArray()),
        ("../../x.csv", "a,b\n1,2\n"u8.ToArray()),
    ];

    /// <summary>One of them, or some bytes.</summary>
    public static (string Name, byte[] Bytes) Odd(Random random)
    {
        if (random.Next(5) == 0)
        {
            var bytes = new byte[random.Next(1, 2_000)];
            random.NextBytes(bytes);
            return ("bytes.bin", bytes);
        }

        return All[random.Next(3) == 0 ? 0 : random.Next(All.Length)];
    }
}
