using System.Text.Json.Nodes;

namespace Rendal.Trials.Fuzz;

/// <summary>Values that have broken programs before.</summary>
internal sealed class OddValues(Random random)
{
    private static readonly string[] Texts =
    [
        "",
        " ",
        "\0",
        "a\0b",
        "{",
        "{{",
        "{{{",
        "{% raw %}",
        "}}",
        "&#123;",
        "<",
        "<script>alert(1)</script>",
        "<p><span data-slot=\"customer.name\"></span>{</p>",
        "{<span data-slot=\"customer.name\"></span>",
        "<span data-when=\"overdue\">{",
        "<span data-slot=\"no.such\"></span>",
        "<p style=\"background:url(http://127.0.0.1:1/x)\">",
        "'; drop table person; --",
        "%",
        "%00",
        "_",
        "\\",
        "\"",
        "../../etc/passwd",
        "a\r\nBcc: x@inn.example",
        "=cmd()",
        "\u202E",
        "\uFEFF",
        "\uFFFF",
        "𝔘𝔫𝔦",
        "e\u0301\u0302\u0303",
        "null",
        "true",
        "NaN",
        "-0",
        "1e400",
        "1,5",
        "2026-02-30",
        "9999-12-31",
        "0001-01-01",
        "2026-10-31T25:61",
        "00:00",
        "en",
        "EUR",
        "XXX",
        "statement",
        "name",
        "desc",
        "csv",
        "pdf",
        "docx",
        "held",
        "out",
        "in",
        "put-in",
        "removed",
        "none",
        "tls",
        "a@inn.example",
    ];

    private static readonly long[] Wholes =
    [
        0,
        1,
        -1,
        2,
        7,
        30,
        255,
        32_767,
        65_535,
        65_536,
        36_500,
        1_000_000,
        int.MaxValue,
        int.MinValue,
        (long)int.MaxValue + 1,
        long.MaxValue,
        long.MinValue,
        long.MaxValue - 1,
    ];

    private static readonly string[] Numbers =
    [
        "0.1",
        "-0.005",
        "79228162514264337593543950335",
        "-79228162514264337593543950335",
        "1e28",
        "1e29",
        "1e400",
        "-1e-400",
        "0.0000000000000000000000000001",
        "999999999999999.99",
    ];

    private static readonly string[] Dates =
    [
        "2026-10-31",
        "2024-02-29",
        "0001-01-01",
        "9999-12-31",
        "1899-12-31",
        "2200-01-01",
        "2026-02-30",
        "31/10/2026",
        "",
        "2026-10-31T00:00:00Z",
    ];

    // Nothing that is tried may leave the machine, and no name may be looked up.
    private static readonly string[] Hosts = ["127.0.0.1", "localhost", "[::1]", "no such host", "", "127.0.0.1\0", new('h', 300)];

    public string Host() => Hosts[random.Next(Hosts.Length)];

    public string Text() =>
        random.Next(12) switch
        {
            0 => new string((char)random.Next('A', 'Z'), random.Next(200, 4_000)),
            1 => string.Concat(Enumerable.Repeat("<b>", random.Next(1, 3_000))),
            2 => new string([.. Enumerable.Range(0, random.Next(1, 30)).Select(_ => (char)random.Next(1, 0xD7FF))]),
            3 when random.Next(8) == 0 => new string('x', random.Next(50_000, 400_000)),
            _ => Texts[random.Next(Texts.Length)],
        };

    public long Whole() => Wholes[random.Next(Wholes.Length)];

    public string Number() =>
        random.Next(3) == 0 ? Whole().ToString(System.Globalization.CultureInfo.InvariantCulture) : Numbers[random.Next(Numbers.Length)];

    public string Date() => Dates[random.Next(Dates.Length)];

    /// <summary>Another value, of the same type mostly.</summary>
    public JsonNode? Instead(JsonNode? value) =>
        random.Next(3) == 0 || value is null
            ? Any()
            : value.GetValueKind() switch
            {
                System.Text.Json.JsonValueKind.String => JsonValue.Create(random.Next(5) == 0 ? Date() : Text()),
                System.Text.Json.JsonValueKind.Number => JsonValue.Create(Whole()),
                System.Text.Json.JsonValueKind.True => JsonValue.Create(false),
                System.Text.Json.JsonValueKind.False => JsonValue.Create(true),
                _ => Any(),
            };

    /// <summary>Any value, of whatever type, as JSON.</summary>
    public JsonNode? Any() =>
        random.Next(11) switch
        {
            0 => null,
            1 => JsonValue.Create(Text()),
            2 => JsonValue.Create(Whole()),
            3 => JsonNode.Parse("[]"),
            4 => JsonNode.Parse("[null]"),
            5 => JsonNode.Parse("{}"),
            6 => JsonValue.Create(random.Next(2) == 0),
            7 => JsonNode.Parse("""{"":null,"a":[{}]}"""),
            8 => new JsonArray([.. Enumerable.Range(0, random.Next(1, 200)).Select(_ => (JsonNode?)JsonValue.Create(Whole()))]),
            9 => Nested(random.Next(1, 60)),
            _ => JsonValue.Create(Date()),
        };

    private static JsonNode Nested(int levels) => levels == 0 ? new JsonArray() : new JsonArray(Nested(levels - 1));
}
