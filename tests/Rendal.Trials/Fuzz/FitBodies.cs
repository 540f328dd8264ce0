using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Rendal.Trials.Fuzz;

/// <summary>
/// Bodies that a book takes, to be broken at a place or two: what is behind the first check is only reached by what passes it.
/// </summary>
internal sealed class FitBodies
{
    private const string Pixel = "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==";

    private readonly Dictionary<string, JsonNode> bodies;

    private FitBodies(Dictionary<string, JsonNode> bodies) => this.bodies = bodies;

    /// <summary>Collects them from a book with a ledger, in which AB01 owes something, and a round.</summary>
    public static async Task<FitBodies> OfAsync(HttpClient browser, long book, CancellationToken cancel)
    {
        var at = $"/api/books/{book}";
        async Task<JsonNode> GetAsync(string path) =>
            await browser.GetFromJsonAsync<JsonNode>(at + path, cancel) ?? throw new InvalidOperationException($"{path} says nothing.");
        var round = await GetAsync($"/rounds/{(await GetAsync("/rounds"))["rounds"]![0]!["id"]}");
        var wording = (await GetAsync("/wordings"))["wordings"]![0]!;
        var layout = (await GetAsync("/layouts/ready-made"))[0]!["layout"]!;
        var intake = (await GetAsync("/intakes"))[0]!["id"]!;
        var sender = (await GetAsync("/senders"))[0]!;
        sender["password"] = "practice";
        var item = (await GetAsync($"/rounds/{round["id"]}/accounts/AB01"))["items"]![0]!["key"]!;
        var card = await GetAsync("/customers/card?key=AB01");
        var settings = round["settings"]!;
        var release = JsonNode.Parse("""{"parcels":null,"seen":"none","at":null,"channel":"mail"}""")!;
        var firm = JsonNode.Parse(
            """{"name":"Fuzz","currency":"GBP","addressLines":["14 Tenter Lane"],"contactLines":[],"paymentLines":["By transfer"],"footLines":[],"timeZone":"Europe/London"}"""
        )!;
        var all = new Dictionary<string, JsonNode>(StringComparer.Ordinal)
        {
            ["POST /api/books"] = firm,
            ["PUT /firm"] = firm,
            ["PUT /rules"] = (await GetAsync(""))["rules"]!,
            ["PUT /intakes/{id}/reading"] = await GetAsync($"/intakes/{intake}/reading"),
            ["PUT /customers/card"] = card,
            ["POST /corrections/value"] = JsonNode.Parse(
                $$"""{"intake":{{intake}},"row":2,"column":1,"becomes":"Inn at Kell","everywhere":false}"""
            )!,
            ["POST /corrections/row"] = JsonNode.Parse($$"""{"intake":{{intake}},"row":3,"reason":"twice"}""")!,
            ["POST /corrections/customers"] = JsonNode.Parse("""{"customer":"BE02","with":"AB01"}""")!,
            ["POST /wordings"] = wording,
            ["PUT /wordings/{id}"] = wording,
            ["POST /wordings/use"] = JsonNode.Parse($$"""{"purpose":"statement","language":"de","id":{{wording["id"]}}}""")!,
            ["POST /pictures"] = JsonNode.Parse($$"""{"bytes":"{{Pixel}}"}""")!,
            ["POST /layouts"] = layout,
            ["POST /layouts/preview"] = layout,
            ["PUT /layouts/{id}"] = new JsonObject { ["version"] = 1, ["layout"] = layout.DeepClone() },
            ["POST /layouts/use"] = JsonNode.Parse("""{"purpose":"statement","language":"fr","id":null}""")!,
            ["POST /senders"] = sender,
            ["PUT /senders/{id}"] = sender,
            ["POST /senders/{id}/try"] = sender,
            ["PUT /senders/{id}/replies"] = JsonNode.Parse(
                """{"host":"127.0.0.1","port":1,"security":"none","userName":"book","password":"practice"}"""
            )!,
            ["POST /rounds"] = JsonNode.Parse("""{"name":"October","asOf":"2026-10-31","about":"statements"}""")!,
            ["PUT /rounds/{id}"] = settings,
            ["POST /rounds/{id}/count"] = settings,
            ["POST /rounds/{id}/decisions"] = JsonNode.Parse("""{"customers":["BE02"],"decision":"held","reason":"asked to"}""")!,
            ["POST /rounds/{id}/items"] = JsonNode.Parse(
                $$"""{"customer":"AB01","item":{{item.ToJsonString()}},"decision":"out","reason":"asked to"}"""
            )!,
            ["POST /rounds/{id}/summary"] = JsonNode.Parse("""{"parcels":null}""")!,
            ["POST /rounds/{id}/release"] = release,
            ["POST /rounds/{id}/choices"] = JsonNode.Parse("""{"name":"usual"}""")!,
            ["POST /items/holds"] = JsonNode.Parse(
                $$"""{"customer":"AB01","item":{{item.ToJsonString()}},"note":"asked to","until":null}"""
            )!,
            ["POST /items/holds/end"] = JsonNode.Parse($$"""{"item":{{item.ToJsonString()}}}""")!,
            ["POST /items/settlements"] = JsonNode.Parse(
                $$"""{"customer":"AB01","credit":{{item.ToJsonString()}},"charge":null,"amount":1}"""
            )!,
            ["POST /people"] = JsonNode.Parse("""{"name":"somebody"}""")!,
            ["POST /dispatch/{parcel}/notes"] = JsonNode.Parse("""{"text":"called"}""")!,
            ["POST /postroom/drills"] = JsonNode.Parse("""{"step":"end","act":"answer","answer":"451 later","to":"","left":1}""")!,
        };
        return new FitBodies(
            all.ToDictionary(
                b =>
                    b.Key.StartsWith("POST /api", StringComparison.Ordinal)
                        ? b.Key
                        : b.Key.Replace(" /", " /api/books/{book}/", StringComparison.Ordinal),
                b => b.Value,
                StringComparer.Ordinal
            )
        );
    }

    /// <summary>A body that fits; null where none is known.</summary>
    public JsonNode? For(ApiOperation operation) => bodies.GetValueOrDefault(operation.ToString())?.DeepClone();
}
