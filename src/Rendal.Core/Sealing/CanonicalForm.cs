using System.Buffers;
using System.Collections;
using System.Globalization;
using System.Reflection;
using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace Rendal.Core.Sealing;

/// <summary>
/// The one way in which values are written to be hashed: JSON with the members of dictionaries and sets in ordinal order and
/// amounts without trailing zeros, so that what is equal has one form. A member that says nothing is left away: null where it may be null,
/// else an empty text or list, 0, false, or the first of an enumeration. So a member that is added to what is sealed, and says nothing in
/// all that was sealed before, changes no seal.
/// </summary>
internal static class CanonicalForm
{
    // 29 digits, a sign, a point, and an exponent.
    private const int LongestAmount = 36;

    private static readonly JsonSerializerOptions Options = new()
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingDefault,
        Converters =
        {
            new JsonStringEnumConverter(),
            new AmountConverter(),
            new SetConverter(),
            new DictionaryConverter<string>(),
            new DictionaryConverter<IReadOnlySet<string>>(),
        },
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { LeaveAwayEmptyTextsAndLists } },
    };

    // A round has hundreds of thousands of values to hash; each thread writes them all to the same place.
    [ThreadStatic]
    private static ArrayBufferWriter<byte>? written;

    [ThreadStatic]
    private static Utf8JsonWriter? writer;

    /// <summary>The SHA-256 of a value's form.</summary>
    public static byte[] Hash<T>(T value) => Hash(to => JsonSerializer.Serialize(to, value, Options));

    /// <summary>The same for a value whose type is known when the program runs.</summary>
    public static byte[] Hash(Type type, object? value) => Hash(to => JsonSerializer.Serialize(to, value, type, Options));

    private static byte[] Hash(Action<Utf8JsonWriter> write)
    {
        written ??= new ArrayBufferWriter<byte>(1 << 16);
        writer ??= new Utf8JsonWriter(written);
        written.ResetWrittenCount();
        writer.Reset(written);
        write(writer);
        writer.Flush();
        return SHA256.HashData(written.WrittenSpan);
    }

    // Values are compared with their default by the serialiser, without being boxed; null where it may be null is the default too.
    private static void LeaveAwayEmptyTextsAndLists(JsonTypeInfo type)
    {
        var nullability = new NullabilityInfoContext();
        foreach (var member in type.Properties)
        {
            if (
                member.AttributeProvider is PropertyInfo property
                && !property.PropertyType.IsValueType
                && nullability.Create(property).ReadState != NullabilityState.Nullable
            )
            {
                member.ShouldSerialize = (_, value) => !IsEmpty(value);
            }
        }
    }

    // Not every list counts itself: an empty HashSet says as little as an empty array.
    private static bool IsEmpty(object? value) =>
        value switch
        {
            null or "" => true,
            string => false,
            ICollection list => list.Count == 0,
            IEnumerable list => !list.Cast<object>().Any(),
            _ => false,
        };

    private sealed class AmountConverter : Written<decimal>
    {
        public override void Write(Utf8JsonWriter writer, decimal value, JsonSerializerOptions options) =>
            writer.WriteStringValue(Plain(value, stackalloc char[LongestAmount]));
    }

    private static ReadOnlySpan<char> Plain(decimal value, Span<char> into) =>
        value.TryFormat(into, out var length, "G29", CultureInfo.InvariantCulture)
            ? into[..length]
            : throw new InvalidOperationException("An amount is longer than amounts are.");

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
