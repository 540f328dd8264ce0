using System.Collections;
using System.Diagnostics.CodeAnalysis;

namespace Rendal.Core.Ledger;

/// <summary>
/// The filled columns of one row without a meaning for the rules. The headings are shared by all rows of a file, so that a million rows
/// hold them once.
/// </summary>
/// <param name="headings">The headings of the columns, each another.</param>
/// <param name="values">The values beside them; an empty one is not there.</param>
public sealed class ExtraColumns(string[] headings, string[] values) : IReadOnlyDictionary<string, string>
{
    /// <summary>A row without such columns.</summary>
    public static ExtraColumns None { get; } = new([], []);

    /// <summary>The values beside the headings of the file, empty ones included.</summary>
    public string[] InOrder => values;

    /// <inheritdoc/>
    public IEnumerable<string> Keys => this.Select(c => c.Key);

    /// <inheritdoc/>
    public IEnumerable<string> Values => this.Select(c => c.Value);

    /// <inheritdoc/>
    public int Count => values.Count(v => v.Length > 0);

    /// <inheritdoc/>
    public string this[string key] =>
        TryGetValue(key, out var value) ? value : throw new KeyNotFoundException($"There is no filled column “{key}”.");

    /// <inheritdoc/>
    public bool ContainsKey(string key) => TryGetValue(key, out _);

    /// <inheritdoc/>
    public bool TryGetValue(string key, [MaybeNullWhen(false)] out string value)
    {
        var at = Array.IndexOf(headings, key);
        value = at >= 0 && values[at].Length > 0 ? values[at] : null;
        return value is not null;
    }

    /// <inheritdoc/>
    public IEnumerator<KeyValuePair<string, string>> GetEnumerator()
    {
        for (var i = 0; i < headings.Length; i++)
        {
            if (values[i].Length > 0)
            {
                yield return KeyValuePair.Create(headings[i], values[i]);
            }
        }
    }

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();
}
