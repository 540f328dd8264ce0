using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;

namespace Rendal.Trials.Hostile;

/// <summary>Gives hostile files in as a person would: looks at them, and keeps what can be kept.</summary>
/// <param name="browser">Somebody who is signed in.</param>
/// <param name="api">The address of their book.</param>
internal sealed class HostileTrial(HttpClient browser, string api)
{
    /// <summary>Gives one in.</summary>
    /// <returns>The status of the last answer, and what it says.</returns>
    public async Task<(HttpStatusCode Status, string Says)> GiveAsync(HostileFile file, CancellationToken cancel) =>
        file.Place switch
        {
            HostilePlace.Ledger or HostilePlace.Customers => await TakeInAsync(file, cancel),
            HostilePlace.Letter => await UploadAsync("/layouts/letter", file, cancel),
            HostilePlace.Returned => await UploadAsync("/returned", file, cancel, "files"),
            HostilePlace.Wording => await WordAsync(Encoding.UTF8.GetString(file.Make()), cancel),
            _ => await LayOutAsync(file.Make(), cancel),
        };

    private async Task<(HttpStatusCode, string)> TakeInAsync(HostileFile file, CancellationToken cancel)
    {
        var begun = await UploadAsync($"/intakes?kind={(file.Place == HostilePlace.Ledger ? "ledger" : "customers")}", file, cancel);
        if (begun.Status != HttpStatusCode.OK)
        {
            return begun;
        }

        var intake = JsonNode.Parse(begun.Says)!["id"]!;
        var looked = await AnswerAsync(browser.GetAsync($"{api}/intakes/{intake}", cancel), cancel);
        if (looked.Status != HttpStatusCode.OK)
        {
            return looked;
        }

        var shown = await AnswerAsync(browser.GetAsync($"{api}/intakes/{intake}/rows?from=1&count=500", cancel), cancel);
        if (shown.Status != HttpStatusCode.OK)
        {
            return shown;
        }

        // What it lacks, and what cannot be kept, is said; that is as good as a refusal.
        var kept = await AnswerAsync(browser.PostAsJsonAsync($"{api}/intakes/{intake}/keep?sure=true", new { }, cancel), cancel);
        return kept.Status is HttpStatusCode.Conflict or HttpStatusCode.UnprocessableEntity ? (looked.Status, looked.Says) : kept;
    }

    private async Task<(HttpStatusCode Status, string Says)> UploadAsync(
        string path,
        HostileFile file,
        CancellationToken cancel,
        string field = "file"
    )
    {
        using var form = new MultipartFormDataContent();
        var content = new ByteArrayContent(file.Make());
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        form.Add(content, field, file.FileName);
        return await AnswerAsync(browser.PostAsync(api + path, form, cancel), cancel);
    }

    private async Task<(HttpStatusCode, string)> WordAsync(string body, CancellationToken cancel)
    {
        var added = await AnswerAsync(
            browser.PostAsJsonAsync(
                $"{api}/wordings",
                new
                {
                    name = "Hostile",
                    language = "en",
                    subject = "{",
                    body,
                    version = 0,
                },
                cancel
            ),
            cancel
        );
        return added.Status == HttpStatusCode.OK ? await AnswerAsync(browser.GetAsync($"{api}/wordings", cancel), cancel) : added;
    }

    private async Task<(HttpStatusCode, string)> LayOutAsync(byte[] logo, CancellationToken cancel)
    {
        var ready = await browser.GetFromJsonAsync<JsonArray>($"{api}/layouts/ready-made", cancel);
        var layout = ready![0]!["layout"]!;
        var letterhead = layout["parts"]!.AsArray().First(p => (string?)p!["part"] == "letterhead")!;
        letterhead["logo"] = Convert.ToBase64String(logo);
        return await AnswerAsync(browser.PostAsJsonAsync($"{api}/layouts", layout, cancel), cancel);
    }

    private static async Task<(HttpStatusCode Status, string Says)> AnswerAsync(Task<HttpResponseMessage> asking, CancellationToken cancel)
    {
        using var answer = await asking;
        var text = await answer.Content.ReadAsStringAsync(cancel);
        return (answer.StatusCode, answer.IsSuccessStatusCode ? text : (string?)JsonNode.Parse(text)?["detail"] ?? text);
    }
}
