using System.Text.Json;

namespace Rendal.Store;

/// <summary>How the values of an enumeration are written into text columns: in kebab-case, as they are in JSON.</summary>
internal static class EnumText
{
    /// <summary>Writes <c>OpenItems</c> as <c>open-items</c>.</summary>
    public static string Of<T>(T value)
        where T : struct, Enum => JsonNamingPolicy.KebabCaseLower.ConvertName(value.ToString());

    /// <summary>Reads it back.</summary>
    public static T Parse<T>(string text)
        where T : struct, Enum => Words<T>.All[text];

    private static class Words<T>
        where T : struct, Enum
    {
        public static readonly Dictionary<string, T> All = Enum.GetValues<T>().ToDictionary(Of, StringComparer.Ordinal);
    }
}
