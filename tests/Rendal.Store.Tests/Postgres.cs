using System.Collections.Concurrent;
using Npgsql;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Store.Books;
using Rendal.Store.Cluster;
using Rendal.Store.Migrations;
using Rendal.Store.People;

[assembly: AssemblyFixture(typeof(Rendal.Store.Tests.Postgres))]

namespace Rendal.Store.Tests;

/// <summary>A real PostgreSQL for all tests of this project, with the schema in it; thrown away afterwards.</summary>
public sealed class Postgres : IAsyncLifetime
{
    private const string Template = "rendal-template";

    private readonly string folder = Directory.CreateTempSubdirectory("rendal-store-").FullName;
    private readonly ConcurrentDictionary<NpgsqlDataSource, DatabaseAccess> made = [];
    private LocalCluster? cluster;

    public NpgsqlDataSource Source { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        cluster = await LocalCluster.StartAsync(folder, forTests: true, CancellationToken.None);
        var template = await cluster.DatabaseAsync(Template, CancellationToken.None);

        // A database to which anybody is connected cannot be copied.
        await Schema.UpgradeAsync(new DatabaseAccess(template.Owner + ";Pooling=false", template.Application + ";Pooling=false"));
        Source = await NewDatabaseAsync();
    }

    /// <summary>A database with the schema in it and nothing else, as the role that Rendal works as.</summary>
    public async Task<NpgsqlDataSource> NewDatabaseAsync()
    {
        var access = await NewAccessAsync();
        var source = Database.Source(access.Application);
        made[source] = access;
        return source;
    }

    /// <summary>How a new database with the schema in it is reached.</summary>
    public async Task<DatabaseAccess> NewAccessAsync()
    {
        // To copy one is quicker than to make the schema anew for each test.
        var name = $"rendal-{Guid.NewGuid():N}";
        await using (var server = NpgsqlDataSource.Create((await cluster!.DatabaseAsync("postgres", CancellationToken.None)).Owner))
        await using (var copy = server.CreateCommand($"create database \"{name}\" template \"{Template}\""))
        {
            await copy.ExecuteNonQueryAsync();
        }

        return await cluster.DatabaseAsync(name, CancellationToken.None);
    }

    /// <summary>How a new database with nothing in it is reached.</summary>
    public Task<DatabaseAccess> NewEmptyAccessAsync() => cluster!.DatabaseAsync($"rendal-{Guid.NewGuid():N}", CancellationToken.None);

    /// <summary>The same database as the role that its tables belong to.</summary>
    public NpgsqlDataSource OwnerOf(NpgsqlDataSource source) => NpgsqlDataSource.Create(made[source].Owner);

    /// <summary>A database as it was when these scripts alone had run, as its owner.</summary>
    public async Task<NpgsqlDataSource> NewDatabaseAsync(params string[] scripts)
    {
        var source = NpgsqlDataSource.Create((await cluster!.DatabaseAsync($"rendal-{Guid.NewGuid():N}", CancellationToken.None)).Owner);
        foreach (var script in scripts)
        {
            await RunAsync(source, script);
        }

        return source;
    }

    /// <summary>Runs one script of the schema.</summary>
    public static async Task RunAsync(NpgsqlDataSource source, string script)
    {
        using var text = new StreamReader(typeof(Schema).Assembly.GetManifestResourceStream($"Rendal.Store.Migrations.{script}")!);
        await using var command = source.CreateCommand(await text.ReadToEndAsync());
        await command.ExecuteNonQueryAsync();
    }

    /// <summary>
    /// Runs the scripts of the schema that follow one, as an upgrade of that version does; those before <paramref name="next"/> where one
    /// is named.
    /// </summary>
    public static async Task RunAllAfterAsync(NpgsqlDataSource source, string last, string? next = null)
    {
        const string folder = "Rendal.Store.Migrations.";
        var names = typeof(Schema)
            .Assembly.GetManifestResourceNames()
            .Where(n => n.StartsWith(folder, StringComparison.Ordinal))
            .Select(n => n[folder.Length..])
            .Where(n => string.CompareOrdinal(n, last) > 0 && (next is null || string.CompareOrdinal(n, next) < 0));
        foreach (var script in names.Order(StringComparer.Ordinal))
        {
            await RunAsync(source, script);
        }
    }

    /// <summary>A book of its own for one test, in the database that the tests share.</summary>
    public Task<TestBook> NewBookAsync() => NewBookAsync(Source);

    /// <summary>A book in a database.</summary>
    public static async Task<TestBook> NewBookAsync(NpgsqlDataSource source)
    {
        var cancel = TestContext.Current.CancellationToken;
        var person = await new PersonStore(source).AddAsync($"person-{Guid.NewGuid():N}", "hash", cancel);
        var book = await new BookStore(source).MakeAsync(
            new Firm("Tarnbrook Linen Hire", [], [], []),
            Currency.Of("GBP"),
            "Europe/London",
            person,
            cancel
        );
        return new TestBook(source, book, person);
    }

    public async ValueTask DisposeAsync()
    {
        // What was started is stopped, also when the rest of the beginning failed.
        await (Source?.DisposeAsync() ?? ValueTask.CompletedTask);
        await (cluster?.DisposeAsync() ?? ValueTask.CompletedTask);
        Directory.Delete(folder, recursive: true);
    }
}
