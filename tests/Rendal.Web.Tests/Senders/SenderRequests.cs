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
