using Rendal.Core.Customers;

namespace Rendal.Core.Intake;

/// <summary>Which customer's code goes with which name in one file. Names that fold to the same are one.</summary>
internal sealed class NamesWithCodes
{
    private readonly Dictionary<string, Codes> byFolded = new(StringComparer.Ordinal);
    private readonly Memo<Codes> byName;

    public NamesWithCodes() => byName = new(name =>
    {
        var folded = FoldedName.Of(name);
        if (!byFolded.TryGetValue(folded, out var codes))
        {
            byFolded.Add(folded, codes = new Codes());
        }

        return codes;
    });

    /// <summary>Shows a name with the code beside it.</summary>
    public void Show(string name, string code)
    {
        var codes = byName.Of(name);
        codes.AreSeveral |= codes.First is not null && codes.First != code;
        codes.First ??= code;
    }

    /// <summary>The one code that stands beside a name; null where none or several do.</summary>
    public string? CodeOf(string name) => byName.Of(name) is { AreSeveral: false } codes ? codes.First : null;

    private sealed class Codes
    {
        public string? First { get; set; }

        public bool AreSeveral { get; set; }
    }
}
