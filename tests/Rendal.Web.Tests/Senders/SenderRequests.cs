using System.Net.Http.Json;

namespace Rendal.Web.Tests.Senders;

/// <summary>What is asked of the endpoints of senders in several tests.</summary>
internal static class SenderRequests
{
    /// <summary>Puts the first sender of a book to another account.</summary>
    public static async Task<HttpResponseMessage> PutAsync(
        Desk desk,
        string address,
        string host,
        int port,
        string security,
        string? password,
        string userName = "accounts"
    )
    {
        var sender = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().First().Id();
        return await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/senders/{sender}",
            Account(address, host, port, security, password, userName),
            TestContext.Current.CancellationToken
        );
    }

    /// <summary>Has the postroom take no larger message from a book than one of so many bytes.</summary>
    public static async Task LimitMessagesAsync(Desk desk, int largestBytes)
    {
        var practice = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single();
        var port = practice.GetProperty("port").GetInt32();
        using var answer = await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/senders/{practice.Id()}",
            Account("accounts@practice.example", "127.0.0.1", port, "none", null, $"book-{desk.Book}", largestBytes: largestBytes),
            TestContext.Current.CancellationToken
        );
        await answer.JsonAsync();
    }

    /// <summary>A sender as it is sent to the server.</summary>
    public static object Account(
        string address,
        string host,
        int port,
        string security,
        string? password,
        string userName = "accounts",
        string replyTo = "",
        bool copyToSelf = false,
        int? aMinute = null,
        int? aDay = null,
        int? largestBytes = null,
        int[]? pauseMinutes = null
    ) =>
        new
        {
            name = "Tarnbrook",
            address,
            replyTo,
            copyToSelf,
            host,
            port,
            security,
            userName,
            password,
            aMinute,
            aDay,
            largestBytes,
            pauseMinutes,
        };
}
