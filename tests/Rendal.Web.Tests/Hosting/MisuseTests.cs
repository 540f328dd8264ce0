using Rendal.Trials;

namespace Rendal.Web.Tests.Hosting;

public class MisuseTests
{
    [Fact]
    public async Task After_a_week_of_misuse_each_parcel_can_be_led_on_and_the_log_is_true()
    {
        var seed = Environment.TickCount;
        await using var trial = new MisuseTrial(new Random(seed), FreePort.Find);
        var result = await trial.RunAsync(TestContext.Current.CancellationToken);
        Assert.True(result.Untrue.Count == 0, $"seed {seed}: {string.Join("; ", result.Untrue)}");
        Assert.Equal(Enum.GetValues<Misuse>().Length * MisuseTrial.Customers, result.Parcels);
        Assert.InRange(result.Standings.GetValueOrDefault("sent"), result.Parcels / 2, result.Parcels);
        Assert.InRange(result.MostAttempts, 1, 10);
        TestContext.Current.SendDiagnosticMessage($"{string.Join(", ", result.Standings)}; most tries {result.MostAttempts}");
    }
}
