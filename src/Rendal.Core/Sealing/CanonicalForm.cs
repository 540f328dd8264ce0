using System.Globalization;
using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Rendal.Core.Sealing;

/// <summary>
/// The one way in which values are written to be hashed: JSON with the members of dictionaries and sets in ordinal order and
/// amounts without trailing zeros, so that what is equal has one form.
/// </summary>
internal static class CanonicalForm
{
    private static readonly JsonSerializerOptions Options = new()
    {
        Converters =
        {
            new JsonStringEnumConverter(),
            new AmountConverter(),
            new SetConverter(),
            new DictionaryConverter<string>(),
            new DictionaryConverter<IReadOnlySet<string>>(),
        },
    };

    /// <summary>The SHA-256 of a value's form, in lower-case hexadecimal digits.</summary>
    public static string Hash<T>(T value) =>
        Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(value, Options)));

    /// <summary>The same for a value whose type is known when the program runs.</summary>
    public static string Hash(Type type, object? value) =>
        Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(value, type, Options)));

    private sealed class AmountConverter : Written<decimal>
    {
        public override void Write(Utf8JsonWriter writer, decimal value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value.ToString("G29", CultureInfo.InvariantCulture));
    }

    private sealed class SetConverter : Written<IReadOnlySet<string>>
    {
        public override void Write(Utf8JsonWriter writer, IReadOnlySet<string> value, JsonSerializerOptions options) =>
            JsonSerializer.Serialize(writer, value.Order(StringComparer.Ordinal).ToArray(), options);
    }

    private sealed class DictionaryConverter<T> : Written<IReadOnlyDictionary<string, T>>
    {
        public override void Write(Utf8JsonWriter writer, IReadOnlyDictionary<string, T> value, JsonSerializerOptions options)
        {
            writer.WriteStartObject();
            foreach (var (key, member) in value.OrderBy(m => m.Key, StringComparer.Ordinal))
            {
                writer.WritePropertyName(key);
                JsonSerializer.Serialize(writer, member, options);
            }

            writer.WriteEndObject();
        }
    }

    /// <summary>A form that is never read back: what is sealed is compared by its hash.</summary>
    private abstract class Written<T> : JsonConverter<T>
    {
        public sealed override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            throw new InvalidOperationException("The canonical form is not read back.");
    }
}
