using CsCheck;

namespace Rendal.Store.Tests;

public class BinaryCopyTests(Postgres postgres)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static readonly Gen<decimal> Amounts = Gen.OneOf(
        Gen.Decimal,
        Gen.Select(Gen.Long, Gen.Int[0, 6])
            .Select((number, decimals) => new decimal((int)number, (int)(number >> 32), 0, number < 0, (byte)decimals)),
        Gen.OneOf([
            .. new[]
            {
                0m,
                0.00m,
                1m,
                -1m,
                0.1m,
                10_000m,
                9_999.9999m,
                0.0001m,
                100_000_000m,
                decimal.MaxValue,
                decimal.MinValue,
                0.0000000000000000000000000001m,
            }.Select(Gen.Const),
        ])
    );

    private static readonly Gen<string> Texts = Gen.OneOf(
        Gen.String[Gen.Char['\u0020', '\u007E'], 0, 12],
        Gen.OneOf([.. new[] { "", "Łabędź", "日本", "Zoë’s 🛏", "tab\tand\nline" }.Select(Gen.Const)])
    );

    [Fact]
    public async Task Every_value_comes_back_as_it_was()
    {
        var rows = Gen.Select(Amounts, Texts, Gen.Int[0, 3_652_058], Texts.Array[0, 4], Gen.Long, Gen.Int, Gen.Short)
            .Array[2_000]
            .Single();
        await using var connection = await postgres.Source.OpenConnectionAsync(Cancel);
        await using (
            var make = new Npgsql.NpgsqlCommand(
                "create temp table copied (at int, amount numeric, text text, day date, list text[], large bigint, number "
                    + "int, small smallint)",
                connection
            )
        )
        {
            await make.ExecuteNonQueryAsync(Cancel);
        }

        await using (var copy = await BinaryCopy.BeginAsync(connection, "copy copied from stdin (format binary)", Cancel))
        {
            foreach (var (at, (amount, text, day, list, large, number, small)) in rows.Index())
            {
                copy.Row(8);
                copy.Write(at);
                copy.Write(amount);
                copy.Write(text);
                copy.Write(at % 7 == 0 ? null : DateOnly.FromDayNumber(day));
                copy.Write(list);
                copy.Write(large);
                copy.Write(number);
                copy.Write(small);
            }

            await copy.CompleteAsync(Cancel);
        }

        // The text of the amount shows its decimals too: 1.50 is not 1.5 on a statement.
        await using var read = new Npgsql.NpgsqlCommand(
            "select amount::text, text, day, list, large, number, small from copied order by at",
            connection
        );
        await using var reader = await read.ExecuteReaderAsync(Cancel);
        foreach (var (at, (amount, text, day, list, large, number, small)) in rows.Index())
        {
            Assert.True(await reader.ReadAsync(Cancel));
            Assert.Equal(
                (Plain(amount), text, at % 7 == 0 ? null : DateOnly.FromDayNumber(day), string.Join('|', list), large, number, small),
                (
                    reader.GetString(0),
                    reader.GetString(1),
                    reader.IsDBNull(2) ? (DateOnly?)null : reader.GetFieldValue<DateOnly>(2),
                    string.Join('|', reader.GetFieldValue<string[]>(3)),
                    reader.GetInt64(4),
                    reader.GetInt32(5),
                    reader.GetInt16(6)
                )
            );
        }
    }

    [Fact]
    public async Task What_is_not_completed_leaves_nothing_and_the_connection_goes_on()
    {
        await using var connection = await postgres.Source.OpenConnectionAsync(Cancel);
        await using (var make = new Npgsql.NpgsqlCommand("create temp table stopped (at int)", connection))
        {
            await make.ExecuteNonQueryAsync(Cancel);
        }

        await using (var copy = await BinaryCopy.BeginAsync(connection, "copy stopped from stdin (format binary)", Cancel))
        {
            copy.Row(1);
            copy.Write(1);
        }

        await using var count = new Npgsql.NpgsqlCommand("select count(*) from stopped", connection);
        Assert.Equal(0L, await count.ExecuteScalarAsync(Cancel));
    }

    private static string Plain(decimal amount) =>
        amount == 0
            ? Math.Abs(amount).ToString(System.Globalization.CultureInfo.InvariantCulture)
            : amount.ToString(System.Globalization.CultureInfo.InvariantCulture);
}
