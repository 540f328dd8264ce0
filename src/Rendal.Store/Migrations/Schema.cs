using DbUp;
using DbUp.Engine.Output;
using Npgsql;
using Rendal.Store.Cluster;

namespace Rendal.Store.Migrations;

/// <summary>Brings the database's schema up to this version.</summary>
public static class Schema
{
    /// <summary>
    /// Runs the scripts that this database has not had yet, in order of their names, each in a transaction, as the owner, and gives the
    /// application's role its rights. Several programs may do so at once.
    /// </summary>
    /// <exception cref="InvalidOperationException">A script failed; the message says which and why.</exception>
    /// <exception cref="Npgsql.PostgresException">The rights could not be given.</exception>
    public static async Task UpgradeAsync(DatabaseAccess access)
    {
        // What is years old takes minutes to bring up to date.
        var owner = $"{access.Owner};Command Timeout=0";

        // Of several programs that start at once one brings it up to date, and the others wait and find it so.
        await using var source = NpgsqlDataSource.Create($"{owner};Pooling=false");
        await using var turn = await source.OpenConnectionAsync();
        await turn.Sql("select pg_advisory_lock(hashtext('schema'))").RunAsync(CancellationToken.None);
        var upgrade = DeployChanges
            .To.PostgresqlDatabase(owner)
            .WithScriptsEmbeddedInAssembly(typeof(Schema).Assembly)
            .WithTransactionPerScript()
            .WithVariablesDisabled()
            .LogTo(new NoOpUpgradeLog())
            .Build();
        var result = upgrade.PerformUpgrade();
        if (!result.Successful)
        {
            throw new InvalidOperationException(
                $"The database could not be brought up to date by {result.ErrorScript?.Name ?? "its scripts"}: {result.Error.Message}",
                result.Error
            );
        }

        await Rights.GiveAsync(access);
    }
}
