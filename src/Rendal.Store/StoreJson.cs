using System.Text.Json;
using System.Text.Json.Serialization;

namespace Rendal.Store;

/// <summary>How values are written into jsonb columns.</summary>
internal static class StoreJson
{
    /// <summary>How names and enumerations are written: in camel case and kebab case.</summary>
    public static JsonSerializerOptions Options { get; } =
        new(JsonSerializerDefaults.Web)
        {
            // jsonb keeps the members of an object in an order of its own, so that what says which part of a layout one is may come late.
            AllowOutOfOrderMetadataProperties = true,
            Converters = { new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower), new TextSetConverter() },
        };

    /// <summary>Writes a value.</summary>
    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>Reads it back.</summary>
    /// <exception cref="InvalidOperationException">It is <c>null</c>.</exception>
    public static T Read<T>(string json) =>
        JsonSerializer.Deserialize<T>(json, Options)
        ?? throw new InvalidOperationException($"A stored value of type {typeof(T).Name} is null.");

    /// <summary>Sets of texts, which the library writes and does not read back.</summary>
    private sealed class TextSetConverter : JsonConverter<IReadOnlySet<string>>
    {
        public override IReadOnlySet<string> Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            (JsonSerializer.Deserialize<string[]>(ref reader, options) ?? []).ToHashSet(StringComparer.Ordinal);

        public override void Write(Utf8JsonWriter writer, IReadOnlySet<string> value, JsonSerializerOptions options) =>
            JsonSerializer.Serialize(writer, value.Order(StringComparer.Ordinal).ToArray(), options);
    }
}
