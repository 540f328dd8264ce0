using System.Text.Json;
using System.Text.Json.Serialization;

namespace Rendal.Store;

/// <summary>How values are written into jsonb columns.</summary>
internal static class StoreJson
{
    public static JsonSerializerOptions Options { get; } = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower) },
    };

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    public static T Read<T>(string json) => JsonSerializer.Deserialize<T>(json, Options) ?? throw new InvalidOperationException($"A stored value of type {typeof(T).Name} is null.");
}
