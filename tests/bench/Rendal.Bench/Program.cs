using Rendal.Bench;

if (args is [IntakeBench.TakeIn, var database, var before, var file])
{
    await IntakeBench.TakeInAsync(database, before, file);
    return 0;
}

if (args is [KillBench.Option])
{
    return await KillBench.RunAsync();
}

if (args is [HostileBench.Option])
{
    return await HostileBench.RunAsync();
}

if (args is [FuzzBench.Option, .. { Length: <= 1 } count])
{
    return await FuzzBench.RunAsync(count.FirstOrDefault());
}

// Measures Rendal and its yardsticks in the same run on the same machine; only ratios are worth comparing.
var all = new Dictionary<string, Func<Task<IReadOnlyList<Measurement>>>>
{
    ["grouping"] = () => Task.FromResult(GroupingBench.Run()),
    ["documents"] = () => Task.FromResult(DocumentsBench.Run()),
    ["intake"] = IntakeBench.RunAsync,
    ["round"] = RoundBench.RunAsync,
    ["sending"] = SendingBench.RunAsync,
    ["enclosures"] = () => Task.FromResult(EnclosuresBench.Run()),
    ["postroom"] = () => Task.FromResult(PostroomBench.Run()),
};
if (args.FirstOrDefault(a => a is not ("history" or "recognition") && !all.ContainsKey(a)) is { } unknown)
{
    Console.Error.WriteLine(
        $"rendal: “{unknown}” is nothing that is measured; there are {string.Join(", ", all.Keys)}, recognition, history."
    );
    return 2;
}

const string Page = "docs/benchmarks.md";
const string History = "history";
const string AtSight = "recognition";
var measured = new List<Measurement>();
foreach (var (name, run) in all.Where(b => args.Length == 0 || args.Contains(b.Key)))
{
    Console.Error.WriteLine($"Measuring {name} …");
    measured.AddRange(await run());
}

if (measured.Count > 0)
{
    var table = Report.Table(measured);
    Console.WriteLine(table);
    if (args.Length == 0)
    {
        await File.WriteAllTextAsync(Page, Report.Page(table));
    }
}

if (args.Length == 0 || args.Contains(AtSight))
{
    Console.Error.WriteLine($"Measuring {AtSight} …");
    var table = Report.Table(RecognitionBench.Run());
    Console.WriteLine(table);
    await File.WriteAllTextAsync(Page, Report.WithRecognition(await File.ReadAllTextAsync(Page), table));
}

if (args.Length == 0 || args.Contains(History))
{
    Console.Error.WriteLine($"Measuring {History} …");
    var table = Report.Table(await HistoryBench.RunAsync());
    Console.WriteLine(table);
    await File.WriteAllTextAsync(Page, Report.WithHistory(await File.ReadAllTextAsync(Page), table));
}

return 0;
