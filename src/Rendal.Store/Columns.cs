using Npgsql;

namespace Rendal.Store;

/// <summary>
/// Reads columns by their names, so that nobody has to count them. Where two of a statement have one name, the first is read: give the
/// other an alias.
/// </summary>
internal static class Columns
{
    public static string String(this NpgsqlDataReader reader, string column) => reader.GetString(reader.GetOrdinal(column));

    public static short Int16(this NpgsqlDataReader reader, string column) => reader.GetInt16(reader.GetOrdinal(column));

    public static int Int32(this NpgsqlDataReader reader, string column) => reader.GetInt32(reader.GetOrdinal(column));

    public static long Int64(this NpgsqlDataReader reader, string column) => reader.GetInt64(reader.GetOrdinal(column));

    public static decimal Decimal(this NpgsqlDataReader reader, string column) => reader.GetDecimal(reader.GetOrdinal(column));

    public static bool Boolean(this NpgsqlDataReader reader, string column) => reader.GetBoolean(reader.GetOrdinal(column));

    public static bool IsNull(this NpgsqlDataReader reader, string column) => reader.IsDBNull(reader.GetOrdinal(column));

    public static T Value<T>(this NpgsqlDataReader reader, string column) => reader.GetFieldValue<T>(reader.GetOrdinal(column));

    public static T? Nullable<T>(this NpgsqlDataReader reader, string column)
        where T : struct => reader.Nullable<T>(reader.GetOrdinal(column));

    public static string? Text(this NpgsqlDataReader reader, string column) => reader.Text(reader.GetOrdinal(column));
}
