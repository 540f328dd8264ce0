using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Core.Statements;

namespace Rendal.Cli;

/// <summary>All ledger files of one call together.</summary>
internal sealed class LedgersRead
{
    /// <summary>The rows that count, of all files.</summary>
    public List<LedgerRow> Rows { get; } = [];

    /// <summary>The rows that count nowhere because of an error.</summary>
    public List<RowSetAside> SetAside { get; } = [];

    /// <summary>What was noticed, in the order of the files.</summary>
    public List<Finding> Findings { get; } = [];

    /// <summary>The customers as the rows tell of them, by their keys.</summary>
    public Dictionary<string, CustomerSeen> Seen { get; } = new(StringComparer.Ordinal);

    /// <summary>How many rows were read.</summary>
    public int Read { get; private set; }

    /// <summary>How many of them count.</summary>
    public int Kept { get; private set; }

    /// <summary>How payments are set: the most thorough that one of the files needs.</summary>
    public SettlementRule Rule { get; private set; }

    /// <summary>Adds a row.</summary>
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

    /// <summary>Adds what is known when a file is at its end.</summary>
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
