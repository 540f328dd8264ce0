using Npgsql;

namespace Rendal.Store;

/// <summary>
/// Reads columns by their names, so that nobody has to count them. Where two of a statement have one name, the first is read: give the
/// other an alias.
/// </summary>
internal static class Columns
{
    /// <summary>A text; it must not be null.</summary>
    public static string String(this NpgsqlDataReader reader, string column) => reader.GetString(reader.GetOrdinal(column));

    /// <summary>A whole number of two bytes; it must not be null.</summary>
    public static short Int16(this NpgsqlDataReader reader, string column) => reader.GetInt16(reader.GetOrdinal(column));

    /// <summary>A whole number of four bytes; it must not be null.</summary>
    public static int Int32(this NpgsqlDataReader reader, string column) => reader.GetInt32(reader.GetOrdinal(column));

    /// <summary>A whole number of eight bytes; it must not be null.</summary>
    public static long Int64(this NpgsqlDataReader reader, string column) => reader.GetInt64(reader.GetOrdinal(column));

    /// <summary>A number with decimals; it must not be null.</summary>
    public static decimal Decimal(this NpgsqlDataReader reader, string column) => reader.GetDecimal(reader.GetOrdinal(column));

    /// <summary>Yes or no; it must not be null.</summary>
    public static bool Boolean(this NpgsqlDataReader reader, string column) => reader.GetBoolean(reader.GetOrdinal(column));

    /// <summary>Whether it is null.</summary>
    public static bool IsNull(this NpgsqlDataReader reader, string column) => reader.IsDBNull(reader.GetOrdinal(column));

    /// <summary>A value of any type; it must not be null.</summary>
    public static T Value<T>(this NpgsqlDataReader reader, string column) => reader.GetFieldValue<T>(reader.GetOrdinal(column));

    /// <summary>A value, or null.</summary>
    public static T? Nullable<T>(this NpgsqlDataReader reader, string column)
        where T : struct => reader.Nullable<T>(reader.GetOrdinal(column));

    /// <summary>A text, or null.</summary>
    public static string? Text(this NpgsqlDataReader reader, string column) => reader.Text(reader.GetOrdinal(column));
}
