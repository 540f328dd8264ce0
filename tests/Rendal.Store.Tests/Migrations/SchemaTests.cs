namespace Rendal.Store.Tests.Migrations;

public class SchemaTests(Postgres postgres)
{
    /// <summary>Tables that stand above the books.</summary>
    private static readonly string[] AboveBooks = ["book", "person", "schemaversions"];

    [Fact]
    public async Task Every_table_of_the_job_has_the_book_first_in_its_key()
    {
        await using var command = postgres.Source.CreateCommand(
            """
            select c.relname, coalesce((
                select a.attname from pg_index i join pg_attribute a on a.attrelid = i.indrelid and a.attnum = i.indkey[0]
                where i.indrelid = c.oid and i.indisprimary), 'no key')
            from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind = 'r'
            """);
        await using var reader = await command.ExecuteReaderAsync(TestContext.Current.CancellationToken);
        var firsts = new Dictionary<string, string>();
        while (await reader.ReadAsync(TestContext.Current.CancellationToken))
        {
            firsts.Add(reader.GetString(0), reader.GetString(1));
        }

        Assert.True(firsts.Count > 12, "the schema was looked at");
        Assert.All(firsts.Where(f => !AboveBooks.Contains(f.Key)), f => Assert.Equal("book_id", f.Value));
    }

    [Fact]
    public async Task A_proof_that_does_not_close_cannot_be_stored()
    {
        var book = await postgres.NewBookAsync();
        var round = await book.PreparedAsync("AB01");
        await using var command = postgres.Source.CreateCommand("update round_proof set parcels = parcels - 0.01 where book_id = $1 and round_id = $2");
        command.Parameters.Add(new() { Value = book.Id });
        command.Parameters.Add(new() { Value = round.Round });
        var refused = await Assert.ThrowsAsync<Npgsql.PostgresException>(() => command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken));
        Assert.Equal("23514", refused.SqlState);
    }
}
