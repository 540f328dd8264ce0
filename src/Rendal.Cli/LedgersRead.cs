using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Core.Statements;

namespace Rendal.Cli;

/// <summary>All ledger files of one call together.</summary>
internal sealed class LedgersRead
{
    public List<LedgerRow> Rows { get; } = [];

    public List<RowSetAside> SetAside { get; } = [];

    public List<Finding> Findings { get; } = [];

    public Dictionary<string, CustomerSeen> Seen { get; } = new(StringComparer.Ordinal);

    public int Read { get; private set; }

    public int Kept { get; private set; }

    public SettlementRule Rule { get; private set; }

    public void Add(ReadRow row)
    {
        if (row.Row is { } kept)
        {
            Rows.Add(kept);
        }
        else
        {
            SetAside.Add(row.SetAside!);
        }
    }

    public void Add(LedgerReader reader, SettlementRule rule)
    {
        Read += reader.RowsRead;
        Kept += reader.RowsKept;
        Findings.AddRange(reader.Findings.Listed());
        // Files of movements and of open items together: what is open of the movements has to be found out.
        Rule = (SettlementRule)Math.Max((int)Rule, (int)rule);
        foreach (var (key, seen) in reader.Customers)
        {
            Seen.TryAdd(key, seen);
        }
    }

    /// <summary>The name of a customer: from the list, else from the rows, else its code.</summary>
    public Func<string, string> NameOf(IReadOnlyDictionary<string, Customer> listed) =>
        key =>
            listed.TryGetValue(key, out var known) ? known.Name
            : Seen.TryGetValue(key, out var seen) && seen.Name.Length > 0 ? seen.Name
            : key;
}
