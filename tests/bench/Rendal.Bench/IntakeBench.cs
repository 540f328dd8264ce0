using System.Diagnostics;
using System.Globalization;
using System.Text;
using ExcelDataReader;
using Npgsql;
using Rendal.Core.Intake;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Files;
using Rendal.Store.Books;
using Rendal.Store.Cluster;
using Rendal.Store.Customers;
using Rendal.Store.Files;
using Rendal.Store.Intake;
using Rendal.Store.Migrations;
using Rendal.Store.People;

namespace Rendal.Bench;

/// <summary>
/// Taking files in, from the file on disk to committed ledger rows with the original kept beside them, each in a process of its own so
/// that its memory can be told; and searching the customers that came of it.
/// </summary>
internal static class IntakeBench
{
    /// <summary>The word by which this program is started to take one file in.</summary>
    public const string TakeIn = "take-in-one-file";

    private const int CsvRows = 1_000_000;
    private const int XlsxRows = 100_000;
    private const int Customers = 50_000;
    private const int Repeats = 5;
    private const int TakenInBefore = 3;

    public static async Task<IReadOnlyList<Measurement>> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("rendal-bench-").FullName;
        try
        {
            await using var cluster = await LocalCluster.StartAsync(folder, forTests: false, CancellationToken.None);
            var csv = Path.Combine(folder, "ledger.csv");
            var xlsx = Path.Combine(folder, "ledger.xlsx");
            LedgerFiles.WriteCsv(csv, CsvRows, Customers);
            LedgerFiles.WriteXlsx(xlsx, XlsxRows, Customers / 10);
            var small = Path.Combine(folder, "small.csv");
            LedgerFiles.WriteCsv(small, XlsxRows, Customers / 10);
            var (takenCsv, copied, memoryCsv, last) = await AgainstAsync(cluster, small, csv, database => Copy(database.Owner, csv));
            var (takenXlsx, read, memoryXlsx, _) = await AgainstAsync(cluster, xlsx, xlsx, _ => ReadEveryCell(xlsx));
            return
            [
                new Measurement(
                    $"{CsvRows:N0} CSV rows, the file stored, read and committed as ledger rows",
                    $"{takenCsv:0.0} s",
                    $"\\copy of the same file into text columns {copied:0.0} s",
                    takenCsv / copied,
                    "≤ 3"
                ),
                new Measurement("its memory at most", $"{memoryCsv:0} MB", "–", null, "≤ 400 MB"),
                new Measurement(
                    $"{XlsxRows:N0} XLSX rows, the same",
                    $"{takenXlsx:0.0} s",
                    $"ExcelDataReader reading every cell {read:0.0} s",
                    takenXlsx / read,
                    "≤ 1.5"
                ),
                new Measurement("its memory at most", $"{memoryXlsx:0} MB", "–", null, "≤ 400 MB"),
                Recognising(csv),
                await SearchAsync(last),
                await ChoosingBench.RunAsync(last.Application),
            ];
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>
    /// Takes one file in, in a process of its own: prints the seconds of each step and the most memory. Another file of the same kind is
    /// taken in a few times first, into other books, as a server that has run for a while has done: the runtime makes its code better the
    /// more often it has run.
    /// </summary>
    public static async Task TakeInAsync(string database, string before, string path)
    {
        await using var source = NpgsqlDataSource.Create(database);
        var person = await new PersonStore(source).AddAsync("bench", "hash", CancellationToken.None);
        for (var i = 0; i < TakenInBefore; i++)
        {
            await TakeInAsync(source, person, before);
        }

        var (seconds, rows) = await TakeInAsync(source, person, path);
        using var process = Process.GetCurrentProcess();
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{seconds} {process.PeakWorkingSet64 / 1e6} {rows}"));
    }

    private static async Task<(double Seconds, int Rows)> TakeInAsync(NpgsqlDataSource source, long person, string path)
    {
        var cancel = CancellationToken.None;
        var book = await new BookStore(source).MakeAsync(
            new Firm("Bench", [], [], []),
            Currency.Of("GBP"),
            "Europe/London",
            person,
            cancel
        );
        var watch = Stopwatch.StartNew();
        var files = new FileStore(source, book);
        var intakes = new IntakeStore(source, book);
        await using var content = File.OpenRead(path);
        var id = await intakes.BeginAsync(
            await files.StoreAsync(Path.GetFileName(path), content, cancel),
            IntakeKind.Ledger,
            ReadingChange.None,
            person,
            cancel
        );
        var stored = watch.Elapsed.TotalSeconds;
        var table = TableFile.Open(Path.GetFileName(path), () => File.OpenRead(path), FileOpening.Unsaid);
        var opened = watch.Elapsed.TotalSeconds;
        var settings = new ReadingSettings(Currency.Of("GBP"));
        var recognised = Recognition.Recognise(table, settings, ReadingChange.None)!;
        var known = watch.Elapsed.TotalSeconds;
        var reader = new LedgerReader(table, recognised, settings);
        await intakes.KeepAsync(
            id,
            reader,
            new HashSet<string>(),
            SavedReading.Of(recognised.Reading, ReadingChange.None),
            DateTimeOffset.UtcNow,
            cancel
        );
        var kept = watch.Elapsed.TotalSeconds;
        Console.Error.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"  stored {stored:0.0} s, opened {opened - stored:0.0} s, recognised {known - opened:0.0} s, kept {kept - known:0.0} s"
            )
        );
        return (kept, reader.RowsKept);
    }

    private static async Task<(double Taken, double Yardstick, double Memory, DatabaseAccess Database)> AgainstAsync(
        LocalCluster cluster,
        string before,
        string file,
        Func<DatabaseAccess, double> yardstick
    )
    {
        var taken = new List<double>();
        var other = new List<double>();
        var memory = 0d;
        DatabaseAccess database = null!;
        for (var i = 0; i < Repeats; i++)
        {
            database = await cluster.DatabaseAsync($"take-in-{Guid.NewGuid():N}", CancellationToken.None);
            await Schema.UpgradeAsync(database);
            var (seconds, peak) = InItsOwnProcess(database.Application, before, file);
            taken.Add(seconds);
            memory = Math.Max(memory, peak);
            other.Add(yardstick(database));
        }

        return (Rounds.Median(taken), Rounds.Median(other), memory, database);
    }

    private static (double Seconds, double Memory) InItsOwnProcess(string database, string before, string file)
    {
        var start = new ProcessStartInfo("dotnet", [typeof(IntakeBench).Assembly.Location, TakeIn, database, before, file])
        {
            RedirectStandardOutput = true,
        };

        // As the application itself is set.
        start.Environment["DOTNET_gcServer"] = "0";
        using var process = Process.Start(start)!;
        var words = process.StandardOutput.ReadToEnd().Split(' ');
        process.WaitForExit();
        return process.ExitCode == 0 && words.Length == 3
            ? (double.Parse(words[0], CultureInfo.InvariantCulture), double.Parse(words[1], CultureInfo.InvariantCulture))
            : throw new InvalidOperationException("Taking in did not come out right.");
    }

    /// <summary>Telling the columns apart, by the first rows; what they hold is checked while all are read.</summary>
    private static Measurement Recognising(string csv)
    {
        var table = TableFile.Open(Path.GetFileName(csv), () => File.OpenRead(csv), FileOpening.Unsaid);
        var taken = Enumerable
            .Range(0, Repeats)
            .Select(_ => Rounds.Seconds(() => Recognition.Outline(table, ReadingChange.None)) * 1000)
            .ToList();
        return new Measurement($"columns of {CsvRows:N0} rows told apart", $"{Rounds.Median(taken):0} ms", "–", null, "≤ 200 ms");
    }

    private static double Copy(string database, string csv)
    {
        using var connection = new NpgsqlConnection(database);
        connection.Open();
        using (
            var create = new NpgsqlCommand(
                $"create table yardstick ({string.Join(", ", Enumerable.Range(0, 12).Select(i => $"c{i} text"))})",
                connection
            )
        )
        {
            create.ExecuteNonQuery();
        }

        var to = new NpgsqlConnectionStringBuilder(database);
        return Rounds.Seconds(() =>
        {
            var start = new ProcessStartInfo(
                "psql",
                ["--no-psqlrc", "--quiet", "--set", "ON_ERROR_STOP=1", "--command", $"\\copy yardstick from '{csv}' csv header"]
            );
            (start.Environment["PGHOST"], start.Environment["PGPORT"], start.Environment["PGUSER"]) = (
                to.Host,
                to.Port.ToString(CultureInfo.InvariantCulture),
                to.Username
            );
            (start.Environment["PGPASSWORD"], start.Environment["PGDATABASE"]) = (to.Password, to.Database);
            using var psql = Process.Start(start)!;
            psql.WaitForExit();
            if (psql.ExitCode != 0)
            {
                throw new InvalidOperationException("The yardstick did not come out right.");
            }
        });
    }

    private static double ReadEveryCell(string xlsx)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        return Rounds.Seconds(() =>
        {
            using var file = File.OpenRead(xlsx);
            using var reader = ExcelReaderFactory.CreateReader(file);
            var cells = 0L;
            while (reader.Read())
            {
                for (var i = 0; i < reader.FieldCount; i++)
                {
                    cells += reader.GetValue(i) is null ? 0 : 1;
                }
            }

            if (cells < XlsxRows)
            {
                throw new InvalidOperationException("What was measured did not come out right.");
            }
        });
    }

    private static async Task<Measurement> SearchAsync(DatabaseAccess database)
    {
        await using (var owner = NpgsqlDataSource.Create(database.Owner))
        await using (var clean = owner.CreateCommand("vacuum analyze customer"))
        {
            await clean.ExecuteNonQueryAsync();
        }

        await using var source = NpgsqlDataSource.Create(database.Application);
        await using var first = source.CreateCommand("select max(id) from book");
        var customers = new CustomerStore(source, (long)(await first.ExecuteScalarAsync())!);
        var chance = new Random(20261031);
        var times = new List<double>();
        for (var i = 0; i < 200; i++)
        {
            var text = (i % 4) switch
            {
                0 => $"hotel{chance.Next(Customers)}",
                1 => $"number {chance.Next(100)}",
                2 => $"C{chance.Next(100):00}",
                _ => "",
            };
            var watch = Stopwatch.StartNew();
            await customers.SearchAsync(
                text,
                (CustomerOrder)(i % 3),
                false,
                text.Length == 0 ? chance.Next(Customers) : 0,
                100,
                CancellationToken.None
            );
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        times.Sort();
        return new Measurement(
            $"searching and paging {Customers:N0} customers, 95 of 100 within",
            $"{times[189]:0} ms",
            "–",
            null,
            "≤ 100 ms"
        );
    }
}
