using System.Globalization;
using System.Runtime.InteropServices;
using Rendal.Trials;
using Rendal.Web.Hosting;

namespace Rendal.Bench;

/// <summary>Rounds of 300 parcels whose workers are killed a hundred times in all, half with one worker and half with three.</summary>
internal static class KillBench
{
    public const string Option = "--kill";

    private const int Parcels = 300;
    private const int Kills = 100;

    /// <returns>0 where nothing arrived twice, nothing is missing, nothing stands elsewhere than it should, and nothing is unsure without
    /// need; else 1.</returns>
    public static async Task<int> RunAsync()
    {
        await using var rendal = await WholeRendal.StartAsync(Role.Web);
        var seed = Environment.TickCount;
        var trial = new KillTrial(rendal.App.Services, rendal.Parts, new Random(seed));
        var table =
            "| workers | parcels | kills | sent | unsure | set aside | elsewhere | twice | missing | unsure and never there |"
            + "\n| --- | --- | --- | --- | --- | --- | --- | --- | --- | --- |\n";
        var all = KillResult.Nothing;
        foreach (var workers in new[] { 1, 3 })
        {
            var result = KillResult.Nothing;
            while (result.Kills < Kills / 2)
            {
                Console.Error.WriteLine($"{workers} {(workers == 1 ? "worker" : "workers")}: {result.Kills} kills so far …");
                result += await trial.RunAsync(Parcels, workers, (Kills / 2) - result.Kills, CancellationToken.None);
            }

            table += string.Create(
                CultureInfo.InvariantCulture,
                $"| {workers} | {result.Parcels} | {result.Kills} | {result.Sent} | {result.Unsure} | {result.SetAside} |"
                    + $" {result.Elsewhere} | {result.Twice} | {result.Missing} | {result.UnsureNeverThere} |\n"
            );
            all += result;
        }

        Console.WriteLine(table);
        await File.WriteAllTextAsync("docs/killed-while-sending.md", Page(table, seed));
        return all is { Elsewhere: 0, Twice: 0, Missing: 0, UnsureNeverThere: 0 } ? 0 : 1;
    }

    private static string Page(string table, int seed) =>
        $"""
            # Killed while sending

            Written by `./rendal bench {Option}` on {DateTime.UtcNow:d MMMM yyyy}, {Environment.ProcessorCount} cores,
                {RuntimeInformation.FrameworkDescription}, moments drawn from seed {seed}.
            Workers in processes of their own are ended by SIGKILL at random moments and started again, until there were {Kills} kills;
            what the postroom has is then compared with what the dispatch log says.

            {table}
            *Set aside* counts parcels that a kill caught twice while their message was made: they wait for a person, with that reason,
            as does one whose making brings the program down. *Unsure
                and never there* counts parcels of which the server never had the end, and a person has to decide all the same.

            """;
}
