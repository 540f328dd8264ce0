using Rendal.Core.Layouts;

namespace Rendal.Core.Wordings;

/// <summary>The columns of a table of items in a message, as the setting of its slot: <c>number,due,extra%3ARound,open</c>.</summary>
public static class TableColumns
{
    /// <summary>Reads the setting; null where one of the columns is not known, or stands twice.</summary>
    /// <param name="setting">Names of <see cref="ItemFields"/>, percent-encoded (RFC 3986), with commas between; at least one.</param>
    public static IReadOnlyList<LayoutColumn>? Read(string setting)
    {
        var fields = setting.Split(',', StringSplitOptions.TrimEntries).Select(Uri.UnescapeDataString).ToList();
        return fields.TrueForAll(ItemFields.IsKnown) && fields.Distinct(StringComparer.Ordinal).Count() == fields.Count
            ? fields.ConvertAll(f => new LayoutColumn(f))
            : null;
    }
}
