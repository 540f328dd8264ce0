using Npgsql;
using Rendal.Store.Migrations;

namespace Rendal.Store.Tests.Migrations;

/// <summary>What the role that Rendal works as may do: its work, and not to take the record of what went out away.</summary>
public sealed class RightsTests(Postgres postgres)
{
    [Theory]
    [InlineData("update message set subject = 'another'")]
    [InlineData("delete from message")]
    [InlineData("truncate message cascade")]
    [InlineData("update letter set name = 'another'")]
    [InlineData("delete from letter")]
    [InlineData("update returned_mail set reason = 'another'")]
    [InlineData("delete from returned_mail")]
    [InlineData("update dispatch_note set text = 'another'")]
    [InlineData("delete from dispatch_note")]
    [InlineData("update delivery_attempt set started_at = now()")]
    [InlineData("delete from delivery_attempt")]
    [InlineData("alter table message disable trigger message_stays")]
    [InlineData("drop trigger message_stays on message")]
    [InlineData("alter table delivery_attempt disable trigger all")]
    [InlineData("drop table message")]
    [InlineData("create or replace function record_stays() returns trigger language plpgsql as 'begin return new; end'")]
    [InlineData("set session_replication_role = replica")]
    [InlineData("set role rendal")]
    [InlineData("delete from schemaversions")]
    public async Task The_application_can_neither_alter_the_record_nor_what_keeps_it(string sql)
    {
        await using var command = postgres.Source.CreateCommand(sql);
        var refused = await Assert.ThrowsAsync<PostgresException>(() =>
            command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken)
        );
        Assert.Equal(PostgresErrorCodes.InsufficientPrivilege, refused.SqlState);
    }

    [Fact]
    public async Task A_database_tells_whether_its_record_is_out_of_reach()
    {
        var access = await postgres.NewAccessAsync();
        Assert.True(await Rights.ReachTheRecordAsync(access.Owner));
        Assert.False(await Rights.ReachTheRecordAsync(access.Application));
    }

    [Fact]
    public async Task Who_owns_the_tables_and_works_with_them_as_well_can_take_rows_in()
    {
        var access = await postgres.NewAccessAsync();
        await using var source = NpgsqlDataSource.Create(access.Owner);
        var book = await Postgres.NewBookAsync(source);
        await book.PreparedAsync("AB01");
        Assert.Single(await book.Ledger.RowsAsync(1, TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task A_table_that_a_later_version_brings_is_the_applications_to_work_with()
    {
        var access = await postgres.NewAccessAsync();
        await using (var owner = NpgsqlDataSource.Create(access.Owner))
        await using (var make = owner.CreateCommand("create table later (book_id bigint primary key)"))
        {
            await make.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
        }

        await Schema.UpgradeAsync(access);
        await using var source = NpgsqlDataSource.Create(access.Application);
        await using var add = source.CreateCommand("insert into later values (1)");
        Assert.Equal(1, await add.ExecuteNonQueryAsync(TestContext.Current.CancellationToken));
    }
}
