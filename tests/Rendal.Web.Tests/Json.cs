using System.Net.Http.Json;
using System.Text.Json;

namespace Rendal.Web.Tests;

/// <summary>Short ways to speak with the API and read its answers.</summary>
internal static class Json
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public static async Task<JsonElement> GetJsonAsync(this HttpClient browser, string path) =>
        await (await browser.GetAsync(path, Cancel)).JsonAsync();

    public static async Task<JsonElement> PostJsonAsync(this HttpClient browser, string path, object body) =>
        await (await browser.PostAsJsonAsync(path, body, Cancel)).JsonAsync();

    /// <summary>The answer's content; fails with the server's words where it is a refusal.</summary>
    public static async Task<JsonElement> JsonAsync(this HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync(Cancel);
        Assert.True(answer.IsSuccessStatusCode, $"{(int)answer.StatusCode}: {text}");
        return text.Length == 0 ? default : JsonDocument.Parse(text).RootElement;
    }

    /// <summary>What a refusal says to the person.</summary>
    public static async Task<string> DetailAsync(this HttpResponseMessage answer) =>
        (await answer.Content.ReadFromJsonAsync<JsonElement>(Cancel)).GetProperty("detail").GetString()!;

    public static long Id(this JsonElement element) => element.GetProperty("id").GetInt64();

    /// <summary>The parcel of a customer in the list of a round.</summary>
    public static JsonElement ParcelOf(this JsonElement round, string customer) =>
        round.List("parcels").Single(p => p.Text("customer") == customer);

    public static long Number(this JsonElement element, string name) => element.GetProperty(name).GetInt64();

    public static string Text(this JsonElement element, string name) => element.GetProperty(name).GetString()!;

    public static IEnumerable<JsonElement> List(this JsonElement element, string name) => element.GetProperty(name).EnumerateArray();
}
