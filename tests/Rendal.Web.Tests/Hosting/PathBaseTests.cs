using System.Net;
using System.Net.Http.Json;

namespace Rendal.Web.Tests.Hosting;

/// <summary>Below a path of a host that it shares, Rendal is what it is at a host of its own.</summary>
public sealed class PathBaseTests(PathBaseTests.BelowAPath fixture) : IClassFixture<PathBaseTests.BelowAPath>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData("")]
    [InlineData("/")]
    [InlineData("/books/1/today")]
    public async Task Its_pages_say_where_everything_is(string path)
    {
        using var browser = fixture.Rendal.Browser();
        var page = await browser.GetStringAsync($"/firm/rendal{path}", Cancel);
        Assert.Contains("<base href=\"/firm/rendal/\" />", page, StringComparison.Ordinal);
        Assert.Equal("let one = 1;", await browser.GetStringAsync("/firm/rendal/assets/one.js", Cancel));
    }

    [Fact]
    public async Task Its_cookies_are_for_it_alone_and_go_over_TLS_where_the_proxy_has_that()
    {
        using var browser = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = fixture.Rendal.Address };
        browser.DefaultRequestHeaders.Add("X-Rendal", "1");
        browser.DefaultRequestHeaders.Add("X-Forwarded-Proto", "https");
        using var first = await browser.PostAsJsonAsync(
            "/firm/rendal/api/first-run",
            new
            {
                key = RunningRendal.FirstRunKey,
                name = "odile",
                password = RunningRendal.Password,
                book = RunningRendal.Firm("Tarnbrook Linen Hire"),
            },
            Cancel
        );
        Assert.Equal(HttpStatusCode.NoContent, first.StatusCode);
        var cookies = first.Headers.GetValues("Set-Cookie").ToList();
        Assert.Equal(2, cookies.Count);
        Assert.All(cookies, c => Assert.Contains("; path=/firm/rendal", c, StringComparison.Ordinal));
        Assert.All(cookies, c => Assert.Contains("; secure", c, StringComparison.Ordinal));
    }

    /// <summary>Rendal below a path, with a page of its own.</summary>
    public sealed class BelowAPath : IAsyncLifetime
    {
        private readonly string pages = Directory.CreateTempSubdirectory("rendal-pages-").FullName;

        public BelowAPath() =>
            Rendal = new(sends: false)
            {
                PathBase = "/firm/rendal",
                WebRoot = pages,
                IsNew = true,
                Proxies = ["127.0.0.1"],
            };

        public RunningRendal Rendal { get; }

        public async ValueTask InitializeAsync()
        {
            Directory.CreateDirectory(Path.Combine(pages, "assets"));
            await File.WriteAllTextAsync(
                Path.Combine(pages, "index.html"),
                "<!doctype html><base href=\"/\" /><script type=\"module\" src=\"./assets/one.js\"></script>"
            );
            await File.WriteAllTextAsync(Path.Combine(pages, "assets", "one.js"), "let one = 1;");
            await Rendal.InitializeAsync();
        }

        public async ValueTask DisposeAsync()
        {
            await Rendal.DisposeAsync();
            Directory.Delete(pages, recursive: true);
        }
    }
}
