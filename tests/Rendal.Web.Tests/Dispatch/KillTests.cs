using Microsoft.Extensions.DependencyInjection;
using Rendal.Trials;
using Rendal.Web.Hosting;

namespace Rendal.Web.Tests.Dispatch;

/// <summary>
/// Workers that are killed in the middle of sending. The whole of it, with a hundred kills, is <c>./rendal bench --kill</c>.
/// </summary>
public sealed class KillTests(KillTests.Sendless rendal) : IClassFixture<KillTests.Sendless>
{
    [Theory]
    [InlineData(1)]
    [InlineData(3)]
    public async Task Workers_killed_while_they_send_send_nothing_twice_and_lose_nothing(int workers)
    {
        var services = rendal.Running.App.Services;
        var result = await new KillTrial(services, services.GetRequiredService<HostParts>(), new Random(workers)).RunAsync(
            60,
            workers,
            kills: 4,
            TestContext.Current.CancellationToken
        );
        Assert.Equal(
            (60, 0, 0, 0, 0),
            (result.Sent + result.Unsure + result.SetAside, result.Elsewhere, result.Twice, result.Missing, result.UnsureNeverThere)
        );
        Assert.True(result.Kills > 0, "The round was through before anything was killed.");
        Assert.InRange(result.Unsure, 0, 2 * result.Kills);
    }

    /// <summary>A Rendal that sends nothing itself, with a postroom.</summary>
    public sealed class Sendless : IAsyncLifetime
    {
        public RunningRendal Running { get; } = new(sends: false);

        public ValueTask InitializeAsync() => Running.InitializeAsync();

        public ValueTask DisposeAsync() => Running.DisposeAsync();
    }
}
