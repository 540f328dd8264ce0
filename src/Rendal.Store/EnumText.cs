using System.Text.Json;

namespace Rendal.Store;

/// <summary>How the values of an enumeration are written into text columns: in kebab-case, as they are in JSON.</summary>
public static class EnumText
{
    /// <summary>Writes <c>OpenItems</c> as <c>open-items</c>.</summary>
    public static string Of<T>(T value)
        where T : struct, Enum => Words<T>.Written[value];

    /// <summary>Reads it back.</summary>
    public static T Parse<T>(string text)
        where T : struct, Enum => Words<T>.Read[text];

    private static class Words<T>
        where T : struct, Enum
    {
        /// <summary>By value.</summary>
        public static readonly Dictionary<T, string> Written = Enum.GetValues<T>()
            .ToDictionary(value => value, value => JsonNamingPolicy.KebabCaseLower.ConvertName(value.ToString()));

        /// <summary>By what is written.</summary>
        public static readonly Dictionary<string, T> Read = Written.ToDictionary(w => w.Value, w => w.Key, StringComparer.Ordinal);
    }
}
