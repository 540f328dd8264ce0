using Rendal.Core.Customers;

namespace Rendal.Core.Intake;

/// <summary>Which customer's code goes with which name in one file. Names that fold to the same are one.</summary>
internal sealed class NamesWithCodes
{
    private readonly Dictionary<string, Codes> byFolded = new(StringComparer.Ordinal);
    private readonly Memo<Codes> byName;

    /// <summary>
    /// Goes through all lines of a file once. A name counts as another’s where both fold to the same (<see cref="FoldedName"/>).
    /// </summary>
    public NamesWithCodes(IEnumerable<LedgerLine> lines)
    {
        byName = new(name =>
        {
            var folded = FoldedName.Of(name);
            if (!byFolded.TryGetValue(folded, out var codes))
            {
                byFolded.Add(folded, codes = new Codes());
            }

            return codes;
        });
        foreach (var line in lines.Where(l => l.Code.Length > 0 && l.Name.Length > 0))
        {
            var codes = byName.Of(line.Name);
            codes.AreSeveral |= codes.First is not null && codes.First != line.Code;
            codes.First ??= line.Code;
        }
    }

    /// <summary>The one code that stands beside a name; null where none or several do.</summary>
    public string? CodeOf(string name) => byName.Of(name) is { AreSeveral: false } codes ? codes.First : null;

    private sealed class Codes
    {
        /// <summary>The first code that stood beside the name; null where none did.</summary>
        public string? First { get; set; }

        /// <summary>Whether another one stood beside it as well.</summary>
        public bool AreSeveral { get; set; }
    }
}
